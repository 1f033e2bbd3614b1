import { done } from '$lib/contract/failure';
import type { Me } from '$lib/contract/people';
import { api } from '$lib/server/app/http';
import { mentionsOf } from '$lib/server/repo/comments';
import { changeMe, studioState } from '$lib/server/repo/people';
import { passwordOf } from '$lib/server/repo/sessions';

export const GET = api('me', ({ db, person }) =>
  done<Me>({
    ...{ studio: studioState(db), person, mentions: mentionsOf(db, person) },
    password: passwordOf(db, person.id) !== null,
  }),
);
export const PATCH = api('changeMe', ({ db, person, body }) => changeMe(db, person.id, body));
