import type { CommentData, CommentKind } from '$lib/contract/talk';
import type { Outcome } from '$lib/contract/failure';
import { call } from '../state/api';
import { mentions } from '../people/mentions.svelte';
import { onLive } from '../state/live';
import { toasts } from '../state/toasts.svelte';

/** Where a new comment is to stand: about a shape, at a place, about the whole, or as an answer. */
export type Spot = { parentId: string | null; shapeId: string | null; x: number | null; y: number | null };
export const WHOLE: Spot = { parentId: null, shapeId: null, x: null, y: null };

/** What is said about one thing. */
export class Talk {
  comments: readonly CommentData[] = $state.raw([]);
  /** Those that are dealt with are shown too. */
  all = $state(false);
  /** The comment that is pointed at, in the list or on the stage. */
  chosen: string | null = $state(null);
  /** A place on the page is being chosen for the next comment, or was. */
  placing = $state(false);
  spot: Spot = $state.raw(WHOLE);
  /** The list is open: what comes is read. */
  open = $state(false);

  readonly threads = $derived(
    this.comments.filter(({ parentId, doneAt }) => parentId === null && (this.all || doneAt === null)),
  );
  readonly unread = $derived(this.comments.filter(({ unread }) => unread).length);
  /** Threads with a place or a shape, numbered as they stand in the list. */
  readonly pins = $derived(this.threads.map((one, index) => ({ one, number: index + 1 })));

  constructor(
    private readonly kind: CommentKind,
    private readonly id: string,
  ) {}

  /** Called while a view is made: hears of what others say. */
  follow(): void {
    $effect(() => void this.load());
    onLive(['comment.'], (events) => {
      if (events.some(({ subject }) => subject === this.id || subject === '')) void this.load();
    });
  }

  private async load(): Promise<void> {
    const found = await call('GET /comments', { query: { kind: this.kind, id: this.id } });
    if (found.ok) this.comments = found.value;
  }

  answersTo(id: string): CommentData[] {
    return this.comments.filter(({ parentId }) => parentId === id);
  }

  /** What is there now is read: it is not marked the next time. */
  async read(): Promise<void> {
    if (this.unread === 0) return;
    await call('PUT /comments/read', { body: { kind: this.kind, id: this.id } });
    await mentions.load();
  }

  async say(words: string, spot: Spot): Promise<Outcome<unknown>> {
    const body = { kind: this.kind, id: this.id, words, ...spot };
    const said = await call('POST /comments', { body });
    if (!said.ok) return said;
    this.spot = WHOLE;
    this.placing = false;
    await this.load();
    if (spot.parentId === null) this.chosen = said.value.id;
    return said;
  }

  async setDone({ id }: CommentData, done: boolean): Promise<void> {
    const saved = await call('PATCH /comments/{id}', { id, body: { done } });
    await this.load();
    if (!saved.ok) return toasts.problem(saved.failure.message);
    if (done)
      toasts.show('Done.', {
        action: {
          label: 'Undo',
          run: () => void call('PATCH /comments/{id}', { id, body: { done: false } }).then(() => this.load()),
        },
      });
  }
}
