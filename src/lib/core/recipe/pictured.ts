import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Hex } from '../colour/parse';
import { foldOf } from '../lattice/fold';
import type { PlaneGroup } from '../lattice/groups';
import type { Size } from '../lattice/size';

/**
 * A repeat made from a picture: steps that are data, each switched on and off. The picture itself is never changed;
 * what comes of the steps is made from them anew wherever it is missing.
 */
export type Pictured = {
  source: SourcePicture;
  region: Region;
  symmetry: { on: boolean; group: PlaneGroup };
  tone: Tone;
  join: Join;
};

/** The picture that a repeat is made from: an asset, its size in its own pixels, what it was called, and whether it can be seen through. */
export type SourcePicture = {
  asset: string;
  width: number;
  height: number;
  name: string;
  clear?: boolean;
};

/** A rectangle on the picture about its middle (x, y), in px of the picture, turned clockwise in degrees. */
export type Region = { x: number; y: number; width: number; height: number; turn: number };

/**
 * What is done to the colours, in this order: exposure in stops, the colour `neutral` made a grey, levels (what is
 * darker than `black` becomes `low`, what is lighter than `white` becomes `high`, 0 to 255, `middle` is the exponent
 * between them), contrast and saturation from −1 to 1, all colour taken out by `grey`. Before all of it `even` (0 to 1)
 * takes away a slow change of brightness over the region.
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
};

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

/** A band that suits a region: a sixth of its shorter side, whole px. */
export const freshBand = ({ width, height }: Size): number =>
  Math.max(2, 2 * Math.round(Math.min(width, height) / 12));

/** The group that a repeat is made in: a region as it is where symmetry is off. */
export const groupOf = ({ symmetry }: Pictured): PlaneGroup => (symmetry.on ? symmetry.group : 'p1');

/** Whether the unit is grown to more than the region. */
export const grows = ({ join, symmetry }: Pictured): boolean =>
  join.on && join.how === 'grown' && !symmetry.on;

/** The steps that a unit is made by; what it is used for, its size in the end and its ground are no part of them. */
export type MadeBy = { pictured: Pictured; lay: PictureLay };

/** How many px the unit that is made has, at `scale` px to one of the region's. */
export function madeSize(pictured: Pictured, scale = 1): Size {
  const { cell } = foldOf(groupOf(pictured), pictured.region);
  const times = grows(pictured) ? pictured.join.times : 1;
  return {
    width: times * Math.max(1, Math.round(cell.width * scale)),
    height: times * Math.max(1, Math.round(cell.height * scale)),
  };
}

/** Counts up when the same steps make other bytes than before. */
const ENGINE = 1;

/**
 * The name of the picture that steps make: the SHA-256 of the source, the steps that do something and the version of
 * what makes them, so that equal work has one name.
 */
export function madeAsset({ pictured, lay }: MadeBy): string {
  const { source, region, tone, join } = pictured;
  const group = groupOf(pictured);
  const joined = join.on && group === 'p1';
  const { on: _, ...numbers } = tone;
  const steps = [
    ENGINE,
    source.asset,
    [region.x, region.y, region.width, region.height, region.turn],
    group,
    tone.on ? Object.entries(numbers).sort(([one], [other]) => (one < other ? -1 : 1)) : null,
    joined ? [join.how, ...(grows(pictured) ? [join.times, join.seed] : [join.band, join.feather])] : null,
    joined && lay.kind !== 'straight' ? [lay.kind, lay.step] : null,
  ];
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(steps))));
}
