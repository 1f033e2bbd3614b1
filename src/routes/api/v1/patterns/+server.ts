import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { findPatterns } from '$lib/server/repo/find';
import { createPattern } from '$lib/server/repo/patterns';

export const GET = api('listPatterns', ({ db, query }) => done(findPatterns(db, query)));
export const POST = api('createPattern', ({ db, body }) => createPattern(db, body));
