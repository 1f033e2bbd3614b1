import { api } from '$lib/server/app/http';
import { changeStudio } from '$lib/server/repo/people';

export const PATCH = api('changeStudio', ({ db, body }) => changeStudio(db, body));
