import { api } from '$lib/server/app/http';
import { answerShared } from '$lib/server/repo/shared-sheets';

export const POST = api('answerShared', ({ db, params, body }) => answerShared(db, params.token, body));
