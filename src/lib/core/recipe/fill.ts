import {
  applyVector,
  chain,
  decompose,
  multiply,
  rotation,
  scaling,
  skewX,
  translation,
  type Affine,
} from '../geom/affine';
import type { Point } from '../geom/point';
import type { BlendMode } from '../colour/blend';
import type { PictureLook } from '../colour/look';
import type { Tint } from '../colour/tint';
import { roundTo, wrapDegrees } from '../num/tolerance';
import type { CutFrom } from './cut-out';
import type { Gradient } from './gradient';
import type { Mask } from './mask';

export const FILL_VERSION = 3;

/**
 * One layer of what fills a shape: a pattern in use, a picture, another layout, a gradient or a plain colour. Nothing in it touches the
 * pattern or the shape. Opacities are 0 to 1, angles degrees clockwise, lengths px.
 */
export type Fill = PatternFill | PictureFill | LayoutFill | GradientFill | ColourFill;

/** What every fill has: how it lies over what is below it, on its shape and on the page. */
export type LayerOfFill = {
  version: typeof FILL_VERSION;
  id: string;
  /** Of a pattern this is the opacity of the motifs; the ground has its own. */
  opacity: number;
  blend: BlendMode;
  shown: boolean;
  mask: Mask | null;
};

/** How a pattern or a picture is laid, in numbers that stay readable: scale, reflection, skew, rotation, then the place. */
export type FillPlace = {
  scaleX: number;
  scaleY: number;
  /** Left and right exchanged; up and down exchanged. */
  reflectX: boolean;
  reflectY: boolean;
  rotation: number;
  skew: number;
  /** How far it has been slid from its anchor. */
  offset: Point;
  /** From the upper left corner of the shape's frame, or of the page. Reshaping moves it so that the pattern stays. */
  anchor: Point;
  anchored: 'shape' | 'page';
};

export type ColourFill = LayerOfFill & Tint & { kind: 'colour' };

export type GradientFill = LayerOfFill & { kind: 'gradient'; gradient: Gradient };

/** A picture laid once; at scale 1 a pixel of it is one px of the page. */
export type PictureFill = LayerOfFill &
  FillPlace & { kind: 'picture'; asset: string; width: number; height: number; cut?: CutFrom };

/** Another layout laid once, as it is now; at scale 1 a px of its page is one px of this one. */
export type LayoutFill = LayerOfFill & FillPlace & { kind: 'layout'; layout: string };

export type PatternFill = LayerOfFill &
  FillPlace & {
    kind: 'pattern';
    pattern: string;
    /** The revision number at which this use is held; `null` follows the newest. */
    held: number | null;
    ground: FillGround;
    groundOpacity: number;
    /** The pattern's colourway that this use shows; `null` shows the pattern's own colours. */
    colourway: string | null;
    /** Colours of this use by slot; slots that are not named keep the colour of the colourway or the pattern. */
    colours: Readonly<Record<string, Tint>>;
    /** How this use recolours the pattern's pictures; absent where they stay as they are. */
    look?: PictureLook;
    /** A gradient that colours the motifs alone: the ground and what lies behind stay untouched. */
    wash: Gradient | null;
  };

/** A fill that lies by numbers of its own. */
export type PlacedFill = PatternFill | PictureFill | LayoutFill;

/** What lies under the pattern on this shape: the pattern's own ground, nothing, or another colour. */
export type FillGround = { kind: 'own' } | { kind: 'none' } | ({ kind: 'colour' } & Tint);

/** A layer as it starts: opaque, over what is below, not masked. */
export const freshLayer = (id: string): LayerOfFill => ({
  version: FILL_VERSION,
  id,
  opacity: 1,
  blend: 'normal',
  shown: true,
  mask: null,
});

/** At its own size, upright, its corner on the shape's corner. */
export const freshPlace = (): FillPlace => ({
  scaleX: 1,
  scaleY: 1,
  reflectX: false,
  reflectY: false,
  rotation: 0,
  skew: 0,
  offset: { x: 0, y: 0 },
  anchor: { x: 0, y: 0 },
  anchored: 'shape',
});

/** A fresh use of a pattern: at its own size and colours, upright, its corner on the shape's corner. */
export function freshFill(id: string, pattern: string): PatternFill {
  return {
    kind: 'pattern',
    ...freshLayer(id),
    ...freshPlace(),
    pattern,
    held: null,
    ground: { kind: 'own' },
    groundOpacity: 1,
    colourway: null,
    colours: {},
    wash: null,
  };
}

export const colourFill = (id: string, tint: Tint): ColourFill => ({
  kind: 'colour',
  ...freshLayer(id),
  ...tint,
});

export const gradientFill = (id: string, gradient: Gradient): GradientFill => ({
  kind: 'gradient',
  ...freshLayer(id),
  gradient,
});

type Size = { width: number; height: number };

/** How something of a size covers a frame, in its middle, at its own proportions. */
function covering({ width, height }: Size, frame: Size): FillPlace {
  const scale = roundTo(Math.max(frame.width / width, frame.height / height), 9);
  const anchor = {
    x: roundTo((frame.width - width * scale) / 2, 9),
    y: roundTo((frame.height - height * scale) / 2, 9),
  };
  return { ...freshPlace(), scaleX: scale, scaleY: scale, anchor };
}

/** A picture that covers a frame, in its middle, at its own proportions. */
export const coveringPicture = (id: string, picture: Size & { asset: string }, frame: Size): PictureFill => ({
  kind: 'picture',
  ...freshLayer(id),
  ...covering(picture, frame),
  ...picture,
});

/** A layout that covers a frame, in its middle, at its own proportions. */
export const coveringLayout = (id: string, layout: string, page: Size, frame: Size): LayoutFill => ({
  kind: 'layout',
  ...freshLayer(id),
  ...covering(page, frame),
  layout,
});

/** The fill with what was cut out of its picture, which stays where it lay. */
export function withCut(
  fill: PictureFill,
  made: { asset: string; width: number; height: number },
  cut: CutFrom,
): PictureFill {
  const by = applyVector(placeLinear(fill), {
    x: cut.x - (fill.cut?.x ?? 0),
    y: cut.y - (fill.cut?.y ?? 0),
  });
  return { ...fill, ...made, cut, anchor: tidyPoint({ x: fill.anchor.x + by.x, y: fill.anchor.y + by.y }) };
}

export const isPlaced = (fill: Fill): fill is PlacedFill =>
  fill.kind === 'pattern' || fill.kind === 'picture' || fill.kind === 'layout';

/** rotation · skew · scale with its reflections. Inverse of {@link placeOfLinear}. */
export function placeLinear(place: Omit<FillPlace, 'offset' | 'anchor' | 'anchored'>): Affine {
  const { scaleX, scaleY, reflectX, reflectY } = place;
  return chain(
    rotation(place.rotation),
    skewX(place.skew),
    scaling(reflectX ? -scaleX : scaleX, reflectY ? -scaleY : scaleY),
  );
}

export type LinearPlace = Pick<
  FillPlace,
  'scaleX' | 'scaleY' | 'reflectX' | 'reflectY' | 'rotation' | 'skew'
>;

/**
 * The numbers of a linear map. One map has several readings: the reflections stay as `near` has them where the map
 * allows it; else the one is changed that leaves the angle nearer to that of `near`. `null` for a singular map.
 */
export function placeOfLinear(
  matrix: Affine,
  near: Pick<FillPlace, 'reflectX' | 'reflectY' | 'rotation'>,
): LinearPlace | null {
  const { reflectX, reflectY } = near;
  const readings = [
    { reflectX, reflectY },
    { reflectX: !reflectX, reflectY },
    { reflectX, reflectY: !reflectY },
  ].flatMap((mirrors): LinearPlace[] => {
    const plain = multiply(matrix, scaling(mirrors.reflectX ? -1 : 1, mirrors.reflectY ? -1 : 1));
    const parts = decompose(plain);
    return parts && parts.scaleY > 0 ? [{ ...parts, ...mirrors, rotation: tidyDegrees(parts.rotation) }] : [];
  });
  const turn = (one: LinearPlace): number => Math.abs(wrapDegrees(one.rotation - near.rotation));
  return readings.reduce<LinearPlace | null>(
    (best, one) => (best === null || turn(one) < turn(best) - 1e-6 ? one : best),
    null,
  );
}

/** Pattern or picture space → the space of its anchor: the shape's frame (axes of the page, origin at its upper left corner), or the page. */
export function fillMatrix(fill: FillPlace): Affine {
  return chain(translation(fill.anchor.x + fill.offset.x, fill.anchor.y + fill.offset.y), placeLinear(fill));
}

/** Degrees in (−180, 180], with the dust of repeated turns wiped off (a billionth of a degree). */
export const tidyDegrees = (degrees: number): number => wrapDegrees(roundTo(degrees, 9));

/** A place in px with the dust of repeated sums wiped off (a billionth of a px). */
export const tidyPoint = ({ x, y }: Point): Point => ({ x: roundTo(x, 9), y: roundTo(y, 9) });
