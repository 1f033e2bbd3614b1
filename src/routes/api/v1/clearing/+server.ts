import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepSetting } from '$lib/server/repo/settings';
import { clearingRule } from '$lib/server/repo/tidying';

export const PUT = api('changeClearing', ({ db, body }) => {
  keepSetting(db, 'clearing', body);
  return done(clearingRule(db));
});
