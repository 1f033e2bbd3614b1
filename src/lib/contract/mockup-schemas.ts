import Joi from 'joi';
import { LIGHT_SETTINGS, MOCKUP_LIMITS } from '../core/mockup/mockup';
import { MATERIALS } from '../core/mockup/object-entry';
import { OBJECT_KINDS } from '../core/mockup/objects';
import { between, finite, hex, id, name, one } from './schema-parts';

/** An object by its numbers; what they cannot be together is told by `cutSheet`. */
export const objectSchema = Joi.object({
  kind: one(...OBJECT_KINDS),
  numbers: Joi.object().pattern(Joi.string().max(20), finite()).max(12).required(),
});

const camera = Joi.object({
  turn: between(MOCKUP_LIMITS.turn).required(),
  raised: between(MOCKUP_LIMITS.raised).required(),
  zoom: between(MOCKUP_LIMITS.zoom).required(),
  x: between(MOCKUP_LIMITS.moved).required(),
  y: between(MOCKUP_LIMITS.moved).required(),
}).required();

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
});

export const mockupSchema = Joi.object({
  kind: one('objects'),
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
