import Joi from 'joi';
import { LIBRARY_VERSION } from '../core/recipe/library';
import { LIMITS } from '../core/recipe/limits';
import { tint } from './fill-schemas';
import { recipeSchema } from './recipe-schemas';
import { hex, id, line, name, prose, share } from './schema-parts';

export const tag = () => line(LIMITS.tagLength).min(1);

export const patternCredit = Joi.object({
  author: prose(300).required(),
  source: prose(1000).required(),
  licence: prose(300).required(),
  attribution: Joi.boolean().required(),
});

export const entries = Joi.array()
  .items(
    Joi.object({
      id: id().required(),
      name: name().required(),
      hex: hex().required(),
      css: Joi.string().max(200).allow(null),
      gradient: Joi.array()
        .items(Joi.object({ at: share().required(), hex: hex().required(), link: id() }))
        .min(2)
        .max(LIMITS.gradientStops)
        .allow(null),
      ink: Joi.object({
        name: name().required(),
        tint: Joi.number().min(0.01).max(1).required(),
        overprint: Joi.boolean().required(),
      }).allow(null),
    }),
  )
  .max(LIMITS.paletteColours);

export const colourways = Joi.array().items(
  Joi.object({
    id: id().required(),
    name: name().required(),
    colours: Joi.object().pattern(id(), tint).required(),
  }),
);

/** What library files carry, checked like everything that comes in from outside. */
export const keptPatternSchema = Joi.object({
  version: Joi.number().valid(LIBRARY_VERSION).required(),
  id: id().required(),
  name: name().required(),
  description: prose(2000).required(),
  tags: Joi.array().items(tag()).max(LIMITS.tags).required(),
  collections: Joi.array().items(name()).max(100).required(),
  credit: patternCredit.required(),
  recipe: recipeSchema.required(),
  colourways: colourways.max(LIMITS.colourways).required(),
});

export const keptPaletteSchema = Joi.object({
  id: id().required(),
  name: name().required(),
  colours: entries.required(),
});
