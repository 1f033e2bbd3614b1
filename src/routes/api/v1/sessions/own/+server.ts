import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { dropSessionCookie, sessionKey } from '$lib/server/app/people/cookie';
import { endSession } from '$lib/server/repo/sessions';

export const DELETE = api('signOut', ({ db, person, event }) => {
  const key = sessionKey(event);
  if (key !== null) endSession(db, person.id, key);
  dropSessionCookie(event);
  return done({ id: person.id });
});
