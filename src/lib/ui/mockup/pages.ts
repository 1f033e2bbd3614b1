import type { LayoutInUse } from '$lib/contract/data';
import type { Point } from '$lib/core/geom/point';
import { inColourway } from '$lib/core/mockup/colourway';
import type { Standing } from '$lib/core/mockup/mockup';
import { pageOnSheet, type PageOnSheet } from '$lib/core/mockup/on-sheet';
import { cutSheet } from '$lib/core/mockup/objects';
import { fromPx } from '$lib/core/num/length';
import type { Layout } from '$lib/core/recipe/layout';
import type { PatternLookup } from '$lib/core/scene/pattern';
import { lowerLayout } from '$lib/core/draw/lower';
import { patternLookup } from '$lib/core/scene/library';
import type { PageThere } from './draw-sheet';

type Patterns = ReadonlyMap<string, { colourways: readonly { id: string }[] }>;

/** How the page of a layout lies on an object's sheet, slid as the object says. */
export function layOf({ object, slid }: Standing, { width, height }: Layout): PageOnSheet | null {
  const cut = cutSheet(object);
  if (!cut.ok) return null;
  const lies = pageOnSheet(cut.sheet, { width: fromPx(width, 'mm'), height: fromPx(height, 'mm') });
  return { ...lies, at: { x: lies.at.x + slid.x, y: lies.at.y + slid.y } };
}

/** A layout as an object shows it: in its colourway, at its place on the sheet. */
export function pageOf(
  { colourway }: Pick<Standing, 'colourway'>,
  layout: Layout,
  at: Point,
  { lookup, patterns }: { lookup: PatternLookup; patterns: Patterns },
): PageThere {
  const has = (pattern: string, way: string): boolean =>
    (patterns.get(pattern)?.colourways ?? []).some(({ id }) => id === way);
  const shapes = colourway === null ? layout.shapes : inColourway(layout.shapes, colourway, has);
  return { scene: lowerLayout({ ...layout, shapes }, lookup), at };
}

/** What each object of a mock-up shows, by its id, from layouts as the server gives them. */
export function pagesOf(
  objects: readonly Standing[],
  used: readonly LayoutInUse[],
): ReadonlyMap<string, PageThere> {
  const known = new Map(
    used.map(({ layout, patterns, pages }) => [
      layout.id,
      {
        ...{ layout, lookup: patternLookup(patterns, new Map(pages.map((page) => [page.id, page]))) },
        patterns: new Map(patterns.map((one) => [one.id, one])),
      },
    ]),
  );
  return new Map(
    objects.flatMap((one) => {
      const found = one.layout === null ? undefined : known.get(one.layout);
      const lies = found && layOf(one, found.layout);
      return found && lies ? [[one.id, pageOf(one, found.layout, lies.at, found)] as const] : [];
    }),
  );
}
