import { listInvitations } from '$lib/server/repo/invitations';
import { readSetting } from '$lib/server/repo/settings';
import { clearingRule } from '$lib/server/repo/tidying';
import { listPeople } from '$lib/server/repo/people';
import { listProjects } from '$lib/server/repo/projects';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => {
  const { app, db, person } = locals;
  const owner = person?.role === 'owner';
  return {
    people: listPeople(db, owner),
    invitations: owner ? listInvitations(db) : [],
    projects: listProjects(db).map(({ id, name }) => ({ id, name })),
    clearing: owner ? { rule: clearingRule(db), last: readSetting(db, 'cleared') } : null,
    backups: owner ? app.backups.data() : null,
    letters: owner ? (app.outbox?.list() ?? null) : null,
  };
};
