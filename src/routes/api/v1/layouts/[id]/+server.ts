import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { getLayout, layoutInUse } from '$lib/server/repo/layouts';

export const GET = api('getLayout', ({ app, params }) => {
  const layout = getLayout(app.db, params.id ?? '');
  if (!layout.ok) return layout;
  return done(layoutInUse(app.db, layout.value));
});
