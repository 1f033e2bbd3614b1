import type { LayoutPlates } from '../plates/layout-plates.svelte';
import type { LayoutProof } from '../proof/layout-proof.svelte';

export type BesidePart = 'proof' | 'plates' | 'object' | 'history' | 'comments';

/** What stands beside the stage: one thing at a time, since there is room for one. */
export class Beside {
  part: BesidePart | null = $state(null);

  constructor(
    private readonly proof: LayoutProof,
    private readonly plates: LayoutPlates,
  ) {}

  /** Opens a part in the place of whatever is there, or closes it. */
  toggle(part: BesidePart): void {
    this.part = this.part === part ? null : part;
    this.proof.open = this.part === 'proof';
    this.plates.look(this.part === 'plates');
  }
}
