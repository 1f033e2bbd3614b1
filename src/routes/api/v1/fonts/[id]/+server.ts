import { api } from '$lib/server/app/http';
import { removeFont } from '$lib/server/repo/fonts';

export const DELETE = api('removeFont', ({ db, params }) => removeFont(db, params.id));
