import type { FoundPatterns } from '$lib/contract/data';
import { call } from '../state/api';
import { apiQuery, firstPage, type LibraryView } from './query';

/** Before a word that is typed is asked for, and before the address follows what was found, ms. */
const ASKS_AFTER = 60;
const RESTS_AFTER = 1000;

type Around = {
  /** What the library shows now. */
  view: () => LibraryView;
  /** Shows what was found. */
  found: (view: LibraryView, first: FoundPatterns) => void;
  /** Puts a view into the address, which asks for it anew. */
  go: (view: LibraryView) => void;
};

/** Words that are typed to find patterns: only the list is asked for while they are, and the address follows when the hand rests. */
export class TypedSearch {
  /** What is typed, as long as the field has the hand. */
  typed: string | null = $state(null);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private turn = 0;

  constructor(private readonly around: Around) {}

  /** The address is behind what is shown. */
  get ahead(): boolean {
    return this.resting !== undefined;
  }

  type(text: string): void {
    this.typed = text;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.find(text), ASKS_AFTER);
  }

  private async find(text: string): Promise<void> {
    const view = { ...this.around.view(), search: text };
    const turn = (this.turn += 1);
    const found = await call('GET /patterns', { query: firstPage(apiQuery(view)) });
    if (turn !== this.turn) return;
    // Where the server does not answer the page says what is wrong.
    if (!found.ok) return this.around.go(view);
    this.around.found(view, found.value);
    clearTimeout(this.resting);
    this.resting = setTimeout(() => this.around.go(this.around.view()), RESTS_AFTER);
  }

  /** The field is left: the address has what was typed at once. */
  leave(): void {
    const text = this.typed;
    this.typed = null;
    const view = this.around.view();
    if (text !== null && text !== view.search) this.around.go({ ...view, search: text });
    else if (this.ahead) this.around.go(view);
  }

  /** The address is set anew: what was on its way is no longer waited for. */
  stop(): void {
    clearTimeout(this.timer);
    clearTimeout(this.resting);
    this.resting = undefined;
    this.turn += 1;
  }
}
