import { LIBRARY_ROUTES } from './routes/library';
import { MATERIAL_ROUTES } from './routes/materials';
import { PEOPLE_ROUTES } from './routes/people';
import { PROJECT_ROUTES } from './routes/projects';
import { SHOWN_ROUTES } from './routes/shown';
import { TALK_ROUTES } from './routes/talk';
import type { Gives, ParamsOf, RouteSpec, Takes } from './routes/spec';

export type { RouteSpec };

/** All routes of the API by their names. The server's handlers, the check of who may ask, and the OpenAPI document read this table. */
export const ROUTES = {
  ...LIBRARY_ROUTES,
  ...MATERIAL_ROUTES,
  ...PROJECT_ROUTES,
  ...SHOWN_ROUTES,
  ...PEOPLE_ROUTES,
  ...TALK_ROUTES,
} satisfies Record<string, RouteSpec>;

export type RouteName = keyof typeof ROUTES;

type Row<N extends RouteName> = (typeof ROUTES)[N];
type Of<Row, Key extends string> = Row extends { [K in Key]: infer Value } ? Value : undefined;

/** What somebody sends with a call, and what the handler gets: defaults are filled in, types are converted. */
type Sent<Schema> = Schema extends Takes<infer In, infer _Out> ? In : undefined;
type Taken<Schema> = Schema extends Takes<infer _In, infer Out> ? Out : undefined;

export type BodySent<N extends RouteName> = Sent<Of<Row<N>, 'body'>>;
export type BodyTaken<N extends RouteName> = Taken<Of<Row<N>, 'body'>>;
export type QuerySent<N extends RouteName> = Sent<Of<Row<N>, 'query'>>;
export type QueryTaken<N extends RouteName> = Taken<Of<Row<N>, 'query'>>;
/** The names in the address of a call. */
export type RouteParams<N extends RouteName> = Record<ParamsOf<Row<N>['path']>, string>;
/** What a call answers with; `never` where that is no JSON. */
export type RouteAnswer<N extends RouteName> =
  Of<Row<N>, 'gives'> extends Gives<infer Answer> ? Answer : never;

/** A call as one writes it, such as `PUT /layouts/{id}/archived`, and the name of its route. */
type ByAddress = { [N in RouteName as `${Row<N>['method']} ${Row<N>['path']}`]: N };
export type Address = keyof ByAddress;
export type NameOf<A extends Address> = ByAddress[A];

type Part<Key extends string, Value> = [Value] extends [undefined]
  ? unknown
  : object extends Value
    ? { [K in Key]?: Value }
    : { [K in Key]: Value };

/** What an address is filled with: what stands in its braces, and its query. */
export type Filling<A extends Address> = Record<ParamsOf<A>, string | number> &
  Part<'query', QuerySent<NameOf<A>>>;
/** What is given with a call. */
export type Given<A extends Address> = Filling<A> & Part<'body', BodySent<NameOf<A>>>;
export type AnswerTo<A extends Address> = RouteAnswer<NameOf<A>>;
