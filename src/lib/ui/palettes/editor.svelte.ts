import { nanoid } from 'nanoid';
import type { PaletteData, PaletteEntry } from '$lib/contract/data';
import type { Failure } from '$lib/contract/failure';
import { inkFault } from '$lib/core/colour/inks';
import type { Hex } from '$lib/core/colour/parse';
import { nearDuplicates, orderColours, type OrderBy } from '$lib/core/colour/order';
import { freeName } from '$lib/core/recipe/edit';
import { mergePalettes, type PaletteDoc } from '$lib/core/recipe/merge-palettes';
import { LIMITS } from '$lib/core/recipe/limits';
import { call } from '../state/api';
import { History } from '../state/history.svelte';
import { onlyBy } from '../state/look-on';
import { Saver } from '../state/saver.svelte';
import { toasts } from '../state/toasts.svelte';

const docOf = ({ name, projectId, colours }: PaletteData): PaletteDoc => ({ name, projectId, colours });

/** One palette at work: its history, its saving, and which colour is chosen. */
export class PaletteEditor {
  readonly id: string;
  /** Whether whoever has it open may change it. */
  mayChange = true;
  readonly history: History<PaletteDoc>;
  readonly saver: Saver<PaletteDoc>;
  chosen: string | null = $state(null);

  readonly doc = $derived.by(() => this.history.doc);
  readonly entry = $derived.by(() => this.doc.colours.find((one) => one.id === this.chosen) ?? null);
  /** The entries that are one colour each. */
  readonly plain = $derived.by(() => this.doc.colours.filter((one) => !one.gradient));

  constructor(data: PaletteData) {
    this.id = data.id;
    this.history = new History<PaletteDoc>(
      docOf(data),
      onlyBy(() => this.mayChange, 'palette'),
    );
    this.saver = new Saver(
      this.history.doc,
      data.version,
      (next, _last, version) => call('PUT /palettes/{id}', { id: data.id, body: { base: version, ...next } }),
      (failure, last) => this.reconcile(failure, last),
    );
  }

  /** Takes over what the server has now: the other side of a clash. */
  take(data: PaletteData): void {
    const doc = docOf(data);
    this.history.commit(doc);
    this.saver.want(doc);
    this.saver.rebase(doc, data.version);
  }

  /** Takes back what was not saved when it was changed from `base`, as one step. */
  bringBack(base: PaletteDoc, doc: PaletteDoc): void {
    this.commit(mergePalettes(base, doc, this.history.doc).doc);
  }

  /** Brings a refused save together with what is stored; where both changed the same colour it is asked. */
  private reconcile(failure: Failure, last: PaletteDoc): boolean {
    const current = failure.current as PaletteData | undefined;
    if (!current || this.history.inGesture) return false;
    const theirs = docOf(current);
    const { doc, clashes } = mergePalettes(last, this.history.doc, theirs);
    if (clashes || inkFault(doc.colours)) return false;
    this.history.adopt(doc);
    this.saver.rebase(theirs, current.version);
    this.saver.want(doc);
    return true;
  }

  change(change: Partial<PaletteDoc>): void {
    this.commit({ ...this.history.doc, ...change });
  }

  /** Takes a change, unless its inks could not be told apart: then it says so, and all is as before. */
  private commit(doc: PaletteDoc): void {
    const fault = inkFault(doc.colours);
    if (!fault) return this.history.commit(doc);
    this.history.cancel();
    toasts.problem(fault.message);
  }

  /** Changes one entry, as part of a gesture with `live`. */
  set(id: string, change: Partial<PaletteEntry>, live = false): void {
    const from = live ? this.history.settled : this.history.doc;
    const colours = from.colours.map((entry) => (entry.id === id ? { ...entry, ...change } : entry));
    if (live) this.history.live({ ...from, colours });
    else this.commit({ ...this.history.settled, colours });
  }

  /** Adds entries, each with a free name, and chooses the first of them. */
  add(fresh: readonly Omit<PaletteEntry, 'id'>[]): void {
    const { colours } = this.history.doc;
    if (colours.length + fresh.length > LIMITS.paletteColours) {
      toasts.problem(`A palette holds at most ${LIMITS.paletteColours} colours.`);
      return;
    }
    const names = colours.map((entry) => entry.name);
    const added = fresh.map((entry): PaletteEntry => {
      const name = freeName(entry.name.slice(0, LIMITS.nameLength), names);
      names.push(name);
      return { ...entry, id: nanoid(12), name };
    });
    this.change({ colours: [...colours, ...added] });
    this.chosen = added[0]?.id ?? this.chosen;
  }

  remove(id: string): void {
    this.change({ colours: this.history.doc.colours.filter((entry) => entry.id !== id) });
  }

  move(id: string, by: number): void {
    const colours = [...this.history.doc.colours];
    const from = colours.findIndex((entry) => entry.id === id);
    const to = Math.max(0, Math.min(colours.length - 1, from + by));
    const [entry] = colours.splice(from, 1);
    if (!entry || from === to) return;
    colours.splice(to, 0, entry);
    this.change({ colours });
  }

  order(by: OrderBy): void {
    const { colours } = this.history.doc;
    const gradients = colours.filter((entry) => entry.gradient);
    const plain = orderColours(
      colours.filter((entry) => !entry.gradient),
      by,
    );
    this.change({ colours: [...plain, ...gradients] });
  }

  /** Takes out colours that are nearer than `deltaE` to an earlier one; answers how many. */
  merge(deltaE: number): number {
    const groups = nearDuplicates(this.plain, deltaE);
    const gone = new Set(groups.flatMap(([, ...rest]) => rest.map((entry) => entry.id)));
    if (gone.size > 0)
      this.change({ colours: this.history.doc.colours.filter((entry) => !gone.has(entry.id)) });
    return gone.size;
  }
}

/** An entry of one colour; a colour given outside sRGB is kept beside what is shown of it. */
export const colourEntry = (name: string, hex: Hex, css: string | null = null): Omit<PaletteEntry, 'id'> =>
  css === null ? { name, hex } : { name, hex, css };
