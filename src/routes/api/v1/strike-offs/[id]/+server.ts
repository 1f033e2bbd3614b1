import { api } from '$lib/server/app/http';
import { removeStrikeOff, saveStrikeOff } from '$lib/server/repo/strike-offs';

export const PUT = api('saveStrikeOff', ({ app, params, body }) =>
  saveStrikeOff(app.db, params.id ?? '', body),
);
export const DELETE = api('removeStrikeOff', ({ app, params }) => removeStrikeOff(app.db, params.id ?? ''));
