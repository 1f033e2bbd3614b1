import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020';
import { openApiDocument } from '../../src/lib/contract/openapi';
import { ROUTES, type RouteSpec } from '../../src/lib/contract/routes';

type Operation = { responses: { 200: { content: Record<string, { schema: object }> } } };
const document = openApiDocument() as {
  paths: Record<string, Record<string, Operation>>;
  components: object;
};
const routes = (Object.values(ROUTES) as RouteSpec[]).map((route) => ({
  ...{ route, pattern: new RegExp(`^${route.path.replace(/\{\w+\}/g, '[^/]+')}$`) },
}));
const known = new Map<RouteSpec, ValidateFunction>();
const ajv = new Ajv2020({ strict: false, allErrors: true });
ajv.addSchema({ $id: 'isle', components: document.components });

/** Holds an answer against what the OpenAPI document says of it; throws what it says otherwise. */
export function asDocumented(method: string, path: string, answer: unknown): void {
  const [plain = ''] = path.split('?');
  // A name in an address goes before what may stand in its place.
  const fits = routes.filter(({ route, pattern }) => route.method === method && pattern.test(plain));
  const found = (fits.find(({ route }) => route.path === plain) ?? fits[0])?.route;
  if (!found || found.answers !== undefined) return;
  let check = known.get(found);
  if (!check) {
    const { schema } =
      document.paths[found.path]![method.toLowerCase()]!.responses[200].content['application/json']!;
    const here = JSON.parse(
      JSON.stringify(schema).replaceAll('"#/components/', '"isle#/components/'),
    ) as object;
    known.set(found, (check = ajv.compile(here)));
  }
  if (check(answer)) return;
  const problems = (check.errors ?? []).slice(0, 5).map((one) => `${one.instancePath} ${one.message}`);
  throw new Error(`${method} ${path} answers otherwise than is documented: ${problems.join('; ')}.`);
}
