import { layoutsWithin, type Layout, type Shape } from '../recipe/layout';
import { LIMITS } from '../recipe/limits';
import type { DisplayList } from './list';

export const IN_ITSELF = 'A layout cannot lie in itself, nor in one that lies in it; choose another one.';

/** What lies in a layout: how many shapes are drawn for it in all, and how deep layouts go below it. */
type Holds = { shapes: number; depth: number };

/** Whether layouts lie in each other soundly: none in itself, not too deep, not too many; a sentence where they do not. */
export function nestingFault(id: string, pages: ReadonlyMap<string, Pick<Layout, 'shapes'>>): string | null {
  const { nestedDepth, nestedLayouts, nestedShapes } = LIMITS;
  const known = new Map<string, Holds>();
  const onTheWay = new Set<string>();
  const look = (one: string): Holds | string => {
    const held = known.get(one);
    if (held) return held;
    if (onTheWay.has(one)) return IN_ITSELF;
    // What is not at hand ends the way.
    const own = pages.get(one)?.shapes ?? [];
    onTheWay.add(one);
    const holds: Holds = { shapes: own.length, depth: 0 };
    for (const within of own.flatMap(layoutsWithin)) {
      const below = look(within);
      if (typeof below === 'string') return below;
      holds.shapes += below.shapes;
      holds.depth = Math.max(holds.depth, below.depth + 1);
      if (holds.depth > nestedDepth)
        return `Layouts lie in each other at most ${nestedDepth} deep; choose one that holds fewer.`;
      if (holds.shapes > nestedShapes)
        return `The layouts in it come to more than ${nestedShapes.toLocaleString('en')} shapes; choose one that holds fewer.`;
      if (known.size > nestedLayouts)
        return `A layout holds at most ${nestedLayouts} others, with those in them; choose one that holds fewer.`;
    }
    onTheWay.delete(one);
    known.set(one, holds);
    return holds;
  };
  const found = look(id);
  return typeof found === 'string' ? found : null;
}

/** The layouts that shapes show, and those in them; each once. */
export function pagesWithin(
  shapes: readonly Pick<Shape, 'fills' | 'stroke'>[],
  pages: ReadonlyMap<string, Layout>,
): Layout[] {
  const found = new Map<string, Layout>();
  const look = (all: readonly Pick<Shape, 'fills' | 'stroke'>[]): void => {
    for (const id of all.flatMap(layoutsWithin)) {
      const page = pages.get(id);
      if (!page || found.has(id)) continue;
      found.set(id, page);
      look(page.shapes);
    }
  };
  look(shapes);
  return [...found.values()];
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
