import { createReadStream, openSync, closeSync, fstatSync, rmSync } from 'node:fs';
import { open, rm, stat } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { json, type RequestEvent } from '@sveltejs/kit';
import { nanoid } from 'nanoid';
import { checkBody, checked, LARGE_BODY } from '../../contract/bodies';
import { done, fail, FAILURE_STATUS, type Failure, type Outcome } from '../../contract/failure';
import {
  ROUTES,
  type BodyTaken,
  type QueryTaken,
  type RouteAnswer,
  type RouteName,
  type RouteParams,
  type RouteSpec,
} from '../../contract/routes';
import type { PersonData } from '../../contract/people';
import { tidyName } from '../../core/num/text';
import type { Recipe } from '../../core/recipe/recipe';
import type { Db } from '../db/open';
import { spaceFailure } from '../render/space';
import { markSound } from '../repo/stored';
import type { App } from './app';
import { foreignOrigin } from './hosts';
import { overQuota } from './quota';
import { notFor } from './people/asking';

const MOST_BYTES = 20_000_000;

/** A file that came in, written to disk while it came: `path` is removed once the answer is made. */
export type InFile = { path: string; name: string; bytes: number };

/** A call of a route, as its handler gets it. */
export type Call<N extends RouteName = RouteName> = {
  app: App;
  /** The database as it is asked by whoever calls. */
  db: Db;
  /** Who calls. A route that anyone may ask looks whether there is somebody. */
  person: PersonData;
  params: RouteParams<N>;
  /** The body and the query, checked by the schemas of the route table. */
  body: BodyTaken<N>;
  query: QueryTaken<N>;
  event: RequestEvent;
  /** The file of a route that takes one. */
  file: InFile;
  /** Who asks, and the end of what they asked for when they go away: for work in child processes. */
  asking: { asker: string; signal: AbortSignal };
};

type Answer<N extends RouteName> = Outcome<RouteAnswer<N>> | Response;

/**
 * A server route: checks origin, body and query by the route table, calls `work`, and turns its outcome into an
 * answer: the value, or the failure with its status. What nobody expected is a failure too, with a number that stands
 * in the log.
 */
export function api<N extends RouteName>(
  name: N,
  work: (call: Call<N>) => Answer<N> | Promise<Answer<N>>,
): (event: RequestEvent) => Promise<Response> {
  return async (event) => {
    const { app } = event.locals;
    const gone = goneSignal(event);
    let file: InFile | null = null;
    try {
      const call = await readCall(name, event, gone.signal, (came) => (file = came));
      if (!call.ok) return failed(call.failure);
      // What the table's schemas let pass has the types that the table says.
      const answer = await work(call.value as Call<N>);
      if (event.request.method !== 'GET') app.events.soon();
      if (answer instanceof Response) return answer;
      return answer.ok ? json(answer.value) : failed(answer.failure);
    } catch (error) {
      return failed(unexpected(app, event, error));
    } finally {
      gone.forget();
      if (file) await rm((file as InFile).path, { force: true });
    }
  };
}

type ReadCall = Omit<Call, 'params' | 'body' | 'query'> & {
  params: Record<string, string>;
  body: unknown;
  query: unknown;
};

async function readCall(
  name: RouteName,
  event: RequestEvent,
  signal: AbortSignal,
  came: (file: InFile) => void,
): Promise<Outcome<ReadCall>> {
  const route: RouteSpec = ROUTES[name];
  const { app } = event.locals;
  if (app.stopping) return fail('stopping', 'Isle is being stopped; try again in a moment.');
  const foreign = foreignOrigin(event);
  if (foreign) return { ok: false, failure: foreign };
  const params = Object.fromEntries(Object.entries(event.params).map(([key, value]) => [key, value ?? '']));
  const { db, person } = event.locals;
  const refused = notFor(db, route, person, params);
  if (refused) return { ok: false, failure: refused };
  // Whoever is not signed in could give themselves any name: their address counts.
  const slowed = app.rates.refused(route, person?.id ?? addressOf(event));
  if (slowed) return { ok: false, failure: slowed };
  const full = route.takesFile ? overQuota(app.store) : null;
  if (full) return { ok: false, failure: full };
  const query = checked(route.query, Object.fromEntries(event.url.searchParams), { convert: true });
  if (!query.ok) return query;
  const asking = { asker: askerOf(event), signal };
  const body = route.body ? await readBody(name, route, event.request, app, asking) : done(undefined);
  if (!body.ok) return body;
  const file = route.takesFile ? await readFile(event.request, app, route.maxBytes ?? MOST_BYTES) : NO_FILE;
  if (!file.ok) return file;
  if (file !== NO_FILE) came(file.value);
  const given = { body: body.value, query: query.value, file: file.value };
  return done({ app, db, person: person ?? NOBODY, params, ...given, event, asking });
}

/** Who asks where anyone may. */
const NOBODY: PersonData = {
  ...{ id: '', name: '', role: 'viewer', colour: '#000000', email: null },
  ...{ createdAt: 0, endsAt: null, seenAt: null },
};

/** A failure as an answer. */
export function failed(failure: Failure): Response {
  const status = FAILURE_STATUS[failure.code];
  const wait = failure.wait ?? (status === 503 ? 2 : null);
  return json(failure, { status, headers: wait === null ? {} : { 'retry-after': String(Math.ceil(wait)) } });
}

/** What nobody expected, as a failure: a full disk is told as such, anything else gets a number that the log has too. */
export function unexpected(app: App | null, event: RequestEvent, error: unknown): Failure {
  if (app?.stopping) return fail('stopping', 'Isle is being stopped; try again in a moment.').failure;
  const space = spaceFailure(error, 'This');
  const number = nanoid(8);
  const text = error instanceof Error ? (error.stack ?? error.message) : String(error);
  const line = `${number} ${event.request.method} ${event.url.pathname}: ${text}`;
  if (app) app.say(line);
  else process.stderr.write(`${line}\n`);
  if (space) return space.failure;
  return fail(
    'internal',
    `Something went wrong on the server (fault ${number} in its log). Nothing that was saved is lost; try again.`,
  ).failure;
}

/** The name that a view of the interface gave itself. */
export function viewOf({ headers }: Request): string | null {
  const view = headers.get('x-isle-view');
  return view !== null && /^[\w-]{1,32}$/.test(view) ? view : null;
}

/** Who asks: a view of the interface names itself, pages and pictures of browsers and all others count by their address. */
export function askerOf(event: RequestEvent): string {
  const view = viewOf(event.request);
  if (view !== null) return view;
  return (event.request.headers.has('sec-fetch-dest') ? 'browser ' : '') + addressOf(event);
}

/** From where somebody asks. */
export function addressOf(event: RequestEvent): string {
  try {
    return event.getClientAddress();
  } catch {
    return 'unknown';
  }
}

/** A signal that fires when whoever asked has gone away before there is an answer. */
function goneSignal(event: RequestEvent): { signal: AbortSignal; forget: () => void } {
  const abort = new AbortController();
  const { platform } = event as { platform?: { req?: { socket?: NodeJS.EventEmitter } } };
  const socket = platform?.req?.socket;
  const leave = (): void => abort.abort();
  socket?.once('close', leave);
  return { signal: abort.signal, forget: () => void socket?.removeListener('close', leave) };
}

async function readBody(
  name: RouteName,
  route: RouteSpec,
  request: Request,
  app: App,
  asking: Call['asking'],
): Promise<Outcome<unknown>> {
  if (!(request.headers.get('content-type') ?? '').startsWith('application/json'))
    return fail('wrong_type', 'The body must be JSON; send it with content-type application/json.');
  const most = route.maxBytes ?? MOST_BYTES;
  const tooLarge = (): Outcome<never> =>
    fail('too_large', `The request may have at most ${most / 1e6} MB; this one is larger.`);
  const parts = partsOf(request, most);
  const head: Uint8Array[] = [];
  let size = 0;
  while (size < LARGE_BODY) {
    const { value, done: ended } = await parts.next();
    if (ended) {
      return taken(checkBody(name, Buffer.concat(head)));
    }
    if (value === null) return tooLarge();
    head.push(value);
    size += value.length;
  }
  // A large body goes by way of the disk to where it is checked: what is refused is never in this process's memory.
  const path = app.workFile();
  try {
    if (!(await spool(path, head, parts))) return tooLarge();
    return taken(await app.processes.run('checkBody', { route: name, path }, asking));
  } finally {
    await rm(path, { force: true });
  }
}

/** A body that was checked; a recipe in it need not be checked again. */
function taken(body: Outcome<{ value: unknown }>): Outcome<unknown> {
  if (!body.ok) return body;
  const { value } = body.value;
  const { recipe } = (value ?? {}) as { recipe?: Recipe };
  if (recipe) markSound(recipe);
  return done(value);
}

/** Writes what came and what comes into a file; false where it becomes too much. */
async function spool(
  path: string,
  head: readonly Uint8Array[],
  rest: AsyncIterable<Uint8Array | null>,
): Promise<boolean> {
  const file = await open(path, 'w');
  try {
    for (const part of head) await file.write(part);
    for await (const part of rest) {
      if (part === null) return false;
      await file.write(part);
    }
    return true;
  } finally {
    await file.close();
  }
}

const NO_FILE = done<InFile>({ path: '', name: '', bytes: 0 });

/** Writes a file that comes in to disk, so that it is never in memory whole. */
async function readFile(request: Request, app: App, most: number): Promise<Outcome<InFile>> {
  const stated = request.headers.get('x-file-name') ?? 'file';
  let name = stated;
  try {
    name = decodeURIComponent(stated);
  } catch {
    // A name that is not percent-encoded is taken as it stands.
  }
  name = tidyName(name.slice(0, 1000)).slice(0, 255).trim() || 'file';
  const path = app.workFile();
  try {
    const whole = await spool(path, [], partsOf(request, most));
    const { size } = await stat(path);
    if (whole && size > 0) return done({ path, name, bytes: size });
    await rm(path, { force: true });
    return whole
      ? fail('unreadable', `“${name}” is empty; choose another file.`)
      : fail('too_large', `“${name}” is too large; such a file may have at most ${most / 1e6} MB.`);
  } catch (error) {
    await rm(path, { force: true });
    throw error;
  }
}

/** The parts of a body as they come; `null` once, at the end, where there are more than `most` bytes. */
async function* partsOf(request: Request, most: number): AsyncGenerator<Uint8Array | null> {
  if (Number(request.headers.get('content-length')) > most) {
    yield null;
    return;
  }
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done: ended, value } = await reader.read();
    if (ended) return;
    size += value.length;
    if (size > most) {
      await reader.cancel();
      yield null;
      return;
    }
    yield value;
  }
}

/** A file that work wrote, as an answer. It is taken off the disk at once and goes when it has been sent. */
export function sentOnce(path: string, headers: Record<string, string>): Response {
  const fd = openSync(path, 'r');
  try {
    rmSync(path, { force: true });
    const bytes = fstatSync(fd).size;
    const stream = createReadStream('', { fd, autoClose: true, start: 0 });
    return new Response(Readable.toWeb(stream) as ReadableStream, {
      headers: { 'content-length': String(bytes), ...headers },
    });
  } catch (error) {
    closeSync(fd);
    throw error;
  }
}
