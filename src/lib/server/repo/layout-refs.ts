import { eq } from 'drizzle-orm';
import type { LayoutChange } from '../../contract/data';
import { fail } from '../../contract/failure';
import { nestingFault } from '../../core/draw/nested';
import type { PatternFill } from '../../core/recipe/fill';
import { allFills, layoutsWithin, type Shape } from '../../core/recipe/layout';
import type { Db } from '../db/open';
import { colourway, layout, pattern } from '../db/schema';
import { hasAsset } from './assets';
import { among } from './context';
import { getLayout, layoutInUse } from './layouts';

/** What changes of a layout refer to: patterns, pictures and layouts that must be there. */

/** The shapes among changes that are filled with layouts, with their places in the request. */
const filledWithLayouts = (changes: readonly LayoutChange[]): { ids: string[]; path: string }[] =>
  changes.flatMap((change, index) => {
    const ids = change.do === 'put-shape' ? layoutsWithin(change.shape) : [];
    return ids.length > 0 ? [{ ids, path: `changes.${index}.shape.fills` }] : [];
  });

/** The first fill whose layout is not there, or is of another project. */
export function missingLayout(
  tx: Db,
  projectId: string,
  changes: readonly LayoutChange[],
): ReturnType<typeof fail> | null {
  for (const { ids, path } of filledWithLayouts(changes))
    for (const within of ids) {
      const page = tx.select({ of: layout.projectId }).from(layout).where(eq(layout.id, within)).get();
      if (page?.of !== projectId)
        return fail(
          'not_found',
          'A layout that fills a shape is not in this project; choose another one.',
          path,
        );
    }
  return null;
}

/** Layouts that would lie in themselves, or too many; told once all changes are made. */
export function nestedWrong(
  tx: Db,
  id: string,
  changes: readonly LayoutChange[],
): ReturnType<typeof fail> | null {
  const [first] = filledWithLayouts(changes);
  if (!first) return null;
  const own = getLayout(tx, id);
  if (!own.ok) return own;
  const { pages } = layoutInUse(tx, own.value);
  const wrong = nestingFault(id, new Map([own.value, ...pages].map((page) => [page.id, page])));
  return wrong === null ? null : fail('invalid', wrong, first.path);
}

/** The first fill that refers to a pattern that is not there, or to a revision that it does not have. */
export function missingPattern(tx: Db, changes: readonly LayoutChange[]): ReturnType<typeof fail> | null {
  const wanted = changes.flatMap((change, index) =>
    change.do === 'put-shape' ? patternsIn(change.shape, `changes.${index}.shape`) : [],
  );
  if (wanted.length === 0) return null;
  const ids = [...new Set(wanted.map((want) => want.fill.pattern))];
  const newest = new Map(
    tx
      .select({ id: pattern.id, newest: pattern.newest })
      .from(pattern)
      .where(among(pattern.id, ids))
      .all()
      .map((row) => [row.id, row.newest]),
  );
  const ways = new Map(
    tx
      .select({ id: colourway.id, of: colourway.patternId })
      .from(colourway)
      .where(
        among(
          colourway.id,
          wanted.flatMap(({ fill: value }) => value.colourway ?? []),
        ),
      )
      .all()
      .map((row) => [row.id, row.of]),
  );
  for (const { path, fill: value } of wanted) {
    const revisions = newest.get(value.pattern);
    if (revisions === undefined)
      return fail('not_found', `There is no pattern with the id “${value.pattern}”.`, `${path}.pattern`);
    if (revisions === 0)
      return fail(
        'invalid',
        'A pattern must be published before a shape can be filled with it.',
        `${path}.pattern`,
      );
    if (value.held !== null && value.held > revisions)
      return fail(
        'not_found',
        `The pattern has no revision ${value.held}; the newest is ${revisions}.`,
        `${path}.held`,
      );
    if (value.colourway !== null && ways.get(value.colourway) !== value.pattern)
      return fail(
        'not_found',
        'The pattern has no such colourway any more; choose another or none.',
        `${path}.colourway`,
      );
  }
  return null;
}

/** The pattern fills of a shape with their places in the request. */
function patternsIn({ fills, stroke }: Shape, path: string): { path: string; fill: PatternFill }[] {
  const stacks = [
    { list: fills, at: `${path}.fills` },
    { list: stroke?.fills ?? [], at: `${path}.stroke.fills` },
  ];
  return stacks.flatMap(({ list, at }) =>
    list.flatMap((value, index) =>
      value.kind === 'pattern' ? [{ path: `${at}.${index}`, fill: value }] : [],
    ),
  );
}

/** The first fill or mask that shows a picture which is not there. */
export function missingPicture(tx: Db, changes: readonly LayoutChange[]): ReturnType<typeof fail> | null {
  const known = new Map<string, boolean>();
  const isHere = (hash: string): boolean => {
    const found = known.get(hash) ?? hasAsset(tx, hash);
    known.set(hash, found);
    return found;
  };
  for (const [index, change] of changes.entries()) {
    if (change.do !== 'put-shape') continue;
    const fills = allFills(change.shape);
    const shown = [...fills, change.shape.mask, ...fills.map((value) => value.mask)];
    const cuts = fills.flatMap((value) => (value.kind === 'picture' && value.cut ? [value.cut.asset] : []));
    const gone = cuts.some((asset) => !isHere(asset));
    if (gone || shown.some((one) => one?.kind === 'picture' && !isHere(one.asset)))
      return fail(
        'not_found',
        'A picture of this shape is not in Isle; bring its file in again.',
        `changes.${index}.shape.fills`,
      );
  }
  return null;
}
