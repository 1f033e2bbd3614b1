import { done } from '$lib/contract/failure';
import { api, viewOf } from '$lib/server/app/http';
import { unreachable } from '$lib/server/repo/access';

export const POST = api('tellPresence', ({ app, db, person, body, event }) => {
  const view = viewOf(event.request) ?? person.id;
  const fault = body.where && unreachable(db, person, body.where.kind, body.where.id, false);
  if (fault) return { ok: false, failure: fault };
  return done(app.present.note(view, person, body.where));
});
