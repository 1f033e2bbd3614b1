import { json, type RequestEvent } from '@sveltejs/kit';
import type Joi from 'joi';
import { done, fail, failWith, FAILURE_STATUS, type Failure, type Outcome } from '../../contract/failure';
import { ROUTES, type RouteName, type RouteSpec } from '../../contract/routes';
import { problemOf } from '../../contract/sentences';
import type { App } from './app';

const MOST_BYTES = 20_000_000;

export type Call = {
  app: App;
  params: Record<string, string>;
  /** The checked body; its form is the route's Joi schema. */
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  body: any;
  /** The checked query. */
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  query: any;
  event: RequestEvent;
  /** The file of a route that takes one. */
  file: { bytes: Buffer; name: string };
};

type Answer = Outcome<unknown> | Response;

/**
 * A server route: checks origin, body and query by the route table, calls `work`, and turns its outcome into an
 * answer: the value, or the failure with its status.
 */
export function api(
  name: RouteName,
  work: (call: Call) => Answer | Promise<Answer>,
): (event: RequestEvent) => Promise<Response> {
  const route: RouteSpec = ROUTES[name];
  return async (event) => {
    const foreign = foreignOrigin(event);
    if (foreign) return failed(foreign);
    const query = checked(route.query, Object.fromEntries(event.url.searchParams), true);
    if (!query.ok) return failed(query.failure);
    const read = route.body
      ? await readJson(event.request, route.maxBytes ?? MOST_BYTES)
      : { ok: true as const, value: undefined };
    if (!read.ok) return failed(read.failure);
    const body = checked(route.body, read.value, false);
    if (!body.ok) return failed(body.failure);
    const file = route.takesFile ? await readFile(event.request, route.maxBytes ?? MOST_BYTES) : NO_FILE;
    if (!file.ok) return failed(file.failure);
    const params = Object.fromEntries(Object.entries(event.params).map(([key, value]) => [key, value ?? '']));
    const answer = await work({
      app: event.locals.app,
      params,
      body: body.value,
      query: query.value,
      event,
      file: file.value,
    });
    if (answer instanceof Response) return answer;
    return answer.ok ? json(answer.value) : failed(answer.failure);
  };
}

/** A failure as an answer. */
export function failed(failure: Failure): Response {
  return json(failure, { status: FAILURE_STATUS[failure.code] });
}

function checked(schema: Joi.ObjectSchema | undefined, value: unknown, convert: boolean): Outcome<unknown> {
  if (!schema) return { ok: true, value: undefined };
  const result = schema.validate(value, { abortEarly: false, convert });
  if (!result.error) return { ok: true, value: result.value };
  return failWith(result.error.details.slice(0, 20).map(problemOf));
}

/** Another site's page must not change anything here through the visitor's browser. */
function foreignOrigin(event: RequestEvent): Failure | null {
  if (event.request.method === 'GET') return null;
  const origin = event.request.headers.get('origin');
  const host = event.request.headers.get('host');
  if (origin === null || origin === `http://${host}` || origin === `https://${host}`) return null;
  return fail('forbidden', `Changes from another site (${origin}) are not taken.`).failure;
}

async function readJson(request: Request, most: number): Promise<Outcome<unknown>> {
  if (!(request.headers.get('content-type') ?? '').startsWith('application/json'))
    return fail('wrong_type', 'The body must be JSON; send it with content-type application/json.');
  const stated = Number(request.headers.get('content-length'));
  const bytes = stated > most ? null : await readBytes(request, most);
  if (bytes === null)
    return fail('too_large', `The request may have at most ${most / 1e6} MB; this one is larger.`);
  try {
    return { ok: true, value: JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) };
  } catch {
    return fail('unreadable', 'The body is not valid JSON in UTF-8.');
  }
}

const NO_FILE = done({ bytes: Buffer.alloc(0), name: '' });

async function readFile(request: Request, most: number): Promise<Outcome<{ bytes: Buffer; name: string }>> {
  const stated = request.headers.get('x-file-name') ?? 'file';
  let name = stated;
  try {
    name = decodeURIComponent(stated).slice(0, 255);
  } catch {
    // A name that is not percent-encoded is taken as it stands.
  }
  const length = Number(request.headers.get('content-length'));
  const bytes = length > most ? null : await readBytes(request, most);
  if (bytes === null)
    return fail('too_large', `“${name}” is too large; a picture may have at most ${most / 1e6} MB.`);
  if (bytes.length === 0) return fail('unreadable', `“${name}” is empty; choose another file.`);
  return done({ bytes, name });
}

async function readBytes(request: Request, most: number): Promise<Buffer | null> {
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done: ended, value } = await reader.read();
    if (ended) break;
    size += value.length;
    if (size > most) {
      await reader.cancel();
      return null;
    }
    parts.push(value);
  }
  return Buffer.concat(parts);
}
