import Joi from 'joi';
import { BLEND_MODES } from '../core/colour/blend';
import { FILL_VERSION } from '../core/recipe/fill';
import { LIMITS } from '../core/recipe/limits';
import { cutFromSchema } from './pictured-schemas';
import { asset, between, finite, hex, id, matrix, one, share, tagged, type Range } from './schema-parts';

/** Fills and masks as Joi schemas. */
const point = (range: Range) =>
  Joi.object({ x: between(range).required(), y: between(range).required() }).required();

const tintKeys = { colour: hex().required(), link: id() };
export const tint = Joi.object(tintKeys);

const look = Joi.object({
  map: Joi.array().items(tint).max(5).required(),
  shift: Joi.object({
    hue: Joi.number().min(-360).max(360).required(),
    lightness: Joi.number().min(-1).max(1).required(),
    chroma: Joi.number().min(0).max(4).required(),
  }).required(),
  tint: Joi.object({ ...tintKeys, amount: share().required() })
    .allow(null)
    .required(),
});

const at = () => Joi.number().min(-100).max(100).required();

const fillGradient = Joi.object({
  kind: one('linear', 'radial'),
  from: Joi.object({ x: at(), y: at() }).required(),
  to: Joi.object({ x: at(), y: at() }).required(),
  stops: Joi.array()
    .items(Joi.object({ ...tintKeys, at: share().required(), opacity: share().required() }))
    .min(2)
    .max(LIMITS.gradientStops)
    .required(),
});

export const maskStroke = Joi.object({
  mode: one('erase', 'restore'),
  size: Joi.number().greater(0).max(LIMITS.shapeSide.most).required(),
  softness: share().required(),
  strength: share().required(),
  points: Joi.array()
    .items(finite(1e6))
    .min(2)
    .max(2 * LIMITS.strokePoints)
    .required(),
});

const pixels = () => Joi.number().integer().min(1).max(100_000).required();

export const maskSchema = tagged({
  painted: { matrix: matrix(), strokes: Joi.array().items(maskStroke).max(LIMITS.maskStrokes).required() },
  gradient: { gradient: fillGradient.required() },
  picture: {
    matrix: matrix(),
    asset: asset().required(),
    width: pixels(),
    height: pixels(),
    inverted: Joi.boolean().required(),
  },
})
  .optional()
  .allow(null);

const layer = {
  version: Joi.number().valid(FILL_VERSION).required(),
  id: id().required(),
  opacity: share().required(),
  blend: one(...BLEND_MODES),
  shown: Joi.boolean().required(),
  mask: maskSchema.required(),
};

const place = {
  scaleX: between(LIMITS.scale).required(),
  scaleY: between(LIMITS.scale).required(),
  reflectX: Joi.boolean().required(),
  reflectY: Joi.boolean().required(),
  rotation: between(LIMITS.angle).required(),
  skew: between(LIMITS.skew).required(),
  offset: point(LIMITS.place),
  anchor: point({ least: -1e6, most: 1e6 }),
  anchored: one('shape', 'page'),
};

export const fillSchema = tagged({
  colour: { ...layer, ...tintKeys },
  gradient: { ...layer, gradient: fillGradient.required() },
  picture: {
    ...layer,
    ...place,
    asset: asset().required(),
    width: pixels(),
    height: pixels(),
    cut: cutFromSchema,
  },
  layout: { ...layer, ...place, layout: id().required() },
  pattern: {
    ...layer,
    ...place,
    pattern: id().required(),
    held: Joi.number().integer().min(1).allow(null).required(),
    ground: tagged({ own: {}, none: {}, colour: tintKeys }),
    groundOpacity: share().required(),
    colourway: id().allow(null).required(),
    colours: Joi.object().pattern(id(), tint).required(),
    look,
    wash: fillGradient.allow(null).required(),
  },
});
