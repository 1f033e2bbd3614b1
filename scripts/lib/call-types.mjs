import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ts from 'typescript-json-schema';
import { root } from './ensure.mjs';

const CONTRACT = join(root, 'src/lib/contract');

/**
 * The TypeScript types of all calls of the route table, as JSON Schemas (draft 7): of each its answer, the body and query
 * that one sends with it, and as its handler gets them; with the definitions to which they refer.
 */
export function callTypes(names) {
  // The types are asked of the compiler through a file that is there for a moment.
  const folder = mkdtempSync(join(tmpdir(), 'isle-calls-'));
  const path = join(folder, 'calls.ts');
  const rows = names.map(
    (name) =>
      `${name}: { answer: RouteAnswer<'${name}'>; body: BodySent<'${name}'>; query: QuerySent<'${name}'>; ` +
      `bodyTaken: BodyTaken<'${name}'>; queryTaken: QueryTaken<'${name}'> };`,
  );
  writeFileSync(
    path,
    `import type { BodySent, BodyTaken, QuerySent, QueryTaken, RouteAnswer } from '${CONTRACT}/routes';\nexport type Calls = {\n${rows.join('\n')}\n};\n`,
  );
  try {
    const options = {
      ...{ strict: true, skipLibCheck: true, noEmit: true, types: [], lib: ['es2022', 'dom'] },
      ...{ target: 'es2022', module: 'esnext', moduleResolution: 'bundler' },
    };
    const program = ts.getProgramFromFiles([path], options, root);
    const made = ts.generateSchema(program, 'Calls', {
      ...{ required: true, strictNullChecks: true, aliasRef: true, ignoreErrors: true },
    });
    if (!made) throw new Error('The types of the calls cannot be read.');
    return tidied(JSON.parse(JSON.stringify(made)));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A name that the compiler made up, of a type that has none of its own or stands for another one. */
const MADE_UP =
  /^(__type|RouteAnswer|BodySent|QuerySent|BodyTaken|QueryTaken|Required|Record|Partial|Pick|Omit|Array|Readonly)\b|^__type|[<>_]/;

/** Puts types without names of their own where they are used, and takes one definition for what is the same twice. */
function tidied({ properties, definitions }) {
  const named = {};
  const refOf = ({ $ref }) => (typeof $ref === 'string' ? decodeURIComponent($ref.split('/').at(-1)) : null);
  const stemOf = (name) => name.replace(/_\d+$/, '');
  const ownOf = (name) => {
    const next = refOf(definitions[name]);
    return next !== null && stemOf(next) === stemOf(name) ? ownOf(next) : definitions[name];
  };
  const put = (schema, within = []) => {
    if (Array.isArray(schema)) return schema.map((one) => put(one, within));
    if (schema === null || typeof schema !== 'object') return schema;
    const ref = refOf(schema);
    if (ref === null)
      return Object.fromEntries(Object.entries(schema).map(([key, value]) => [key, put(value, within)]));
    const stem = stemOf(ref);
    if (!MADE_UP.test(stem)) {
      if (!(stem in named)) {
        named[stem] = null;
        // A type is told of by another of the same name where it is all optional or readonly.
        named[stem] = put(ownOf(ref));
      }
      return { $ref: `#/definitions/${stem}` };
    }
    if (within.includes(ref)) throw new Error(`A type without a name holds itself: ${ref}.`);
    return put(definitions[ref], [...within, ref]);
  };
  const calls = Object.fromEntries(
    Object.entries(properties).map(([name, { properties: of = {} }]) => [
      name,
      Object.fromEntries(Object.entries(of).map(([key, schema]) => [key, put(schema)])),
    ]),
  );
  return {
    calls,
    definitions: Object.fromEntries(Object.entries(named).sort(([a], [b]) => (a < b ? -1 : 1))),
  };
}

/** Where the types of the answers are kept for the OpenAPI document. */
export const ANSWERS = join(CONTRACT, 'answers.json');

/** What that file holds: the answers, and the definitions that they need. */
export function answersOf({ calls, definitions }) {
  const needed = {};
  const need = (schema) => {
    for (const [, name] of JSON.stringify(schema).matchAll(/"#\/definitions\/([^"]+)"/g))
      if (!(name in needed)) {
        needed[name] = definitions[name];
        need(definitions[name]);
      }
  };
  const answers = Object.fromEntries(
    Object.entries(calls).flatMap(([name, { answer }]) => (answer ? [[name, answer]] : [])),
  );
  need(answers);
  const sorted = Object.fromEntries(Object.entries(needed).sort(([a], [b]) => (a < b ? -1 : 1)));
  return `{"answers":{\n${lines(answers)}\n},"definitions":{\n${lines(sorted)}\n}}\n`;
}

const lines = (of) =>
  Object.entries(of)
    .map(([name, schema]) => `${JSON.stringify(name)}:${JSON.stringify(schema)}`)
    .join(',\n');

export const keptAnswers = () => readFileSync(ANSWERS, 'utf8');
