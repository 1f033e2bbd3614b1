import { api } from '$lib/server/app/http';

export const POST = api('newPasskey', ({ app, db, event, person }) => app.passkeys.toAdd(db, event, person));
