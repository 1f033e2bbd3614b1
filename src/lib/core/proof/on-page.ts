import type { DrawnShape } from '../draw/list';
import type { Box } from '../geom/box';
import { fromPx, toPx } from '../num/length';
import { liesUpright, type Layout, type Shape } from '../recipe/layout';
import { moveBy, sizeTo } from '../recipe/transform';
import type { ProofContext } from './context';
import { mendShapes, removeFills, removeShapes } from './mends';
import type { Found } from './note';
import { sayMm } from './say';

/** How far from a line something still lies on it, px. */
const ON = 0.01;

type Page = Pick<Layout, 'width' | 'height' | 'bleed' | 'margin' | 'background'>;

/** How far a box reaches beyond each edge of a page, px; negative within it. */
type Beyond = { left: number; top: number; right: number; bottom: number };
const beyond = (box: Box, { width, height }: Page): Beyond => ({
  left: -box.x,
  top: -box.y,
  right: box.x + box.width - width,
  bottom: box.y + box.height - height,
});
const SIDES = ['left', 'top', 'right', 'bottom'] as const;

const inked = ({ layers, stroke }: DrawnShape): boolean => layers.length > 0 || stroke !== null;
const boxOf = ({ box, stroke }: DrawnShape): Box => stroke?.box ?? box;

/** What is found of a page's edge: bleed that is missing, and what comes too near to the cut. */
export function foundAtEdges(
  page: Page,
  shapes: readonly { shape: Shape; drawn: DrawnShape }[],
  { limits }: ProofContext,
): Found[] {
  const need = toPx(limits.bleed, 'mm');
  const found: Found[] = [];
  let reaching = 0;
  for (const { shape, drawn } of shapes) {
    if (!inked(drawn)) continue;
    const by = beyond(boxOf(drawn), page);
    const place = { shape: shape.id, fill: null };
    if (SIDES.some((side) => by[side] < -(side === 'left' || side === 'right' ? page.width : page.height))) {
      found.push({
        kind: 'unseen',
        weight: 'look',
        says: 'Lies beyond the page: nothing of it is seen.',
        ...{ figure: '', place, mend: removeShapes('Take them away') },
      });
      continue;
    }
    const meets = SIDES.filter((side) => by[side] >= -ON);
    if (meets.length > 0) reaching += 1;
    if (need > 0) found.push(...shortOfBleed(shape, drawn, by, meets, need));
    if (meets.length === 0) found.push(...overMargin(shape, by, page));
  }
  const full = page.background !== null && page.background.toLowerCase() !== '#ffffff';
  if (need > 0 && page.bleed < need - ON && (reaching > 0 || full)) {
    const what = reaching === 1 ? 'one shape reaches' : `${reaching} shapes reach`;
    found.push({
      kind: 'bleed',
      weight: 'wrong',
      says: `${page.bleed > 0 ? 'The page has too little bleed' : 'The page has no bleed'}, and ${
        reaching > 0 ? what : 'its background reaches'
      } its edge: a cut that is a little off shows paper.`,
      figure: `${String(Number(fromPx(page.bleed, 'mm').toFixed(2)))} of ${sayMm(need)}`,
      place: null,
      mend: {
        label: `Give it ${sayMm(need)}`,
        change: (layout) => ({ ...layout, bleed: need }),
      },
    });
  }
  return found;
}

function shortOfBleed(
  shape: Shape,
  drawn: DrawnShape,
  by: Beyond,
  meets: readonly (typeof SIDES)[number][],
  need: number,
): Found[] {
  const short = meets.filter((side) => by[side] < need - ON);
  if (short.length === 0) return [];
  const least = Math.min(...short.map((side) => by[side]));
  const grow = (side: (typeof SIDES)[number]): number => (short.includes(side) ? need - by[side] : 0);
  const [left, top] = [grow('left'), grow('top')];
  const mend =
    drawn.upright && !drawn.stroke && liesUpright(shape)
      ? mendShapes('Carry it on', (held) =>
          sizeTo(held, 'shape', {
            x: held.x - left,
            y: held.y - top,
            width: held.width + left + grow('right'),
            height: held.height + top + grow('bottom'),
          }),
        )
      : null;
  return [
    {
      kind: 'bleed',
      weight: 'wrong',
      says: `Reaches the edge of the page, but not ${sayMm(need)} beyond it.`,
      measure: Math.max(0, least) - need,
      figure: `${sayMm(need - Math.max(0, least))} short`,
      place: { shape: shape.id, fill: null },
      mend,
    },
  ];
}

function overMargin(shape: Shape, by: Beyond, page: Page): Found[] {
  const near = SIDES.filter((side) => -by[side] < page.margin - ON);
  if (page.margin <= 0 || near.length === 0) return [];
  const over = (side: (typeof SIDES)[number]): number => Math.max(0, page.margin + by[side]);
  const fits = !(over('left') > 0 && over('right') > 0) && !(over('top') > 0 && over('bottom') > 0);
  const move = { x: over('left') - over('right'), y: over('top') - over('bottom') };
  const least = Math.min(...near.map((side) => -by[side]));
  return [
    {
      kind: 'margin',
      weight: 'look',
      says: 'Lies beyond the safe margin: it may come too near to the cut.',
      measure: least,
      figure: `${String(Number(fromPx(least, 'mm').toFixed(2)))} of ${sayMm(page.margin)}`,
      place: { shape: shape.id, fill: null },
      mend: fits ? mendShapes('Move it in', (held) => moveBy(held, 'both', move)) : null,
    },
  ];
}

/** Shapes and fills of which nothing is seen. */
export function foundUnseen(
  shapes: readonly { shape: Shape; drawn: DrawnShape }[],
  hidden: (shape: Shape) => boolean,
): Found[] {
  return shapes.flatMap(({ shape, drawn }): Found[] => {
    const place = { shape: shape.id, fill: null };
    const strokes = shape.stroke?.fills ?? [];
    const fills = shape.fills.length + strokes.length;
    const look = (says: string, figure: string, mend: Found['mend'], fill: string | null = null): Found => ({
      ...{ kind: 'unseen' as const, weight: 'look' as const, says, figure },
      ...{ place: { ...place, fill }, mend },
    });
    if (hidden(shape))
      return fills > 0
        ? [
            look(
              'Hidden shapes have fills: they are neither drawn nor handed over.',
              '',
              removeShapes('Take them away'),
            ),
          ]
        : [];
    if (fills === 0) return [look('Shapes without a fill draw nothing.', '', removeShapes('Take them away'))];
    if (drawn.box.width === 0 && drawn.box.height === 0)
      return [look('Shapes without extent draw nothing.', '', removeShapes('Take them away'))];
    return [...shape.fills, ...strokes].flatMap((fill) =>
      fill.shown && fill.opacity > 0
        ? []
        : [look('Fills that are not shown draw nothing.', '', removeFills('Take them away'), fill.id)],
    );
  });
}
