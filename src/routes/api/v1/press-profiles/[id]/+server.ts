import { api } from '$lib/server/app/http';
import { removeProfile } from '$lib/server/repo/press-profiles';

export const DELETE = api('removePressProfile', ({ db, params }) => removeProfile(db, params.id));
