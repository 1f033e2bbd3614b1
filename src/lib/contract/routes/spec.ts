import type Joi from 'joi';
import type { Role } from '../people';

/** What is given with a call, as a schema that checks it. `In` is what one sends, `Out` what the handler gets. */
export type Takes<In, Out = In> = Joi.ObjectSchema<Out> & { readonly given?: In };

/** What a call answers with, for the types alone. */
export type Gives<Answer> = { readonly answer?: Answer };

/** One route of the API: what it is for and what it takes. The server's handlers, the client's calls and the OpenAPI document all read this table. */
export type RouteSpec = {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  /** Who may ask: whoever has at least this role, or anyone who reaches Isle. In a project that is closed, of those named in it. */
  role: Role | 'anyone';
  summary: string;
  /** Anyone may ask where the studio has said so. */
  openable?: boolean;
  body?: Joi.ObjectSchema;
  query?: Joi.ObjectSchema;
  gives?: Gives<unknown>;
  /** So often a minute one may ask it, where it costs much; who asks too often is told to wait. */
  perMinute?: number;
  /** Most bytes of the body; 20 MB where not said. */
  maxBytes?: number;
  /** The body is a file: its bytes as they are, its name in the header x-file-name (percent-encoded). */
  takesFile?: boolean;
  /** Media type of the answer where it is not JSON. */
  answers?: string;
};

/** A row of the table. */
export const spec = <
  Method extends RouteSpec['method'],
  Path extends string,
  More extends Partial<RouteSpec>,
>(
  method: Method,
  path: Path,
  role: RouteSpec['role'],
  summary: string,
  more: More,
): { method: Method; path: Path; role: RouteSpec['role']; summary: string } & More => ({
  method,
  path,
  role,
  summary,
  ...more,
});

/** A schema with the type of what it checks; it fills in the keys `Filled` where they are left out. */
export const takes = <In, Filled extends keyof In = never>(
  schema: Joi.ObjectSchema,
): Takes<In, In & Required<Pick<In, Filled>>> => schema;

/** The type of an answer. */
export const gives = <Answer>(): Gives<Answer> => ({});

/** The names in braces of an address. */
export type ParamsOf<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}`
  ? Name | ParamsOf<Rest>
  : never;
