import joiToSwagger from 'joi-to-swagger';
import { FAILURE_STATUS } from './failure';
import { ROUTES, type RouteSpec } from './routes';

/** The OpenAPI 3.0 document of `/api/v1`, made from the route table and its Joi schemas. */
export function openApiDocument(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, route] of Object.entries(ROUTES) as [string, RouteSpec][]) {
    const entry = (paths[route.path] ??= {});
    entry[route.method.toLowerCase()] = operation(name, route);
  }
  return {
    openapi: '3.0.3',
    info: {
      title: 'Isle',
      version: '1',
      description: 'Pattern library, layouts and hand-over. Lengths are CSS px.',
    },
    servers: [{ url: '/api/v1' }],
    paths,
    components: { schemas: { Failure: FAILURE } },
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
  const query = route.query ? joiToSwagger(route.query).swagger : null;
  const queryParameters = Object.entries((query?.properties ?? {}) as Record<string, object>).map(
    ([key, schema]) => ({
      name: key,
      in: 'query',
      required: false,
      schema,
    }),
  );
  return {
    operationId: name,
    summary: route.summary,
    parameters: [...parameters, ...queryParameters],
    ...(route.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: joiToSwagger(route.body).swagger } },
          },
        }
      : {}),
    responses: {
      200: { description: 'Done', content: { [route.answers ?? 'application/json']: { schema: {} } } },
      default: {
        description: 'A failure',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Failure' } } },
      },
    },
  };
}
