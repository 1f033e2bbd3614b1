import { Validator } from '@seriousme/openapi-schema-validator';
import { describe, expect, it } from 'vitest';
import { answersOf, callTypes, keptAnswers, type CallSchema } from '../../scripts/lib/call-types.mjs';
import { checkedBy, openApiDocument } from '../../src/lib/contract/openapi';
import { ROUTES, type RouteSpec } from '../../src/lib/contract/routes';
import { asDocumented } from '../support/as-documented';

/** The types that the route table gives its calls, the schemas that check them, and the document that tells of them say the same. */
const routes = Object.entries(ROUTES) as [keyof typeof ROUTES, RouteSpec][];
const types = callTypes(routes.map(([name]) => name));

/** The keys of an object: which there are, which are needed, and which kinds of values each takes, one level deep. */
function keysOf(schema: CallSchema | undefined): Record<string, { needed: boolean; kinds: string[] }> {
  const one = resolved(schema);
  const parts = (one.allOf ?? [one]).map(resolved);
  return Object.fromEntries(
    parts.flatMap(({ properties = {}, required = [] }) =>
      Object.entries(properties).map(([key, of]) => [
        key,
        { needed: required.includes(key), kinds: [...new Set(kindsOf(of))].sort() },
      ]),
    ),
  );
}

function resolved(schema: CallSchema = {}): CallSchema {
  const name = schema.$ref?.split('/').at(-1);
  return name === undefined ? schema : resolved(types.definitions[name]);
}

function kindsOf(schema: CallSchema): string[] {
  const one = resolved(schema);
  const several = one.anyOf ?? one.oneOf;
  if (several) return several.flatMap(kindsOf);
  if (one.allOf) return kindsOf(one.allOf[0] ?? {});
  const values = one.enum ?? (one.const === undefined ? [] : [one.const]);
  if (values.length > 0) return values.map((value) => JSON.stringify(value));
  if (one.type === undefined) return one.properties ? ['object'] : [];
  return (Array.isArray(one.type) ? one.type : [one.type]).map((kind) =>
    kind === 'integer' ? 'number' : kind,
  );
}

describe('a call', () => {
  const sent = routes.flatMap(([name, route]) =>
    (['body', 'query'] as const).flatMap((part) =>
      route[part] ? [{ name, part, schema: route[part] }] : [],
    ),
  );

  it.each(sent)('$name takes in its $part what its schema lets pass', ({ name, part, schema }) => {
    const [type, checked] = [keysOf(types.calls[name]?.[part]), keysOf(checkedBy(schema) as CallSchema)];
    expect(Object.keys(type).sort()).toEqual(Object.keys(checked).sort());
    for (const [key, { needed, kinds }] of Object.entries(checked))
      expect({ key, ...type[key] }).toEqual({ key, needed, kinds });
  });

  it.each(sent)('$name has in its $part for its handler what is filled in', ({ name, part, schema }) => {
    const taken = keysOf(types.calls[name]?.[`${part}Taken`]);
    const { keys } = schema.describe() as { keys: Record<string, { flags?: Record<string, unknown> }> };
    const there = Object.entries(keys).filter(
      ([, { flags = {} }]) => flags.presence === 'required' || 'default' in flags,
    );
    expect(
      Object.keys(taken)
        .filter((key) => taken[key]?.needed)
        .sort(),
    ).toEqual(there.map(([key]) => key).sort());
  });

  it('answers with JSON of a type, or with a file of a kind that is told', () => {
    for (const [name, { answers }] of routes)
      expect({ name, typed: types.calls[name]?.answer !== undefined }).toEqual({
        name,
        typed: answers === undefined,
      });
  });
});

describe('an answer', () => {
  it('is refused by the tests where it is another one than is documented', () => {
    const said = { version: 3, revision: 2, held: 0 };
    expect(() => asDocumented('POST', '/patterns/p/revisions', said)).not.toThrow();
    expect(() => asDocumented('POST', '/patterns/p/revisions', { ...said, held: null })).toThrow(/held/);
    expect(() => asDocumented('GET', '/projects/p?x=1', { id: 'p' })).toThrow(/required property/);
    // A name goes before what may stand in its place: this is no session under the id “own”.
    expect(() => asDocumented('DELETE', '/sessions/own', { id: 1 })).toThrow(/string/);
  });
});

describe('the OpenAPI document', () => {
  it('holds every route of the table', () => {
    const { paths } = openApiDocument() as { paths: Record<string, Record<string, { operationId: string }>> };
    const operations = Object.values(paths).flatMap((path) => Object.values(path));
    expect(operations.map(({ operationId }) => operationId).sort()).toEqual(Object.keys(ROUTES).sort());
  });

  it('has the types of the answers as they are now; `npm run api` writes them', () => {
    expect(keptAnswers()).toBe(answersOf(types));
  });

  it('is one by the schema of the OpenAPI Initiative (3.1)', async () => {
    const { valid, errors } = await new Validator().validate(
      JSON.parse(JSON.stringify(openApiDocument())) as Record<string, unknown>,
    );
    expect(errors ?? []).toEqual([]);
    expect(valid).toBe(true);
  });
});
