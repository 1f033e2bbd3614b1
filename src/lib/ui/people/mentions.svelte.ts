import type { MentionData } from '$lib/contract/people';
import { call } from '../state/api';

/** Where one is named and has not read it yet, as it is known in this window; `null` is as the page came. */
class Mentions {
  list: readonly MentionData[] | null = $state.raw(null);

  async load(): Promise<void> {
    const me = await call('GET /me');
    if (me.ok) this.list = me.value.mentions;
  }
}

export const mentions = new Mentions();
