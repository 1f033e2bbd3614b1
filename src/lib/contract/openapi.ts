import type Joi from 'joi';
import joiToSwagger from 'joi-to-swagger';
import types from './answers.json';
import { FAILURE_STATUS } from './failure';
import { ROUTES, type RouteSpec } from './routes';

/** A JSON Schema (draft 2020-12, which is what OpenAPI 3.1 takes). */
type Schema = { [key: string]: unknown };

/** The OpenAPI 3.1 document of `/api/v1`, made from the route table, its Joi schemas, and the types of its answers. */
export function openApiDocument(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, route] of Object.entries(ROUTES) as [string, RouteSpec][]) {
    const entry = (paths[route.path] ??= {});
    entry[route.method.toLowerCase()] = operation(name, route);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Isle',
      version: '1',
      description: 'Pattern library, layouts and hand-over. Lengths are CSS px.',
    },
    servers: [{ url: '/api/v1' }],
    paths,
    components: { schemas: { Failure: FAILURE, ...(typed(types.definitions) as Schema) } },
  };
}

const FAILURE = {
  type: 'object',
  required: ['code', 'message', 'path'],
  properties: {
    code: { type: 'string', enum: Object.keys(FAILURE_STATUS) },
    message: { type: 'string' },
    path: { type: 'string' },
    problems: { type: 'array', items: { type: 'object' } },
    current: { description: 'With “stale”: what is stored now.' },
  },
};

function operation(name: string, route: RouteSpec): object {
  const parameters = [...route.path.matchAll(/\{(\w+)\}/g)].map(([, key]) => ({
    name: key,
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const query: Schema = route.query ? checkedBy(route.query) : {};
  const needed = (query.required ?? []) as string[];
  const queryParameters = Object.entries((query.properties ?? {}) as Schema).map(([key, schema]) => ({
    name: key,
    in: 'query',
    required: needed.includes(key),
    schema,
  }));
  const { [name]: answer = {} } = types.answers as Record<string, object>;
  return {
    operationId: name,
    summary: route.summary,
    parameters: [...parameters, ...queryParameters],
    ...bodyOf(route),
    responses: {
      200: {
        description: 'Done',
        content: { [route.answers ?? 'application/json']: { schema: typed(answer) } },
      },
      default: {
        description: 'A failure',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Failure' } } },
      },
    },
  };
}

function bodyOf(route: RouteSpec): object {
  const content = route.body
    ? { 'application/json': { schema: checkedBy(route.body) } }
    : route.takesFile
      ? { 'application/octet-stream': {} }
      : null;
  return content ? { requestBody: { required: true, content } } : {};
}

/** A Joi schema as a JSON Schema: what is written as OpenAPI 3.0 had it is put as JSON Schema has it now. */
export const checkedBy = (schema: Joi.ObjectSchema): Schema =>
  everywhere(joiToSwagger(schema).swagger, ({ nullable, exclusiveMinimum, ...rest }) => ({
    ...rest,
    ...(exclusiveMinimum === true && { minimum: undefined, exclusiveMinimum: rest.minimum }),
    ...(nullable === true &&
      typeof rest.type === 'string' && {
        type: [rest.type, 'null'],
        ...(Array.isArray(rest.enum) && { enum: [...(rest.enum as unknown[]), null] }),
      }),
  })) as Schema;

/** A type as a JSON Schema within this document: of draft 7 it differs by the place of its definitions and by its tuples. */
const typed = (schema: unknown): unknown =>
  everywhere(schema, ({ $ref, items, ...rest }) => ({
    ...rest,
    ...(typeof $ref === 'string' && { $ref: $ref.replace('#/definitions/', '#/components/schemas/') }),
    ...(Array.isArray(items) ? { prefixItems: items as unknown[] } : items !== undefined && { items }),
  }));

/** A schema with all that lie in it, each changed. */
function everywhere(schema: unknown, change: (schema: Schema) => Schema): unknown {
  if (Array.isArray(schema)) return schema.map((one) => everywhere(one, change));
  if (schema === null || typeof schema !== 'object') return schema;
  const all = Object.entries(schema).map(([key, value]) => [key, everywhere(value, change)]);
  return change(Object.fromEntries(all) as Schema);
}
