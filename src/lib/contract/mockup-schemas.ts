import Joi from 'joi';
import { LIGHT_SETTINGS, MOCKUP_LIMITS } from '../core/mockup/mockup';
import { MATERIALS } from '../core/mockup/object-entry';
import { OBJECT_KINDS } from '../core/mockup/objects';
import { GRID_SIDES } from '../core/mockup/photo';
import { LIMITS } from '../core/recipe/limits';
import { maskStroke } from './fill-schemas';
import { asset, between, finite, hex, id, name, one, share } from './schema-parts';

/** An object by its numbers; what they cannot be together is told by `cutSheet`. */
export const objectSchema = Joi.object({
  kind: one(...OBJECT_KINDS),
  numbers: Joi.object().pattern(Joi.string().max(20), finite()).max(12).required(),
});

/** Handles may lie a little beyond a photograph, px. */
const ON_PHOTO = { least: -20_000, most: 40_000 };

const camera = Joi.object({
  turn: between(MOCKUP_LIMITS.turn).required(),
  raised: between(MOCKUP_LIMITS.raised).required(),
  zoom: between(MOCKUP_LIMITS.zoom).required(),
  x: between(MOCKUP_LIMITS.moved).required(),
  y: between(MOCKUP_LIMITS.moved).required(),
}).required();

const place = Joi.object({ x: between(ON_PHOTO).required(), y: between(ON_PHOTO).required() });

const standing = Joi.object({
  id: id().required(),
  name: name().required(),
  object: objectSchema.required(),
  material: one(...MATERIALS),
  bare: hex().allow(null).required(),
  x: between(MOCKUP_LIMITS.place).required(),
  z: between(MOCKUP_LIMITS.place).required(),
  turn: between(MOCKUP_LIMITS.turn).required(),
  layout: id().allow(null).required(),
  slid: Joi.object({
    x: between(MOCKUP_LIMITS.place).required(),
    y: between(MOCKUP_LIMITS.place).required(),
  }).required(),
  colourway: id().allow(null).required(),
  grid: Joi.object({
    columns: Joi.number().integer().min(GRID_SIDES.least).max(GRID_SIDES.most).required(),
    points: Joi.array()
      .items(place)
      .min(4)
      .max(GRID_SIDES.most ** 2)
      .required(),
    light: share().required(),
    gloss: share().required(),
  }),
});

export const photoSchema = Joi.object({
  asset: asset().required(),
  width: Joi.number().integer().min(16).max(LIMITS.pictureSide).required(),
  height: Joi.number().integer().min(16).max(LIMITS.pictureSide).required(),
  strokes: Joi.array().items(maskStroke).max(LIMITS.maskStrokes).required(),
});

export const mockupSchema = Joi.object({
  kind: one('objects', 'photo'),
  photo: photoSchema,
  objects: Joi.array().items(standing).max(MOCKUP_LIMITS.objects).required(),
  camera,
  light: one(...LIGHT_SETTINGS),
  ground: hex().allow(null).required(),
  views: Joi.array()
    .items(Joi.object({ id: id().required(), name: name().required(), camera }))
    .max(MOCKUP_LIMITS.views)
    .required(),
})
  .required()
  .meta({ className: 'Mockup' });
