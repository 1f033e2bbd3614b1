import { api } from '$lib/server/app/http';
import { answerShared } from '$lib/server/repo/shared-sheets';

export const POST = api('answerShared', ({ app, params, body }) =>
  answerShared(app.db, params.token ?? '', body),
);
