import { api } from '$lib/server/app/http';

export const GET = api('getExport', ({ app, params }) => app.exports.get(params.id));
export const DELETE = api('cancelExport', ({ app, params }) => app.exports.cancel(params.id));
