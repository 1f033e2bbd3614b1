import { api } from '$lib/server/app/http';
import { endSession } from '$lib/server/repo/sessions';

export const DELETE = api('endSession', ({ db, person, params }) => endSession(db, person.id, params.id));
