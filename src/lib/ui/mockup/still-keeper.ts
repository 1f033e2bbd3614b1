import type { Camera } from '$lib/core/mockup/mockup';
import { sendFile } from '../state/api';
import type { MockupSession } from './session.svelte';
import { blobOf } from './still';

const AFTER_MS = 1500;

/** Keeps the last picture with its mock-up: for its card, for client sheets, and for where nothing is drawn in space. */
export class StillKeeper {
  private kept = '';
  private waiting: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly session: MockupSession,
    /** From where it is seen, and a copy of what is seen; `null` where it is not drawn finely. */
    private readonly now: () => { camera: Camera; seen: () => HTMLCanvasElement | null },
  ) {}

  /** All is drawn as fine as it gets. */
  rested(): void {
    this.waiting ??= setTimeout(() => {
      this.waiting = undefined;
      void this.keep();
    }, AFTER_MS);
  }

  stop(): void {
    clearTimeout(this.waiting);
  }

  private async keep(): Promise<void> {
    const { session } = this;
    const { light, ground, objects, photo } = session.body;
    const { camera, seen } = this.now();
    const layouts = [...session.editors.values()].map(({ id, saver }) => `${id} ${saver.version}`);
    const state = JSON.stringify([light, ground, camera, objects, photo, layouts]);
    if (state === this.kept || objects.length === 0 || !session.clean || !session.mayChange) return;
    const made = seen();
    if (!made) return;
    try {
      const blob = await blobOf(made, ground === null && !photo ? 'image/png' : 'image/webp');
      const file = new File([blob], 'still', { type: blob.type });
      const sent = await sendFile('POST /mock-ups/{id}/still', { id: session.id, file });
      if (sent.ok) this.kept = state;
    } catch {
      // Without graphics there is no new picture; the one before stays.
    }
  }
}
