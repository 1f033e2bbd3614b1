import { clamp } from '$lib/core/num/tolerance';

/** A part of a view beside its stage: its usual size and how far it goes, CSS px. */
export type RoomPart = { usual: number; least: number; most: number };

type Kept = { size: number | null; folded: boolean };

/** Pulled to less than this share of its least size a part folds. */
const FOLDS_AT = 0.6;

/**
 * How much room the parts beside a stage take: each has a size and can be folded away, and all of them at once. Kept per
 * view on this computer, which is one person's.
 */
export class Room<Part extends string> {
  private kept = $state.raw({} as Record<Part, Kept>);
  /** The part whose edge is being dragged: what costs much to lay out waits until it is let go. */
  pulled: Part | null = $state(null);

  constructor(
    private readonly view: string,
    private readonly parts: Readonly<Record<Part, RoomPart>>,
  ) {
    this.kept = this.plain();
  }

  private plain(): Record<Part, Kept> {
    const all = Object.keys(this.parts).map((part) => [part, { size: null, folded: false }]);
    return Object.fromEntries(all) as Record<Part, Kept>;
  }

  /** Takes up what this computer remembers; what cannot be read is passed over. */
  recall(): void {
    let held: unknown;
    try {
      held = JSON.parse(localStorage.getItem(this.key) ?? '{}');
    } catch {
      return;
    }
    const next = this.plain();
    for (const part of Object.keys(next) as Part[]) {
      const found = (held as Partial<Record<Part, Partial<Kept>>> | null)?.[part];
      if (typeof found?.size === 'number') next[part].size = this.within(part, found.size);
      next[part].folded = found?.folded === true;
    }
    this.kept = next;
  }

  private get key(): string {
    return `isle.room.${this.view}`;
  }

  private put(change: Partial<Record<Part, Partial<Kept>>>): void {
    const next = { ...this.kept };
    for (const part of Object.keys(change) as Part[]) next[part] = { ...next[part], ...change[part] };
    this.kept = next;
    localStorage.setItem(this.key, JSON.stringify(next));
  }

  private within(part: Part, size: number): number {
    const { least, most } = this.parts[part];
    return clamp(Math.round(size), least, most);
  }

  limits(part: Part): RoomPart {
    return this.parts[part];
  }

  /** The size of a part that is not folded, px. */
  size(part: Part): number {
    return this.kept[part].size ?? this.parts[part].usual;
  }

  /** True where a person has given the part a size. */
  isSized(part: Part): boolean {
    return this.kept[part].size !== null;
  }

  isFolded(part: Part): boolean {
    return this.kept[part].folded;
  }

  /** Only the stage is left. */
  get onlyStage(): boolean {
    return (Object.values(this.kept) as Kept[]).every(({ folded }) => folded);
  }

  /** Gives a part a size; pulled far below its least one it folds. */
  resize(part: Part, size: number): void {
    const folded = size < this.parts[part].least * FOLDS_AT;
    this.put({ [part]: folded ? { folded } : { folded, size: this.within(part, size) } } as Partial<
      Record<Part, Partial<Kept>>
    >);
  }

  fold(part: Part, folded = !this.isFolded(part)): void {
    this.put({ [part]: { folded } } as Partial<Record<Part, Partial<Kept>>>);
  }

  /** Folds all parts, or opens them all again. */
  foldAll(folded = !this.onlyStage): void {
    const all = Object.keys(this.parts).map((part) => [part, { folded }]);
    this.put(Object.fromEntries(all) as Partial<Record<Part, Partial<Kept>>>);
  }

  /** The part has its usual size again. */
  asUsual(part: Part): void {
    this.put({ [part]: { size: null, folded: false } } as Partial<Record<Part, Partial<Kept>>>);
  }
}
