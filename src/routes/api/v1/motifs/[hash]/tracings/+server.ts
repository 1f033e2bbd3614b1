import { api } from '$lib/server/app/http';

export const POST = api('tracePicture', ({ app, params, body, asking }) =>
  app.processes.run('trace', { store: app.store, hash: params.hash, by: body }, asking),
);
