import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepParcel, lastParcel } from '$lib/server/repo/parcels';
import { getProject } from '$lib/server/repo/projects';

export const GET = api('lastParcel', ({ app, params }) => done(lastParcel(app.db, params.id ?? '')));

export const POST = api('makeParcel', ({ app, params, body, asking }) => {
  const project = getProject(app.db, params.id ?? '');
  if (!project.ok) return project;
  const { id, name } = project.value;
  return app.exports.parcel(
    {
      name,
      ask: { store: app.store, project: id, wish: body },
      made: (contents) => keepParcel(app.db, id, body, contents),
    },
    asking.asker,
  );
});
