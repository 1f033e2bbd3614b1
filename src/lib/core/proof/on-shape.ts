import { patternRegion, tiledOf, allLayers, type DrawnShape, type TiledItem } from '../draw/list';
import { intersectBoxes, type Box } from '../geom/box';
import { decompose, IDENTITY, longestScale, meanScale, multiply, type Affine } from '../geom/affine';
import { effectivePpi, toPx } from '../num/length';
import { LIMITS } from '../recipe/limits';
import { allFills, patternFills, type Layout, type Shape } from '../recipe/layout';
import { pagesWithin } from '../draw/nested';
import { costOver } from '../scene/cost';
import type { ProofContext } from './context';
import { factsOf, narrowestGap } from './facts';
import { mendPatterns, mendShapes } from './mends';
import type { Found, ProofPlace } from './note';
import { sayMm, sayPercent, sayPpi, sayPt } from './say';

/** What is found on one shape by itself, wherever it lies on its page. */
export function foundOnShape(shape: Shape, drawn: DrawnShape, page: Box, context: ProofContext): Found[] {
  return [
    ...foundOfPatterns(shape, context),
    ...foundOfLayouts(shape, drawn),
    ...foundOfPatternsWithin(shape, context),
    ...foundDrawn(shape, drawn, page, context),
  ];
}

/** How the patterns of a shape stand in the library. */
function foundOfPatterns(shape: Shape, { lookup, patterns }: ProofContext): Found[] {
  return patternFills(shape).flatMap((fill): Found[] => {
    const place: ProofPlace = { shape: shape.id, fill: fill.id };
    const pattern = patterns.get(fill.pattern);
    const name = `“${pattern?.name ?? fill.pattern}”`;
    const found: Found[] = [];
    const look = (kind: Found['kind'], says: string, figure: string, mend: Found['mend'] = null): void => {
      found.push({ kind, weight: 'look', says, figure, place, mend });
    };
    const scene = lookup(fill)?.scene;
    if (!pattern || !scene || scene.fault)
      found.push({
        kind: 'missing',
        weight: 'wrong',
        says: `${name} cannot be shown: nothing is drawn of it.`,
        ...{ figure: '', place, mend: null },
      });
    if (!pattern) return found;
    const behind = fill.held === null ? 0 : pattern.newest - fill.held;
    if (behind > 0)
      look(
        'held',
        `${name} is held at revision ${fill.held}; the newest is ${pattern.newest}.`,
        `${behind} behind`,
        mendPatterns('Follow the newest', (use) => ({ ...use, held: null })),
      );
    if (pattern.hasDraft && fill.held === null)
      look(
        'draft',
        `${name} has changes that are not published: they are not on this page.`,
        `revision ${pattern.newest}`,
      );
    if (pattern.archivedAt !== null) look('archived', `${name} is in the archive.`, '');
    return found;
  });
}

/** How the patterns of the layouts on a shape stand in the library; they are changed on their own pages. */
function foundOfPatternsWithin(shape: Shape, context: ProofContext): Found[] {
  const pages = context.lookup.pages ?? new Map<string, Layout>();
  return allFills(shape).flatMap((fill) =>
    fill.kind === 'layout'
      ? pagesWithin([{ fills: [fill], stroke: null }], pages)
          .flatMap(({ shapes }) => shapes.flatMap((one) => foundOfPatterns(one, context)))
          .map((one) => ({ ...one, mend: null, place: { shape: shape.id, fill: fill.id } }))
      : [],
  );
}

/** Layouts that fill a shape and of which nothing is drawn. */
const foundOfLayouts = (shape: Shape, drawn: DrawnShape): Found[] =>
  allFills(shape).flatMap((fill): Found[] =>
    fill.kind !== 'layout' ||
    !fill.shown ||
    shape.hidden ||
    allLayers(drawn).some((one) => one.fill === fill.id)
      ? []
      : [
          {
            ...{ kind: 'missing', weight: 'wrong', figure: '', mend: null },
            says: 'A layout that fills a shape cannot be shown: it is gone, lies in itself, or comes to too many shapes.',
            place: { shape: shape.id, fill: fill.id },
          },
        ],
  );

function foundDrawn(shape: Shape, drawn: DrawnShape, page: Box, context: ProofContext): Found[] {
  return [...foundOfItems(drawn, shape.id, IDENTITY, context), ...foundCopies(drawn, page, context)];
}

/** What is found on the items and the stroke of a drawn shape, which `matrix` takes to the page that is proofed. */
function foundOfItems(drawn: DrawnShape, shape: string, matrix: Affine, context: ProofContext): Found[] {
  const found: Found[] = [];
  for (const { fill, items } of allLayers(drawn)) {
    const place: ProofPlace = { shape, fill };
    for (const item of items) {
      if (item.kind === 'path') continue;
      const onPage = multiply(matrix, item.matrix);
      if (item.kind === 'picture') found.push(...coarse('A picture', ppiOf(onPage), place, context));
      if (item.kind === 'tiled') found.push(...foundTiled({ ...item, matrix: onPage }, place, context));
      // What lies in a layout is mended on its own page: here it only has its place.
      if (item.kind === 'page')
        found.push(
          ...item.list.shapes
            .flatMap((one) => foundOfItems(one, one.id, onPage, context))
            .map((one) => ({ ...one, mend: null, place })),
        );
    }
  }
  const pen = drawn.stroke && drawn.stroke.layers.length > 0 ? drawn.stroke.pen : null;
  const least = toPx(context.limits.line, 'pt');
  const width = pen ? pen.width * meanScale(matrix) : Infinity;
  if (width < least - 1e-6)
    found.push({
      kind: 'line',
      weight: 'wrong',
      says: `A stroke is thinner than ${sayPt(least)}.`,
      figure: sayPt(width),
      measure: width,
      place: { shape, fill: null },
      mend: mendShapes(`Make it ${sayPt(least)}`, (held) => ({
        ...held,
        stroke: held.stroke && { ...held.stroke, width: least },
      })),
    });
  return found;
}

/** Pixels to an inch of the direction in which a map stretches most. */
const ppiOf = (matrix: Affine, own = 1): number => effectivePpi(1, longestScale(matrix) * own);

function coarse(what: string, ppi: number, place: ProofPlace, { limits }: ProofContext): Found[] {
  const { leastPpi, fullPpi } = limits;
  if (ppi >= Math.max(leastPpi, fullPpi) - 1e-6) return [];
  const wrong = ppi < leastPpi - 1e-6;
  const says = wrong
    ? `${what} is coarse at this size: it has fewer than ${sayPpi(leastPpi)}.`
    : `${what} is not quite sharp at this size: it has fewer than ${sayPpi(fullPpi)}.`;
  return [
    {
      kind: 'picture',
      weight: wrong ? 'wrong' : 'look',
      says,
      figure: sayPpi(ppi),
      measure: ppi,
      place,
      mend: null,
    },
  ];
}

function foundTiled(item: TiledItem, place: ProofPlace, context: ProofContext): Found[] {
  const { limits } = context;
  const { scene, name } = item.pattern;
  const scale = meanScale(item.matrix);
  if (!(scale > 0)) return [];
  const { thinnest, coarsest } = factsOf(scene);
  const found: Found[] = [];
  if (coarsest !== null) found.push(...coarse(`“${name}”`, ppiOf(item.matrix, coarsest), place, context));
  const line = toPx(limits.line, 'pt');
  if (thinnest !== null && thinnest > 0 && thinnest * scale < line - 1e-6)
    found.push({
      kind: 'line',
      weight: 'wrong',
      says: `“${name}” has parts thinner than ${sayPt(line)} at this scale.`,
      figure: sayPt(thinnest * scale),
      measure: thinnest * scale,
      place,
      mend: scaleUp(item, line / (thinnest * scale)),
    });
  const least = toPx(limits.gap, 'mm');
  const gap = narrowestGap(scene, least / scale);
  if (gap !== null)
    found.push({
      kind: 'gap',
      weight: 'look',
      says: `Gaps between motifs of “${name}” are narrower than ${sayMm(least)} at this scale.`,
      figure: sayMm(gap * scale),
      measure: gap * scale,
      place,
      mend: scaleUp(item, least / (gap * scale)),
    });
  return found;
}

/** More than this is another design: it is left to the person. */
const MOST_GROWTH = 4;

/** A mend that enlarges a pattern evenly, rounded up to a tenth of a percent. */
function scaleUp({ matrix }: TiledItem, by: number): Found['mend'] {
  const parts = decompose(matrix);
  if (!parts || by > MOST_GROWTH) return null;
  const factor = Math.ceil(by * 1000) / 1000;
  const { least, most } = LIMITS.scale;
  if (![parts.scaleX, parts.scaleY].every((scale) => Math.abs(scale) * factor <= most)) return null;
  return mendPatterns(`Enlarge by ${sayPercent(factor - 1)}`, (fill) => ({
    ...fill,
    scaleX: Math.max(least, fill.scaleX * factor),
    scaleY: Math.max(least, fill.scaleY * factor),
  }));
}

function foundCopies(drawn: DrawnShape, page: Box, { limits }: ProofContext): Found[] {
  const box = limits.copies > 0 ? intersectBoxes(drawn.stroke?.box ?? drawn.box, page) : null;
  if (!box) return [];
  return tiledOf(drawn).flatMap((item): Found[] => {
    const region = patternRegion(drawn, item, box);
    const copies = region ? Math.round(costOver(item.pattern.scene, region).copies) : 0;
    if (copies <= limits.copies) return [];
    const layer = allLayers(drawn).find(({ items }) => items.includes(item));
    return [
      {
        kind: 'copies',
        weight: 'look',
        says: `“${item.pattern.name}” is drawn very often: slow machines will wait for it.`,
        figure: `${copies.toLocaleString('en')} motifs`,
        measure: -copies,
        place: { shape: drawn.id, fill: layer?.fill ?? null },
        mend: null,
      },
    ];
  });
}
