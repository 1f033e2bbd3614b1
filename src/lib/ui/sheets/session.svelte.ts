import { nanoid } from 'nanoid';
import type { SheetAnswer, SheetData, SheetLink } from '$lib/contract/data';
import type { Outcome } from '$lib/contract/failure';
import {
  SHEET_LIMITS,
  type ClientSheet,
  type SheetItem,
  type SheetKind,
  type ShownSheet,
} from '$lib/core/sheet/client-sheet';
import { blobOf } from '../mockup/still';
import { call, sendFile } from '../state/api';
import { OpenDocument, type Doc } from '../state/open-document.svelte';
import { toasts } from '../state/toasts.svelte';
import { pictureOf } from './pictures';
import { factsOf, usualWidth, type SheetSources } from './sources';

/** A client sheet that is open: what is on it, its links, and what clients left. */
export class SheetSession extends OpenDocument<ClientSheet, SheetData> {
  readonly id: string;
  links: readonly SheetLink[] = $state.raw([]);
  answers: readonly SheetAnswer[] = $state.raw([]);
  shownAt: number | null = $state(null);
  chosenId: string | null = $state(null);
  readonly body = $derived.by(() => this.doc.body);
  readonly chosen = $derived.by(() => this.body.items.find(({ id }) => id === this.chosenId) ?? null);

  constructor(data: SheetData) {
    const { id } = data;
    const api = {
      fetch: () => call('GET /client-sheets/{id}', { id }),
      save: (body: Doc<ClientSheet> & { base: number }) => call('PUT /client-sheets/{id}', { id, body }),
    };
    super(data, api, undefined, 'client sheet');
    this.id = data.id;
    this.take(data);
  }

  changeItem(id: string, change: Partial<SheetItem>): void {
    this.change((body) => ({
      ...body,
      items: body.items.map((one) => (one.id === id ? { ...one, ...change } : one)),
    }));
  }

  add(kind: SheetKind, of: string): void {
    if (this.body.items.length >= SHEET_LIMITS.items)
      return void toasts.problem(`A sheet holds at most ${SHEET_LIMITS.items} things; make another one.`);
    const one: SheetItem = { id: nanoid(12), kind, of, width: usualWidth(kind), caption: '' };
    this.change((body) => ({ ...body, items: [...body.items, one] }));
    this.chosenId = one.id;
  }
  remove(id: string): void {
    this.change((body) => ({ ...body, items: body.items.filter((one) => one.id !== id) }));
  }
  /** Moves something by so many places. */
  move(id: string, by: number): void {
    const from = this.body.items.findIndex((one) => one.id === id);
    const to = Math.max(0, Math.min(this.body.items.length - 1, from + by));
    if (from < 0 || from === to) return;
    this.change((body) => {
      const items = [...body.items];
      items.splice(to, 0, ...items.splice(from, 1));
      return { ...body, items };
    });
  }

  /**
   * Has the links show the sheet as it is now: makes the pictures of all that is on it, one after the other. `told` hears
   * the share that is done. Answers a sentence where that failed.
   */
  async show(sources: SheetSources, told: (share: number) => void): Promise<string | null> {
    if (!(await this.saver.flush())) return 'The sheet is not saved yet; save it first.';
    const { line, words, items } = this.body;
    for (const [at, item] of items.entries()) {
      told(at / items.length);
      try {
        const made = await pictureOf(sources, item);
        if (!made) continue;
        const blob = await blobOf(made, 'image/webp');
        const file = new File([blob], 'picture', { type: blob.type });
        const kept = await sendFile('POST /client-sheets/{id}/pictures/{item}', {
          id: this.id,
          item: item.id,
          file,
        });
        if (!kept.ok) return kept.failure.message;
      } catch {
        return `The picture of “${factsOf(sources, item).title}” could not be made; try again in a moment.`;
      }
    }
    const shown: ShownSheet = {
      ...{ line, words },
      items: items.map((item) => {
        const { id, kind, caption, width } = item;
        const { title, facts } = factsOf(sources, item);
        const palette = kind === 'palette' ? sources.palettes.find((one) => one.id === item.of) : null;
        const colours = (palette?.colours ?? []).map(({ name, hex }) => ({ name, hex }));
        return { id, kind, caption, width, title, facts, colours };
      }),
    };
    const saved = await call('PUT /client-sheets/{id}/shown', { id: this.id, body: shown });
    if (!saved.ok) return saved.failure.message;
    this.shownAt = saved.value.shownAt;
    return null;
  }

  async link(to: string, days: number): Promise<Outcome<{ token: string; endsAt: number }>> {
    const made = await call('POST /client-sheets/{id}/links', {
      id: this.id,
      body: {
        ...{ to, days },
      },
    });
    if (made.ok) await this.hear();
    return made;
  }
  async endLink(token: string): Promise<void> {
    const ended = await call('DELETE /client-sheets/{id}/links/{token}', { id: this.id, token });
    if (!ended.ok) toasts.problem(ended.failure.message);
    await this.hear();
  }
  async read(): Promise<void> {
    await call('PUT /client-sheets/{id}/read', { id: this.id });
    await this.hear();
  }

  /** Hears what clients left, and what was saved elsewhere. */
  async hear(): Promise<void> {
    const now = await this.refresh();
    if (now) this.take(now);
  }
  private take({ links, answers, shownAt }: SheetData): void {
    [this.links, this.answers, this.shownAt] = [links, answers, shownAt];
  }
}
