import { done } from '$lib/contract/failure';
import type { LayoutSince } from '$lib/contract/data';
import { api } from '$lib/server/app/http';
import { applyChanges } from '$lib/server/repo/layout-changes';
import { changesSince } from '$lib/server/repo/layout-log';

export const GET = api('changesSince', ({ db, params, query }) => {
  const since = changesSince(db, params.id, query.since);
  const last = since?.[since.length - 1];
  return done<LayoutSince>({ version: last?.version ?? query.since, since });
});
export const POST = api('changeLayout', ({ db, params, body }) =>
  applyChanges(db, params.id, body.base, body.changes),
);
