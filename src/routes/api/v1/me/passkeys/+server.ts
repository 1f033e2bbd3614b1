import type { PasskeyData } from '$lib/contract/people';
import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { addPasskey, passkeysOf } from '$lib/server/repo/sessions';

export const GET = api('listPasskeys', ({ db, person }) =>
  done<PasskeyData[]>(
    passkeysOf(db, person.id).map(({ id, name, createdAt, usedAt }) => ({ id, name, createdAt, usedAt })),
  ),
);
export const POST = api('addPasskey', async ({ app, db, event, person, body }) => {
  const made = await app.passkeys.added(event, person.id, body);
  return made.ok ? addPasskey(db, { ...made.value, name: body.name }) : made;
});
