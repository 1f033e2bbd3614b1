import { statSync } from 'node:fs';
import { fail, type Failure } from '../../contract/failure';

/** How much a studio may keep, in MB, where the machine says so (ISLE_QUOTA_MB): files that come in are refused beyond it. */
export function overQuota(store: string, environment: NodeJS.ProcessEnv = process.env): Failure | null {
  const most = Number(environment.ISLE_QUOTA_MB);
  if (!(most > 0)) return null;
  const bytes = statSync(store).size;
  if (bytes < most * 1e6) return null;
  return fail(
    'no_space',
    `The studio keeps ${Math.round(bytes / 1e6)} MB, of ${most} MB that it may; nothing was taken in. Ask whoever runs the machine for more room.`,
  ).failure;
}
