import { call } from '../state/api';
import { toasts } from '../state/toasts.svelte';
import { refresh } from '../state/refresh';

/** Undoes a replacement or recolouring of many fills, and says how far it could. */
export async function undoBulk(id: string): Promise<void> {
  const undone = await call('POST /changes/{id}/undone', { id });
  if (!undone.ok) return toasts.problem(undone.failure.message);
  await refresh();
  const { fills, left } = undone.value;
  const back = fills === 1 ? 'One use is' : `${fills} uses are`;
  toasts.show(
    left === 0
      ? `Undone: ${back} as before.`
      : `${back} as before; ${left} changed since then and stay as they are now.`,
  );
}
