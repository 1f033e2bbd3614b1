import paper from 'paper/dist/paper-core';
import { formatPath, parsePath, type FillRule, type Path } from './path';

/** How two or more areas are put together. */
export type PathOperation = 'unite' | 'subtract' | 'intersect' | 'exclude';

export type Area = { path: Path; rule: FillRule };

export type AreaResult = { ok: true; path: Path } | { ok: false; message: string };

/**
 * Puts areas together: the union of all; the first one without the others; what all share; or what an odd number of
 * them cover. Curves stay curves. The arithmetic on crossing curves is the Paper.js library's; open paths are closed
 * with a straight line and self-crossing ones are taken as their fill rule fills them.
 */
export function combineAreas(operation: PathOperation, areas: readonly Area[]): AreaResult {
  const scope = new paper.PaperScope();
  try {
    scope.setup(new scope.Size(1, 1));
    const items = areas.map((area) => itemOf(scope, area));
    const [first, ...rest] = items;
    if (!first)
      return { ok: false, message: 'There is nothing to put together; choose at least two pieces.' };
    const whole = rest.reduce<paper.PathItem>((sum, item) => sum[operation](item, { insert: false }), first);
    if (whole.isEmpty()) return { ok: false, message: EMPTY[operation] };
    const read = parsePath(exactData(whole));
    if (!read.ok) return read;
    return { ok: true, path: read.path };
  } finally {
    scope.project.remove();
  }
}

const EMPTY: Record<PathOperation, string> = {
  unite: 'The chosen pieces have no area; lines have to be turned into closed shapes first.',
  subtract: 'Nothing would be left: the front pieces cover the one behind.',
  intersect: 'The chosen pieces do not overlap, so they share nothing.',
  exclude: 'Nothing would be left: the chosen pieces cover each other exactly.',
};

/** The area of a region in px², by the same library. */
export function areaOf({ path, rule }: Area): number {
  const scope = new paper.PaperScope();
  scope.setup(new scope.Size(1, 1));
  const size = Math.abs((itemOf(scope, { path, rule }) as paper.CompoundPath).area);
  scope.project.remove();
  return size;
}

/** So many decimals go in and out: areas keep to a millionth. */
const DIGITS = 9;

/** Path data with all its decimals; the property of that name keeps five. */
function exactData(item: paper.PathItem): string {
  const writer = item as unknown as { getPathData(matrix: null, precision: number): string };
  return writer.getPathData(null, DIGITS);
}

function itemOf(scope: paper.PaperScope, { path, rule }: Area): paper.PathItem {
  const item = new scope.CompoundPath({ pathData: formatPath(path, 6), insert: false });
  item.fillRule = rule;
  for (const child of item.children) (child as paper.Path).closed = true;
  // Crossings of a path with itself are resolved first, so that its fill rule is what counts.
  return item.unite(undefined as unknown as paper.PathItem, { insert: false });
}
