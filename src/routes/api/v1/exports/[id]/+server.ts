import { api } from '$lib/server/app/http';

export const GET = api('getExport', ({ app, person, params }) => app.exports.get(params.id, person.id));
export const DELETE = api('cancelExport', ({ app, person, params }) =>
  app.exports.cancel(params.id, person.id),
);
