import type { ProjectDetail } from '$lib/contract/data';
import type { Outcome } from '$lib/contract/failure';
import { call } from './api';

/** Changes what belongs to a project and not to one of its layouts, on top of whatever it is now. */
export async function changeProject(
  id: string,
  change: Partial<Pick<ProjectDetail, 'proof' | 'press'>>,
): Promise<Outcome<unknown>> {
  const found = await call('GET /projects/{id}', { id });
  if (!found.ok) return found;
  return call('PATCH /projects/{id}', { id, body: { base: found.value.version, ...change } });
}
