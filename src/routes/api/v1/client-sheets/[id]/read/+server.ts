import { api } from '$lib/server/app/http';
import { readAnswers } from '$lib/server/repo/client-sheets';

export const PUT = api('readAnswers', ({ db, params }) => readAnswers(db, params.id));
