import { passkeysOf, listSessions } from '$lib/server/repo/sessions';
import { sessionKey } from '$lib/server/app/people/cookie';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => {
  const { db, person } = event.locals;
  const id = person?.id ?? '';
  return {
    sessions: listSessions(db, id, sessionKey(event)),
    passkeys: passkeysOf(db, id).map(({ id: key, name, createdAt, usedAt }) => ({
      id: key,
      name,
      createdAt,
      usedAt,
    })),
  };
};
