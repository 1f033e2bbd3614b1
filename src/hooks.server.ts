import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { openApp, type App } from '$lib/server/app/app';

let app: App | null = null;

export const init: ServerInit = () => {
  app = openApp(process.env);
};

export const handle: Handle = async ({ event, resolve }) => {
  event.locals.app = app as App;
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status === 404) return { message: `There is nothing at ${event.url.pathname}.` };
  process.stderr.write(
    `${event.request.method} ${event.url.pathname}: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`,
  );
  return { message: 'Something went wrong on the server. Nothing that was saved is lost; try again.' };
};
