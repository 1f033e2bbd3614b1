import Joi from 'joi';
import { PLANE_GROUPS } from '../core/lattice/groups';
import { CUT_CHANNELS, CUT_LIMITS } from '../core/recipe/cut-out';
import { LIMITS } from '../core/recipe/limits';
import { FEW_KINDS, JOIN_KINDS, PICTURED_LIMITS, SIZE_FILTERS, TONE_CHANNELS } from '../core/recipe/pictured';
import { STROKE_LIMITS } from '../core/recipe/stroke';
import { TEXTURE_KINDS } from '../core/recipe/texture';
import { asset, between, finite, hex, name, named, one, share, tagged } from './schema-parts';

/** What a repeat is made of a picture by, and how a subject is cut out of one, as Joi schemas. */
const numbers = (...keys: string[]) => Object.fromEntries(keys.map((key) => [key, finite().required()]));

const levels = Joi.object(numbers('black', 'middle', 'white', 'low', 'high'));

/** A stroke of a brush on a picture; what more it says comes with it. */
const stroked = (more: Joi.PartialSchemaMap) =>
  Joi.object({
    ...more,
    size: between(STROKE_LIMITS.size).required(),
    softness: share().required(),
    strength: share().required(),
    points: Joi.array()
      .items(finite(1e6))
      .min(2)
      .max(2 * STROKE_LIMITS.points)
      .required(),
  });

/** How a subject is cut out of its picture. */
export const cutOutSchema = Joi.object({
  channel: one(...CUT_CHANNELS),
  colour: hex().required(),
  inverted: Joi.boolean().required(),
  black: between(CUT_LIMITS.level).required(),
  middle: between(CUT_LIMITS.middle).required(),
  white: between(CUT_LIMITS.level).greater(Joi.ref('black')).required(),
  holes: Joi.boolean().required(),
  shift: between(CUT_LIMITS.shift).required(),
  feather: between(CUT_LIMITS.feather).required(),
  clean: Joi.boolean().required(),
  only: Joi.array()
    .items(Joi.object({ x: finite().required(), y: finite().required() }))
    .max(CUT_LIMITS.only)
    .required(),
  strokes: Joi.array()
    .items(stroked({ mode: one('erase', 'restore'), edges: Joi.boolean().required() }))
    .max(STROKE_LIMITS.strokes),
});

/** What a picture was cut out of. */
export const cutFromSchema = Joi.object({
  asset: asset().required(),
  width: Joi.number().integer().min(1).max(100_000).required(),
  height: Joi.number().integer().min(1).max(100_000).required(),
  x: Joi.number().integer().min(0).max(100_000).required(),
  y: Joi.number().integer().min(0).max(100_000).required(),
  by: cutOutSchema.required(),
});

/** What a recipe from a picture has beside what every recipe has. */
export const picturedParts = {
  unit: Joi.object(numbers('width', 'height')).required(),
  lay: tagged({
    straight: {},
    brick: { step: finite().required() },
    'half-drop': { step: finite().required() },
  }),
  pictured: Joi.object({
    source: Joi.object({
      asset: asset().required(),
      width: Joi.number().integer().min(1).max(LIMITS.pictureSide).required(),
      height: Joi.number().integer().min(1).max(LIMITS.pictureSide).required(),
      name: name().required(),
      clear: Joi.boolean(),
      texture: Joi.object({
        kind: one(...TEXTURE_KINDS),
        width: Joi.number().integer().required(),
        height: Joi.number().integer().required(),
        seed: Joi.number().integer().required(),
        numbers: named(finite()),
      }),
    }).required(),
    region: Joi.object({
      ...numbers('x', 'y', 'width', 'height', 'turn'),
      corners: Joi.array()
        .items(Joi.object(numbers('x', 'y')))
        .length(4),
    }).required(),
    symmetry: Joi.object({
      on: Joi.boolean().required(),
      group: one(...PLANE_GROUPS),
      heal: finite(),
    }).required(),
    tone: Joi.object({
      on: Joi.boolean().required(),
      grey: Joi.boolean().required(),
      neutral: hex().allow(null).required(),
      ...numbers('even', 'exposure', 'black', 'middle', 'white', 'low', 'high', 'contrast', 'saturation'),
      channels: Joi.object(Object.fromEntries(TONE_CHANNELS.map((channel) => [channel, levels]))),
      alone: Joi.array()
        .items(Joi.object({ colour: hex().required(), ...numbers('reach', 'hue', 'chroma', 'light') }))
        .max(PICTURED_LIMITS.alone),
    }).required(),
    join: Joi.object({
      on: Joi.boolean().required(),
      how: one(...JOIN_KINDS),
      ...numbers('band', 'feather'),
      times: Joi.number().integer().required(),
      seed: Joi.number().integer().required(),
    }).required(),
    retouch: Joi.object({
      on: Joi.boolean().required(),
      strokes: Joi.array()
        .items(
          Joi.alternatives(
            stroked({ does: one('heal', 'clone'), from: Joi.object(numbers('x', 'y')).required() }),
            stroked({ does: one('keep', 'join') }),
          ),
        )
        .max(STROKE_LIMITS.strokes)
        .required(),
    }),
    few: Joi.object({
      on: Joi.boolean().required(),
      how: one(...FEW_KINDS),
      screen: Joi.object({ ...numbers('across', 'turn'), form: one('round', 'line') }),
      colours: Joi.array().items(hex()).max(PICTURED_LIMITS.few.most).required(),
      speck: finite().required(),
    }),
    size: Joi.object({
      on: Joi.boolean().required(),
      width: finite().required(),
      filter: one(...SIZE_FILTERS),
    }),
  }).required(),
};
