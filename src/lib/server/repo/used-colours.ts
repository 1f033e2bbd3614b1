import { differenceFrom, toLabD65 } from '../../core/colour/difference';
import type { Db } from '../db/open';
import { once, statement } from './rows';

/** Colours kept at most: beyond them the list is read anew, with the next search. */
const MOST_HELD = 200_000;

/** The colours that patterns have or had, with L*, a*, b* of each in a row of numbers. */
class UsedColours {
  private readonly places = new Map<string, number>();
  private lab = new Float64Array(3 * 1024);

  add(hex: string): void {
    if (this.places.has(hex)) return;
    const at = 3 * this.places.size;
    if (at === this.lab.length) {
      const more = new Float64Array(2 * at);
      more.set(this.lab);
      this.lab = more;
    }
    const { l, a, b } = toLabD65(hex);
    this.lab.set([l, a, b], at);
    this.places.set(hex, at);
  }

  get count(): number {
    return this.places.size;
  }

  nearerThan(near: number, hex: string): string[] {
    const isNear = differenceFrom(toLabD65(hex), near);
    const found: string[] = [];
    for (const [other, at] of this.places)
      if (isNear(this.lab[at]!, this.lab[at + 1]!, this.lab[at + 2]!)) found.push(other);
    return found;
  }
}

const held = once((): { colours: UsedColours | null } => ({ colours: null }));

/** Says that patterns got these colours. One that none has any more stays: it finds nothing. */
export function noteColours(db: Db, hexes: readonly string[]): void {
  const { colours } = held(db);
  for (const hex of hexes) colours?.add(hex);
}

/** The colours in use that are nearer than `near` (ΔE2000) to `hex`. */
export function coloursLike(db: Db, hex: string, near: number): string[] {
  const known = held(db);
  if (!known.colours || known.colours.count > MOST_HELD) {
    known.colours = new UsedColours();
    for (const used of statement(db, 'SELECT DISTINCT hex FROM pattern_colour').pluck().all())
      known.colours.add(used as string);
  }
  return known.colours.nearerThan(near, hex);
}
