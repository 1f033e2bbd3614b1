import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepStrikeOff, listStrikeOffs } from '$lib/server/repo/strike-offs';

export const GET = api('listStrikeOffs', ({ db, params }) => done(listStrikeOffs(db, params.id)));
export const POST = api('keepStrikeOff', ({ db, params, body }) => keepStrikeOff(db, params.id, body));
