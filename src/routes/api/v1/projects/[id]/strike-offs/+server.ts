import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepStrikeOff, listStrikeOffs } from '$lib/server/repo/strike-offs';

export const GET = api('listStrikeOffs', ({ app, params }) => done(listStrikeOffs(app.db, params.id ?? '')));
export const POST = api('keepStrikeOff', ({ app, params, body }) =>
  keepStrikeOff(app.db, params.id ?? '', body),
);
