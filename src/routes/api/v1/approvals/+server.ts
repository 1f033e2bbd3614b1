import { done, fail } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { unreachable } from '$lib/server/repo/access';
import { approvalOf, setApproval } from '$lib/server/repo/approvals';

export const GET = api('getApproval', ({ db, person, query }) => {
  const { kind, id } = query;
  const fault = unreachable(db, person, kind, id, false);
  if (fault) return { ok: false, failure: fault };
  const found = approvalOf(db, kind, id);
  return found ? done(found) : fail('not_found', `There is no ${kind} with the id “${id}”.`);
});
export const PUT = api('setApproval', ({ db, person, body }) => setApproval(db, person, body));
