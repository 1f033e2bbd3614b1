import { api } from '$lib/server/app/http';
import { endLink } from '$lib/server/repo/shared-sheets';

export const DELETE = api('endLink', ({ app, params }) =>
  endLink(app.db, params.id ?? '', params.token ?? ''),
);
