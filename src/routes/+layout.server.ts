import type { Me } from '$lib/contract/people';
import { mentionsOf } from '$lib/server/repo/comments';
import { studioState } from '$lib/server/repo/people';
import { passwordOf } from '$lib/server/repo/sessions';
import type { LayoutServerLoad } from './$types';

/** Who looks at a page; `null` before the door. */
export const load: LayoutServerLoad = ({ locals }): { me: Me | null } => {
  const { db, person } = locals;
  if (person === null) return { me: null };
  return {
    me: {
      ...{ studio: studioState(db), person, mentions: mentionsOf(db, person) },
      password: passwordOf(db, person.id) !== null,
    },
  };
};
