import type { Hex } from '../colour/parse';
import type { ColourSlot } from '../colour/slots';
import type { PlaneGroup } from '../lattice/groups';
import type { Size } from '../lattice/size';
import type { Corners } from '../geom/corners';
import { add, type Point } from '../geom/point';
import type { BrushStroke } from '../geom/brush-stroke';
import { TEXTURE_SIDE, TEXTURES, textureAsset, type Texture } from './texture';

/**
 * A repeat made from a picture: steps that are data, each switched on and off. The picture itself is never changed;
 * what comes of the steps is made from them anew wherever it is missing.
 */
export type Pictured = {
  source: SourcePicture;
  region: Region;
  /** `heal` is how wide a line along each mirror is left out of the region, px of it; absent for none. */
  symmetry: { on: boolean; group: PlaneGroup; heal?: number };
  tone: Tone;
  join: Join;
  /** Absent: nothing is painted on it. */
  retouch?: Retouch;
  /** Absent: its colours stay as they are. */
  few?: Few;
  /** Absent: it is made of the pixels that its region has. */
  size?: PictureSize;
};

/**
 * The picture that a repeat is made from: an asset, its size in its own pixels, what it was called, and whether it can
 * be seen through. One that numbers make has these with it; its asset is no file but what they come to.
 */
export type SourcePicture = {
  asset: string;
  width: number;
  height: number;
  name: string;
  clear?: boolean;
  texture?: Texture;
};

/**
 * A rectangle on the picture about its middle (x, y), in px of the picture, turned clockwise in degrees. With `corners`
 * it is what these show of a plane that was photographed at an angle, made square-on with `width` × `height` px; its
 * middle is theirs then, and its turn is in them.
 */
export type Region = {
  x: number;
  y: number;
  width: number;
  height: number;
  turn: number;
  corners?: Corners;
};

/** The region somewhere else. */
export const movedRegion = (region: Region, by: Point): Region => ({
  ...region,
  x: region.x + by.x,
  y: region.y + by.y,
  ...(region.corners && { corners: region.corners.map((corner) => add(corner, by)) as unknown as Corners }),
});

/**
 * What is done to the colours, in this order: exposure in stops, the colour `neutral` made a grey, levels (what is
 * darker than `black` becomes `low`, what is lighter than `white` becomes `high`, 0 to 255, `middle` is the exponent
 * between them), first those of one channel, where it has its own; contrast and saturation from −1 to 1, all colour taken
 * out by `grey`, at last colours `alone`. Before all of it `even` (0 to 1) takes away a slow change of brightness over
 * the region.
 */
export type Tone = {
  on: boolean;
  even: number;
  exposure: number;
  neutral: Hex | null;
  black: number;
  middle: number;
  white: number;
  low: number;
  high: number;
  contrast: number;
  saturation: number;
  grey: boolean;
  channels?: Partial<Record<ToneChannel, ToneLevels>>;
  alone?: readonly ColourAlone[];
};

export const TONE_CHANNELS = ['red', 'green', 'blue'] as const;
export type ToneChannel = (typeof TONE_CHANNELS)[number];

/** ToneLevels of a channel, 0 to 255. */
export type ToneLevels = Pick<Tone, 'black' | 'middle' | 'white' | 'low' | 'high'>;
export const PLAIN_LEVELS: ToneLevels = { black: 0, middle: 1, white: 255, low: 0, high: 255 };

/**
 * What is done to one colour alone: to what lies up to `reach` degrees from its hue, less and less over the outer half,
 * and to greys not at all. Its hue is turned by `hue` degrees, its chroma and its lightness raised or lowered by a share
 * from −1 to 1, all in OKLCH.
 */
export type ColourAlone = { colour: Hex; reach: number; hue: number; chroma: number; light: number };

/**
 * How opposite edges are made to meet within a band of `band` px of the made picture, half of it at each side; beyond it
 * nothing is touched. `fade` blends what goes on beyond the region with what begins at its other edge and keeps the
 * contrast; `cut` looks for the line along which the two differ least, softened over `feather` px; `level` keeps all
 * detail and takes the difference in brightness and colour away; `grown` knows no band: it makes a unit `times` as large
 * from patches of the region, others for each `seed`.
 */
export type Join = {
  on: boolean;
  how: JoinKind;
  band: number;
  feather: number;
  times: number;
  seed: number;
};

/** Strokes on the unit that was made, over its edges too: each is data, none of them changes a picture. */
export type Retouch = { on: boolean; strokes: readonly RetouchStroke[] };

/**
 * A stroke on a unit, in px of what is made. `heal` and `clone` lay what lies `from` away over what they go over, `heal`
 * with its brightness and colour led over into what lies around; `keep` brings back what was there before the edges
 * were joined, `join` lays the joined edges over it again.
 */
export type RetouchStroke = BrushStroke &
  ({ does: 'heal' | 'clone'; from: Point } | { does: 'keep' | 'join' });

export const RETOUCH_KINDS = ['heal', 'clone', 'keep', 'join'] as const;
export type RetouchKind = (typeof RETOUCH_KINDS)[number];

/**
 * How what was made is told by a few colours, which become slots: `flat` gives each pixel the nearest of `colours`,
 * spots of less than `speck` px of the unit that of what lies around them; `blend` mixes the two colours between which
 * its lightness lies; `halftone` lays dots of the first of two colours on the other by a `screen`. The colours are in the
 * order of their lightness, dark first; each is what one slot stands for.
 */
export type Few = { on: boolean; how: FewKind; colours: Hex[]; speck: number; screen?: Screen };

/**
 * The unit resampled once to so many px across, its proportion kept: by Lanczos' kernel, which is sharp, or by Mitchell's,
 * which is softer and has no halo beside hard edges.
 */
export type PictureSize = { on: boolean; width: number; filter: SizeFilter };

export const SIZE_FILTERS = ['lanczos', 'mitchell'] as const;
export type SizeFilter = (typeof SIZE_FILTERS)[number];

export const FEW_KINDS = ['flat', 'blend', 'halftone'] as const;
export type FewKind = (typeof FEW_KINDS)[number];

/** The screen of a halftone: about so many cells along the unit's width, turned clockwise in degrees, as dots or as lines. */
export type Screen = { across: number; turn: number; form: 'round' | 'line' };
export const FRESH_SCREEN: Screen = { across: 48, turn: 45, form: 'round' };

export const JOIN_KINDS = ['fade', 'cut', 'level', 'grown'] as const;
export type JoinKind = (typeof JOIN_KINDS)[number];

/** How the units of a made picture are laid: each row along or each column down by `step` of the unit. */
export type PictureLay = { kind: 'straight' } | { kind: 'brick' | 'half-drop'; step: number };

export const PLAIN_TONE: Tone = {
  on: true,
  even: 0,
  exposure: 0,
  neutral: null,
  black: 0,
  middle: 1,
  white: 255,
  low: 0,
  high: 255,
  contrast: 0,
  saturation: 0,
  grey: false,
};

/** Ranges of the numbers of a pictured repeat. */
export const PICTURED_LIMITS = {
  /** Sides of a region, px of its picture. */
  region: { least: 8, most: 40_000 },
  band: { least: 2, most: 4000 },
  feather: { least: 0, most: 8 },
  times: { least: 2, most: 4 },
  seed: { least: 0, most: 9999 },
  exposure: { least: -4, most: 4 },
  middle: { least: 0.1, most: 10 },
  level: { least: 0, most: 255 },
  share: { least: -1, most: 1 },
  /** Colours that something is done to alone; how far one reaches, degrees of hue. */
  alone: 4,
  reach: { least: 5, most: 180 },
  few: { least: 2, most: 8 },
  screen: { least: 2, most: 2000 },
  heal: { least: 0, most: 200 },
  speck: { least: 0, most: 10_000 },
  /** Units from one's own that a stroke may reach; px about one healing stroke, and about all of them. */
  strokeUnits: 8,
  healed: 1.5e6,
  allHealed: 1e8,
  /** Px across that a unit is resampled to. */
  size: { least: 8, most: 16_384 },
  /** Pixels of what is made. */
  pixels: 40_000_000,
} as const;

/** A fresh start on a picture: a square in its middle, nothing done to it but that its edges are made to meet. */
export function freshPictured(source: SourcePicture): Pictured {
  const side = Math.max(1, Math.round(Math.min(source.width, source.height) * 0.6));
  return {
    source,
    region: { x: source.width / 2, y: source.height / 2, width: side, height: side, turn: 0 },
    symmetry: { on: false, group: 'p4mm' },
    tone: PLAIN_TONE,
    join: {
      on: true,
      how: 'cut',
      band: freshBand({ width: side, height: side }),
      feather: 4,
      times: 2,
      seed: 1,
    },
  };
}

/** The picture of a texture. */
export const texturePicture = (texture: Texture): SourcePicture => {
  const { kind, width, height } = texture;
  return { asset: textureAsset(texture), width, height, name: TEXTURES[kind].label, texture };
};

/** A repeat of a texture as its numbers make it: all of it, its edges left alone, since it repeats by itself. */
export function freshTextured(texture: Texture): Pictured {
  const fresh = freshPictured(texturePicture(texture));
  const { width, height } = texture;
  const { how, colours } = TEXTURES[texture.kind];
  return {
    ...fresh,
    region: { x: width / 2, y: height / 2, width, height, turn: 0 },
    join: { ...fresh.join, on: false },
    few: { on: true, how, colours: colours.map(({ grey }) => grey), speck: 0 },
  };
}

/** The slots of a texture, one for each of its greys, in the colours that it starts with or others. */
export const slotsOfTexture = (texture: Texture, colours?: readonly Hex[]): ColourSlot[] =>
  TEXTURES[texture.kind].colours.map(({ name, start }, index) => ({
    ...{ id: slotId(index), name },
    colour: colours?.[index] ?? start,
  }));

/** A band that suits a region: a sixth of its shorter side, whole px. */
export const freshBand = ({ width, height }: Size): number =>
  Math.max(2, 2 * Math.round(Math.min(width, height) / 12));

/** Whether a repeat is a texture as its numbers make it, taken whole. */
const isWhole = (pictured: Pictured): boolean =>
  pictured.source.texture !== undefined && !pictured.join.on && !pictured.symmetry.on;

/** How many pixels may be made: of what numbers make more, since nothing is held beside it. */
export const mostPixels = (pictured: Pictured): number =>
  isWhole(pictured) ? TEXTURE_SIDE.most ** 2 : PICTURED_LIMITS.pixels;

/** The group that a repeat is made in: a region as it is where symmetry is off. */
export const groupOf = ({ symmetry }: Pictured): PlaneGroup => (symmetry.on ? symmetry.group : 'p1');

/** Whether the unit is grown to more than the region. */
export const grows = ({ join, symmetry }: Pictured): boolean =>
  join.on && join.how === 'grown' && !symmetry.on;

/** The few colours that a repeat is told by, where it is. */
export const fewOf = ({ few }: Pictured): Few | null => (few?.on ? few : null);

/** The strokes on a repeat. */
export const strokesOf = ({ retouch }: Pictured): readonly RetouchStroke[] =>
  retouch?.on ? retouch.strokes : [];

/** The slots that a repeat has: one for each of its few colours, in their order. */
export const slotIdsOf = (pictured: Pictured): string[] =>
  fewOf(pictured)?.colours.map((_, index) => slotId(index)) ?? [];

const slotId = (index: number): string => `colour-${index + 1}`;
