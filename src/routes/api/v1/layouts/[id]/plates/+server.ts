import { api } from '$lib/server/app/http';

export const GET = api('layoutPlates', ({ app, params, query, asking }) =>
  app.processes.run('platesView', { store: app.store, layout: params.id, side: query.side }, asking),
);
