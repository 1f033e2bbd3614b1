import { layoutsWithin, type Layout } from '../recipe/layout';
import { LIMITS } from '../recipe/limits';
import type { DisplayList } from './list';

export const IN_ITSELF = 'A layout cannot lie in itself, nor in one that lies in it; choose another one.';

/** Whether layouts lie in each other soundly: none in itself, not too deep, not too many shapes; a sentence where they do not. */
export function nestingFault(id: string, pages: ReadonlyMap<string, Pick<Layout, 'shapes'>>): string | null {
  const totals = new Map<string, number>();
  const onTheWay = new Set<string>();
  /** How many shapes are drawn for a layout, with those of all that lie in it; a sentence instead of too many. */
  const count = (one: string): number | string => {
    const known = totals.get(one);
    if (known !== undefined) return known;
    if (onTheWay.has(one)) return IN_ITSELF;
    if (onTheWay.size > LIMITS.nestedDepth)
      return `Layouts lie in each other at most ${LIMITS.nestedDepth} deep; choose one that holds fewer.`;
    const shapes = pages.get(one)?.shapes ?? [];
    onTheWay.add(one);
    let total = shapes.length;
    for (const within of shapes.flatMap(layoutsWithin)) {
      const more = count(within);
      if (typeof more === 'string') return more;
      total += more;
      if (total > LIMITS.nestedShapes)
        return `The layouts in it come to more than ${LIMITS.nestedShapes.toLocaleString('en')} shapes; choose one that holds fewer.`;
    }
    onTheWay.delete(one);
    totals.set(one, total);
    return total;
  };
  const counted = count(id);
  return typeof counted === 'string' ? counted : null;
}

/** The layouts that lie in others, each lowered once; one that does not lie there soundly is left out. */
export class NestedPages {
  private readonly lowered = new Map<string, DisplayList | null>();

  constructor(private readonly pages: ReadonlyMap<string, Layout>) {}

  get(id: string, lower: (layout: Layout) => DisplayList): DisplayList | null {
    const held = this.lowered.get(id);
    if (held !== undefined) return held;
    const page = this.pages.get(id);
    // While it is lowered it is not there: what lies in itself ends.
    this.lowered.set(id, null);
    const list = page && nestingFault(id, this.pages) === null ? lower(page) : null;
    this.lowered.set(id, list);
    return list;
  }
}
