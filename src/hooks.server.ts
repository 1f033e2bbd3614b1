import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { openApp, type App } from '$lib/server/app/app';
import { CannotStart } from '$lib/server/db/inspect';
import { foreignHost } from '$lib/server/app/hosts';
import { failed, unexpected } from '$lib/server/app/http';

let app: App | null = null;
const STOP_MS = 4500;

export const init: ServerInit = () => {
  app = opened();
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
  if (foreign) return failed(foreign);
  event.locals.app = app as App;
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status === 404) return { message: `There is nothing at ${event.url.pathname}.` };
  return { message: unexpected(app, event, error).message };
};
