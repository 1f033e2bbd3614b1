import type { Handle, HandleServerError, RequestEvent, ServerInit } from '@sveltejs/kit';
import { fail, type Failure } from '$lib/contract/failure';
import { openApp, type App } from '$lib/server/app/app';
import { CannotStart } from '$lib/server/db/inspect';
import { foreignHost } from '$lib/server/app/hosts';
import { askerOf, failed, unexpected } from '$lib/server/app/http';
import { whoAsks } from '$lib/server/app/people/asking';
import { askedBy } from '$lib/server/db/open';
import { Pace } from '$lib/server/app/pace';
import { withHeaders } from '$lib/server/app/headers';
import { standFast } from '$lib/server/app/standing';

let app: App | null = null;
const pace = new Pace();
const BUSY = fail('busy', 'Too many requests wait to be answered; try again in a moment.');
const GONE = fail('cancelled', 'Whoever asked has gone away.');
const STOPPING = fail('stopping', 'Isle is being stopped; try again in a moment.');
const STOP_MS = 4500;

export const init: ServerInit = () => {
  app = opened();
  standFast(app.say);
  const stop = (): void => {
    void app?.close();
    // What has not come to an end by then is not going to.
    setTimeout(() => process.exit(0), STOP_MS).unref();
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, stop);
};

/** Everything opened, or one sentence on the console and the end. */
function opened(): App {
  try {
    return openApp(process.env);
  } catch (error) {
    if (!(error instanceof CannotStart)) throw error;
    process.stderr.write(`${error.message}\n`);
    process.exit(1);
  }
}

export const handle: Handle = async ({ event, resolve }) => {
  const foreign = foreignHost(event.request, process.env);
  if (foreign) return withHeaders(event, failed(foreign));
  event.locals.app = app as App;
  if (event.locals.app.stopping) return withHeaders(event, failed(STOPPING.failure));
  const begun = performance.now();
  // What a page asks of the API on the server is part of the page.
  const answered = event.isSubRequest ? () => undefined : await pace.begin(askerOf(event));
  if (!answered) return failed(BUSY.failure);
  try {
    if (event.request.signal.aborted) return failed(GONE.failure);
    const person = whoAsks(event.locals.app.db, event);
    event.locals.person = person;
    event.locals.db = askedBy(event.locals.app.db, person?.id ?? null);
    if (person === null && isForPeople(event)) return withHeaders(event, toSignIn(event));
    const response = withHeaders(event, inOneForm(event, await resolve(event)));
    event.locals.app.measures.answered(event, response.status, performance.now() - begun);
    return response;
  } finally {
    answered();
  }
};

/** Pages that anyone may open: where one signs in, comes in by a link, and what is shown to clients. */
const OPEN_PAGES = /^\/(sign-in|health|ready|metrics|join\/[^/]+|s\/[^/]+)(\/__data\.json)?$/;

const isForPeople = ({ url, route }: RequestEvent): boolean =>
  route.id !== null && !url.pathname.startsWith('/api/v1') && !OPEN_PAGES.test(url.pathname);

/** The page where one signs in, from which one comes back. */
function toSignIn({ url, isDataRequest }: RequestEvent): Response {
  const to = url.pathname.replace(/\/__data\.json$/, '') || '/';
  const location = `/sign-in?to=${encodeURIComponent(to + url.search)}`;
  if (isDataRequest) return Response.json({ type: 'redirect', location });
  return new Response(null, { status: 303, headers: { location } });
}

/** Under the API every failure has the documented form, also those that come to no route of ours. */
function inOneForm(event: RequestEvent, response: Response): Response {
  const { pathname } = event.url;
  if (!pathname.startsWith('/api/v1')) return response;
  if (event.locals.fault) return failed(event.locals.fault);
  if (response.status !== 405) return response;
  const what = `${event.request.method} is not answered at ${pathname}; see /api/v1/openapi.json.`;
  const refused = failed(fail('wrong_method', what).failure);
  refused.headers.set('allow', response.headers.get('allow') ?? '');
  return refused;
}

export const handleError: HandleServerError = ({ error, event, status }) => {
  const { message } = (event.locals.fault = faultOf(error, event, status));
  return { message };
};

function faultOf(error: unknown, event: RequestEvent, status: number): Failure {
  const { pathname } = event.url;
  if (status === 404) return fail('not_found', `There is nothing at ${pathname}.`).failure;
  if (status === 400)
    return fail('invalid', 'The address cannot be read: a % in it must begin a character of UTF-8.').failure;
  return unexpected(app, event, error);
}
