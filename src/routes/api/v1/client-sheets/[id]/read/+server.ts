import { api } from '$lib/server/app/http';
import { readAnswers } from '$lib/server/repo/client-sheets';

export const PUT = api('readAnswers', ({ app, params }) => readAnswers(app.db, params.id ?? ''));
