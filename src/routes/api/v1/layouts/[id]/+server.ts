import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { getLayout, layoutInUse } from '$lib/server/repo/layouts';

export const GET = api('getLayout', ({ db, params }) => {
  const layout = getLayout(db, params.id);
  if (!layout.ok) return layout;
  return done(layoutInUse(db, layout.value));
});
