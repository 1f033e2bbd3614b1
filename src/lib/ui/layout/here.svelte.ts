import type { Presence } from '$lib/contract/live';
import { Presences } from '../people/presences.svelte';
import type { LayoutEditor } from './editor.svelte';
import type { View } from './view.svelte';

const MOST_SELECTED = 200;

/** Who else has this layout open, what they have selected, and whose view is followed. */
export class Here {
  private readonly presences: Presences;
  private wanted: string | null = $state(null);

  constructor(
    editor: LayoutEditor,
    private readonly view: View,
    /** The stage's size and place on the window. */
    private readonly stage: () => DOMRect | null,
  ) {
    this.presences = new Presences(
      'layout',
      () => editor.id,
      () => ({ selected: [...editor.selected].slice(0, MOST_SELECTED), sees: this.sees() }),
    );
  }

  get others(): ReadonlyMap<string, Presence> {
    return this.presences.others;
  }

  /** The window whose sight is followed, as long as it is there. */
  get followed(): string | null {
    return this.wanted !== null && this.others.has(this.wanted) ? this.wanted : null;
  }
  set followed(view: string | null) {
    this.wanted = view;
  }

  /** Called while a view is made. */
  follow(): void {
    this.presences.follow();
    $effect(() => {
      const lead = this.followed === null ? null : this.others.get(this.followed);
      if (lead?.sees) this.goTo(lead.sees);
    });
  }

  private sees(): Presence['sees'] {
    const { zoom, pan } = this.view;
    const stage = this.stage();
    if (!stage || stage.width === 0) return null;
    return { x: (stage.width / 2 - pan.x) / zoom, y: (stage.height / 2 - pan.y) / zoom, zoom };
  }

  private goTo({ x, y, zoom }: NonNullable<Presence['sees']>): void {
    const stage = this.stage();
    if (!stage) return;
    this.view.zoom = zoom;
    this.view.pan = { x: stage.width / 2 - x * zoom, y: stage.height / 2 - y * zoom };
  }
}
