import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { regionFor } from '../../core/lattice/fold';
import { toPx } from '../../core/num/length';
import { madeSize } from '../../core/recipe/made';
import {
  freshBand,
  freshTextured,
  groupOf,
  PLAIN_TONE,
  slotIdsOf,
  slotsOfTexture,
  type JoinKind,
  type Pictured,
  type PictureLay,
  type SourcePicture,
  type Tone,
} from '../../core/recipe/pictured';
import { RECIPE_VERSION, type PicturedRecipe } from '../../core/recipe/recipe';
import type { Hex } from '../../core/colour/parse';
import type { ColourSlot } from '../../core/colour/slots';
import { freshTexture, type Texture } from '../../core/recipe/texture';
import type { PlaneGroup } from '../../core/lattice/groups';
import { appRoot } from '../root';

/** The photographs of the demo: rendered by `npm run photos`, made up, and nobody's. */
export const PHOTOS = {
  pebbles: { file: 'slipway-pebbles.jpg', name: 'Slipway pebbles', width: 1200, height: 900 },
  wall: { file: 'harbour-wall.jpg', name: 'Harbour wall', width: 1100, height: 820 },
  thrift: { file: 'thrift.jpg', name: 'Thrift', width: 1100, height: 820 },
} as const;

export type PhotoName = keyof typeof PHOTOS;

export const photoBytes = (name: PhotoName): Buffer =>
  readFileSync(join(appRoot(), 'photos', PHOTOS[name].file));

type Plan = {
  name: string;
  description: string;
  photo: PhotoName;
  /** Middle and size on the photograph, px; the height follows where a symmetry sets it. */
  region: [x: number, y: number, width: number, height: number, turn?: number];
  group?: PlaneGroup;
  tone?: Partial<Tone>;
  join?: { how: JoinKind; band?: number };
  lay?: PictureLay;
  /** The few colours that tell it, each with what it shows instead. */
  few?: { found: Hex; name: string; shown: Hex }[];
  /** How wide a unit is, mm. */
  width: number;
};

const PLANS: Plan[] = [
  {
    name: 'Slipway Pebbles',
    description: 'Pebbles at the foot of the lido’s slipway, laid in half-drop.',
    photo: 'pebbles',
    region: [600, 450, 620, 620],
    tone: { contrast: 0.06, saturation: 0.08 },
    join: { how: 'cut', band: 150 },
    lay: { kind: 'half-drop', step: 0.5 },
    width: 130,
  },
  {
    name: 'Pebble Rosette',
    description: 'The same pebbles in eight mirrors.',
    photo: 'pebbles',
    region: [470, 380, 340, 340, 14],
    group: 'p4mm',
    tone: { black: 12, white: 240, saturation: 0.12 },
    width: 96,
  },
  {
    name: 'Pebble Star',
    description: 'Sixfold, from a handful of stones.',
    photo: 'pebbles',
    region: [760, 520, 300, 300, -22],
    group: 'p6mm',
    tone: { black: 10, white: 236 },
    width: 110,
  },
  {
    name: 'Harbour Wall',
    description: 'The old wall, its light made even, in courses.',
    photo: 'wall',
    region: [531, 410, 590, 574],
    tone: { even: 1, contrast: 0.08 },
    join: { how: 'cut', band: 60 },
    width: 240,
  },
  {
    name: 'Wet Slate',
    description: 'Pebbles without colour, dark, as after rain.',
    photo: 'pebbles',
    region: [640, 470, 520, 420],
    tone: { grey: true, exposure: -0.7, contrast: 0.25 },
    join: { how: 'fade', band: 96 },
    width: 90,
  },
  {
    name: 'Thrift Meadow',
    description: 'Thrift on the cliff path, as it grows.',
    photo: 'thrift',
    region: [520, 420, 620, 560],
    tone: { saturation: 0.1, middle: 1.12, even: 0.6 },
    join: { how: 'cut', band: 150 },
    lay: { kind: 'brick', step: 0.5 },
    width: 150,
  },
  {
    name: 'Thrift in Four Inks',
    description: 'The same meadow told by four colours, to be printed in any.',
    photo: 'thrift',
    region: [600, 400, 480, 480],
    join: { how: 'cut', band: 120 },
    few: [
      { found: '#2a3d20', name: 'Deep', shown: '#12394a' },
      { found: '#3b5a30', name: 'Grass', shown: '#1f6d74' },
      { found: '#5b7f45', name: 'Blade', shown: '#8cc0b4' },
      { found: '#c878a2', name: 'Flower', shown: '#f2b84b' },
    ],
    width: 120,
  },
];

/** Patterns from numbers: how large, mm, and their colours, dark first. */
const TEXTURE_PLANS: {
  name: string;
  description: string;
  texture: Texture;
  colours: readonly Hex[];
  width: number;
}[] = [
  {
    name: 'Turnstile Steel',
    description: 'Brushed steel of the lido’s turnstiles.',
    texture: { ...freshTexture('brushed', 1400), seed: 4 },
    colours: ['#59636a', '#dfe5e6'],
    width: 120,
  },
  {
    name: 'Pool Terrazzo',
    description: 'The floor of the changing rooms: tile chips in pale cement.',
    texture: {
      ...freshTexture('terrazzo', 1400),
      seed: 11,
      numbers: { chip: 92, filled: 0.8, gap: 0.24, small: 0.6 },
    },
    colours: ['#12394a', '#e2572f', '#2f93a8', '#f2b84b', '#f3efe6'],
    width: 150,
  },
  {
    name: 'Deckchair Linen',
    description: 'Unbleached linen, for labels and bags.',
    texture: { ...freshTexture('linen', 960), seed: 2 },
    colours: ['#8a7a5e', '#f4ecd9'],
    width: 60,
  },
];

/** The demo's patterns from pictures, given the photographs as they were stored. */
export const picturedPatterns = (
  assets: ReadonlyMap<PhotoName, string>,
): { name: string; description: string; recipe: PicturedRecipe; stock: boolean }[] =>
  [
    ...PLANS.map((plan) => ({ ...plan, recipe: recipeOf(plan, assets.get(plan.photo) ?? '') })),
    ...TEXTURE_PLANS.map((plan) => ({ ...plan, recipe: texturedRecipe(plan) })),
  ].map(({ name, description, recipe }) => ({ name, description, recipe, stock: false }));

const texturedRecipe = ({ texture, colours, width }: (typeof TEXTURE_PLANS)[number]): PicturedRecipe =>
  laid(freshTextured(texture), width, slotsOfTexture(texture, colours));

function recipeOf(
  { photo, region: [x, y, width, height, turn = 0], group, ...plan }: Plan,
  asset: string,
): PicturedRecipe {
  const { name, width: wide, height: high } = PHOTOS[photo];
  const source: SourcePicture = { asset, width: wide, height: high, name };
  const region = regionFor({ x, y, width, height, turn }, group ?? 'p1');
  const { how = 'cut', band = freshBand(region) } = plan.join ?? {};
  const pictured: Pictured = {
    source,
    region,
    symmetry: { on: group !== undefined, group: group ?? 'p4mm' },
    tone: { ...PLAIN_TONE, ...plan.tone },
    join: { on: true, how, band, feather: 4, times: 2, seed: 1 },
    ...(plan.few
      ? { few: { on: true, how: 'flat', colours: plan.few.map(({ found }) => found), speck: 24 } }
      : {}),
  };
  const ids = slotIdsOf(pictured);
  const slots = (plan.few ?? []).map(({ name: slot, shown }, index) => ({
    ...{ id: ids[index] ?? '', name: slot },
    colour: shown,
  }));
  const recipe = laid(pictured, plan.width, slots);
  return groupOf(pictured) === 'p1' && plan.lay ? { ...recipe, lay: plan.lay } : recipe;
}

/** A repeat laid straight, `width` mm wide, in the colours of its slots. */
function laid(pictured: Pictured, width: number, slots: ColourSlot[]): PicturedRecipe {
  const made = madeSize(pictured);
  const unitWidth = toPx(width, 'mm');
  return {
    kind: 'pictured',
    version: RECIPE_VERSION,
    measure: 'mm',
    pictured,
    lay: { kind: 'straight' },
    unit: { width: unitWidth, height: (unitWidth * made.height) / made.width },
    ground: { kind: 'clear' },
    slots,
  };
}
