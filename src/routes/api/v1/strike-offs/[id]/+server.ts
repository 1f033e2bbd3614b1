import { api } from '$lib/server/app/http';
import { removeStrikeOff, saveStrikeOff } from '$lib/server/repo/strike-offs';

export const PUT = api('saveStrikeOff', ({ db, params, body }) => saveStrikeOff(db, params.id, body));
export const DELETE = api('removeStrikeOff', ({ db, params }) => removeStrikeOff(db, params.id));
