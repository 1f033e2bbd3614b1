import { longestScale, multiply } from '../geom/affine';
import { paintSlots } from '../recipe/edit';
import { thinPieces } from '../scene/thin';
import { findTouches } from '../scene/touch';
import type { UnitScene } from '../scene/unit';

/** What of a pattern is the same at every scale, measured once for each drawing of it. */
export type PatternFacts = {
  /** The thinnest line or element, px of the pattern; `null` without any. */
  thinnest: number | null;
  /** How much its coarsest picture is enlarged: px of the pattern to one of its pixels; `null` without pictures. */
  coarsest: number | null;
  /** The slots that its motifs are painted with. */
  slots: readonly string[];
};

const known = new WeakMap<UnitScene, PatternFacts>();

export function factsOf(scene: UnitScene): PatternFacts {
  const held = known.get(scene);
  if (held) return held;
  const thin = thinPieces(scene, Infinity).map(({ width }) => width);
  const drawn = scene.pieces.filter(({ id }) => id !== 'ground');
  const elements = [
    ...drawn.flatMap((piece) => piece.elements),
    ...scene.endless.map((line) => line.element),
  ];
  const pictures = scene.pieces.flatMap(({ matrix, elements: all }) =>
    all.flatMap(({ picture }) => (picture ? [longestScale(multiply(matrix, picture.matrix))] : [])),
  );
  const slots = elements.flatMap(({ fill, stroke, picture }) =>
    picture ? [] : [...paintSlots(fill), ...(stroke ? [stroke.slot] : [])],
  );
  const facts: PatternFacts = {
    thinnest: thin.length === 0 ? null : thin.reduce((least, width) => Math.min(least, width)),
    coarsest: pictures.length === 0 ? null : pictures.reduce((most, scale) => Math.max(most, scale)),
    slots: [...new Set(slots)],
  };
  known.set(scene, facts);
  return facts;
}

/** Beyond so many pieces gaps are not looked for: it would take too long while one works. */
const MOST_PIECES = 1500;
const gaps = new WeakMap<UnitScene, Map<number, number | null>>();

/**
 * The narrowest gap between pieces that do not touch, px of the pattern, where it is under `most`; else `null`. It is measured
 * once for each doubling of `most`.
 */
export function narrowestGap(scene: UnitScene, most: number): number | null {
  if (!(most > 0) || scene.pieces.length > MOST_PIECES) return null;
  const step = Math.ceil(Math.log2(most));
  const bySteps = gaps.get(scene) ?? new Map<number, number | null>();
  gaps.set(scene, bySteps);
  let least = bySteps.get(step);
  if (least === undefined) {
    const found = findTouches(scene, 2 ** step, true).map(({ distance }) => distance);
    least = found.length === 0 ? null : Math.min(...found);
    bySteps.set(step, least);
  }
  return least !== null && least < most ? least : null;
}
