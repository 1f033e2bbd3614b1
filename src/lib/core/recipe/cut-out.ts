import type { Hex } from '../colour/parse';
import type { Point } from '../geom/point';
import type { MaskStroke } from './mask';

/** What parts a subject from what lies behind it: a channel, its lightness, or how far its colour is from another. */
export const CUT_CHANNELS = ['red', 'green', 'blue', 'light', 'colour'] as const;
export type CutChannel = (typeof CUT_CHANNELS)[number];

/**
 * How a subject is cut out of its picture. A channel of it (0 to 255; of `colour` the distance from that colour) becomes
 * the matte: what is darker than `black` is left out, what is lighter than `white` stays whole, `middle` is the exponent
 * between them; `inverted` the other way round. `holes` within it are filled, its edge is moved outward by `shift` px and
 * softened over `feather` px. `clean` gives the edge the colour of the subject instead of a mixture. `only` are places, px
 * of the picture: where there are any, only the pieces that lie under one of them stay. `strokes` are painted on the
 * matte before its holes are filled, in px of the picture.
 */
export type CutOut = {
  channel: CutChannel;
  colour: Hex;
  inverted: boolean;
  black: number;
  middle: number;
  white: number;
  holes: boolean;
  shift: number;
  feather: number;
  clean: boolean;
  only: Point[];
  strokes?: CutStroke[];
};

/**
 * A stroke on a matte, which takes away or gives back. With `edges` it pushes light and dark apart instead, each pixel to
 * twice as far from what the stroke is against: what is wholly left out stays so under a stroke that gives back, so that
 * it does not run over the edge of a subject.
 */
export type CutStroke = MaskStroke & { edges: boolean };

/** What a picture was cut out of, how, and where its upper left corner lay in it, px. */
export type CutFrom = { asset: string; width: number; height: number; by: CutOut; x: number; y: number };

/** Ranges of the numbers of a cut-out. */
export const CUT_LIMITS = {
  level: { least: 0, most: 255 },
  middle: { least: 0.1, most: 10 },
  shift: { least: -40, most: 40 },
  feather: { least: 0, most: 40 },
  /** Pieces that are kept alone. */
  only: 200,
} as const;

export const FRESH_CUT: CutOut = {
  channel: 'light',
  colour: '#ffffff',
  inverted: false,
  black: 100,
  middle: 1,
  white: 155,
  holes: false,
  shift: 0,
  feather: 1,
  clean: true,
  only: [],
};
