import { IDENTITY, apply, type Affine } from '../geom/affine';
import { boxCentre, grow, type Box } from '../geom/box';
import { cutPath, halfPlaneBefore, sideOfBox, type HalfPlane } from '../geom/half-plane';
import { strokeOutline } from '../geom/outline';
import { formatPath, transformPath, type Path } from '../geom/path';
import { boxCorners } from '../geom/polygon';
import { polygonPath } from '../geom/shapes';
import { chambersOf } from '../lattice/chamber';
import type { ComposedRecipe, FillRule } from '../recipe/recipe';
import { elementWeight } from './cost';
import { elementBox, plainElement, type Element } from './motif';

/**
 * Strokes of more segments are cut by a clip and not as outlines, and all are where a recipe has more than the second number:
 * outlining curves that cross themselves takes up to 20 ms for as many as the first.
 */
const MOST_OUTLINED = 12;
const MOST_OUTLINED_IN_ALL = 120;
/** How closely outlines of strokes are followed: px, shares of the stroke's width and of the element. */
const CLOSELY = { px: 0.01, ofWidth: 1 / 400, ofElement: 1 / 20_000 };
/** Pictures, gradients and what is clipped run on over the line by so much (px), or what lies behind would shine through along it. */
const RUN_ON = 0.5;

/** What a placing's elements are cut to: the chamber of its middle, in px of the unit. */
export type Cut = { halves: HalfPlane[]; outlines: boolean };

/** How a recipe's placings are cut: `of` tells which mirror lines bound what one shows, by the middle of its ink. */
export type Cutting = { outlines: boolean; of: (box: Box, matrix: Affine) => Cut };

/** How a recipe's placings are cut, whose motifs have these elements; `null` where nothing is. */
export function cuttingOf(
  { unit, gap, repeat }: Pick<ComposedRecipe, 'unit' | 'gap' | 'repeat'>,
  elements: () => readonly Element[],
): Cutting | null {
  const chamber = 'cut' in repeat && repeat.cut ? chambersOf(unit, gap, repeat) : null;
  if (!chamber) return null;
  const outlines = outlinesAllowed(elements());
  return { outlines, of: (box, matrix) => ({ halves: chamber(apply(matrix, boxCentre(box))), outlines }) };
}

/** Whether so many elements' strokes may be turned into outlines. */
const outlinesAllowed = (elements: readonly Element[]): boolean =>
  elements.reduce((sum, one) => sum + (one.stroke ? elementWeight(one) : 0), 0) <= MOST_OUTLINED_IN_ALL;

/** The elements of a motif as far as they lie within its chamber; `matrix` places the motif. Those that lie within stay the same objects. */
export function cutElements(elements: Element[], matrix: Affine, cut: Cut): Element[] {
  const exact = cut.halves.map((half) => halfPlaneBefore(half, matrix));
  const wide = cut.halves.map((half) => halfPlaneBefore(half, matrix, RUN_ON));
  let whole = true;
  const kept = elements.flatMap((element) => {
    const box = elementBox(element);
    if (!box) return [];
    const sides = exact.map((half) => sideOfBox(half, box));
    if (sides.every((side) => side === 'in')) return [element];
    whole = false;
    if (sides.includes('beyond')) return [];
    const runsOn = element.opacity === 1 && (element.picture || isGradient(element) || element.clip);
    return cutElement(element, box, { own: runsOn ? wide : exact, wide }, cut.outlines);
  });
  return whole ? elements : kept;
}

const isGradient = ({ fill }: Element): boolean => fill !== null && typeof fill === 'object';

const cutBy = (path: Path, halves: readonly HalfPlane[], rule: FillRule = 'nonzero'): Path =>
  halves.reduce((left, half) => cutPath(left, half, rule), path);

/** `own` are the half-planes that an element is cut by, `wide` those of what runs on. */
type Bounds = Record<'own' | 'wide', readonly HalfPlane[]>;

function cutElement(element: Element, box: Box, { own, wide }: Bounds, outlines: boolean): Element[] {
  const { stroke, fill, clip } = element;
  if (clip) {
    const path = cutBy(clip.path, own, clip.rule);
    return path.length > 0 ? [{ ...element, clip: { ...clip, path } }] : [];
  }
  if (!stroke) return filled(element, own);
  const both = fill !== null || element.picture !== null;
  const line = both && element.opacity < 1 ? null : outlines ? outlineOf(element) : null;
  if (!line) {
    const whole = polygonPath(boxCorners(IDENTITY, grow(box, 1)));
    const window = cutBy(whole, element.opacity < 1 ? own : wide);
    return window.length > 0 ? [{ ...element, clip: { path: window, rule: 'nonzero' } }] : [];
  }
  return [
    ...(both ? filled({ ...element, stroke: null }, own) : []),
    ...(line === 'nothing' ? [] : filled(line, own)),
  ];
}

function filled(element: Element, halves: readonly HalfPlane[]): Element[] {
  const path = cutBy(element.path, halves, element.fillRule);
  return path.length > 0 ? [{ ...element, path, d: formatPath(path) }] : [];
}

const outlined = new WeakMap<Element, Element | 'nothing' | null>();

/** A stroke as the area that it inks; `nothing` where it inks none, `null` where that would take too long. */
function outlineOf(element: Element): Element | 'nothing' | null {
  const held = outlined.get(element);
  if (held !== undefined) return held;
  const made = makeOutline(element);
  outlined.set(element, made);
  return made;
}

function makeOutline(element: Element): Element | 'nothing' | null {
  const { stroke, path, opacity } = element;
  if (!stroke || elementWeight(element) > MOST_OUTLINED) return null;
  const box = elementBox(element);
  const size = box ? Math.max(box.width, box.height) : 0;
  const { px, ofWidth, ofElement } = CLOSELY;
  const outline = strokeOutline(path, stroke, Math.max(px, ofWidth * stroke.width, ofElement * size));
  return outline.ok ? plainElement(outline.path, { fill: stroke.slot, opacity }) : 'nothing';
}

/** The part of a box within the chamber, through an image of the repeat: for what is cut only when it is drawn. */
export const windowOf = (box: Box, { halves }: Cut, image: Affine): Path =>
  transformPath(image, cutBy(polygonPath(boxCorners(IDENTITY, box)), halves));
