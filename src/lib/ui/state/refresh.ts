import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Fetches the data of the page anew. A navigation under way comes first: fetching in its midst would drop it, and
 * somebody who pressed a link would stay where they are.
 */
export async function refresh(): Promise<void> {
  let waitedFor: Promise<void> | null = null;
  while (navigating.complete && navigating.complete !== waitedFor) {
    waitedFor = navigating.complete;
    await waitedFor.catch(() => undefined); // given up for another one, or cancelled
  }
  await invalidateAll();
}
