import { api } from '$lib/server/app/http';

export const GET = api('pressTable', ({ app, params, query, asking }) =>
  app.processes.run('pressTable', { store: app.store, profile: params.id, ...query }, asking),
);
