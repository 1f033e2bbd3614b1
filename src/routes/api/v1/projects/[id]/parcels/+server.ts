import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { notApproved } from '$lib/server/repo/approvals';
import { keepParcel, lastParcel } from '$lib/server/repo/parcels';
import { getProject } from '$lib/server/repo/projects';

export const GET = api('lastParcel', ({ db, params }) => done(lastParcel(db, params.id)));

export const POST = api('makeParcel', ({ app, db, person, params, body, asking }) => {
  const project = getProject(db, params.id);
  if (!project.ok) return project;
  const { id, name } = project.value;
  const open = notApproved(db, id, body.layouts);
  if (open) return open;
  return app.exports.parcel(
    {
      name,
      ask: { store: app.store, project: id, wish: body },
      made: (contents) => keepParcel(db, id, body, contents),
    },
    { person: person.id, asker: asking.asker },
  );
});
