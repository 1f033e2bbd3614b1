import { api } from '$lib/server/app/http';

export const GET = api('setLine', ({ app, params, query, asking }) =>
  app.processes.run('setLine', { store: app.store, font: params.id, ...query }, asking),
);
