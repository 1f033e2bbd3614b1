import { api } from '$lib/server/app/http';
import { removePasskey } from '$lib/server/repo/sessions';

export const DELETE = api('removePasskey', ({ db, person, params }) =>
  removePasskey(db, person.id, params.id),
);
