import { api } from '$lib/server/app/http';
import { publish } from '$lib/server/repo/publishing';

export const POST = api('publish', ({ app, params, body }) =>
  publish(app.db, params.id ?? '', body.base, body.hold),
);
