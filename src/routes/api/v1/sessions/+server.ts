import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { sessionKey } from '$lib/server/app/people/cookie';
import { signIn } from '$lib/server/app/people/signing-in';
import { endOtherSessions, listSessions } from '$lib/server/repo/sessions';

export const POST = api('signIn', signIn);
export const GET = api('listSessions', ({ db, person, event }) =>
  done(listSessions(db, person.id, sessionKey(event))),
);
export const DELETE = api('endOtherSessions', ({ db, person, event }) =>
  endOtherSessions(db, person.id, sessionKey(event)),
);
