import Joi from 'joi';
import { PROOF_KEYS, PROOF_LIMITS, PROOF_MEDIA } from '../core/proof/limits';
import { LIMITS } from '../core/recipe/limits';
import { between, id, measure, name, one, version } from './schema-parts';

const proofLimits = Joi.object(
  Object.fromEntries(PROOF_KEYS.map((key) => [key, between(PROOF_LIMITS[key]).required()])),
).required();
const proofSettings = Joi.object({
  medium: one(...PROOF_MEDIA).required(),
  print: proofLimits,
  screen: proofLimits,
});

/** Bodies that are about a project: how it is kept, proofed and handed over. */
export const projectSchemas = {
  createProject: Joi.object({ name: name().required(), measure: measure() }),
  patchProject: Joi.object({
    base: version().required(),
    name: name(),
    measure: measure(),
    proof: proofSettings,
  }).or('name', 'measure', 'proof'),
  parcel: Joi.object({
    layouts: Joi.array().items(id()).max(10_000).unique().required(),
    ...Object.fromEntries(
      ['pdf', 'png', 'svg', 'bleed', 'marks', 'register', 'patterns', 'palettes', 'spec'].map((key) => [
        key,
        Joi.boolean().required(),
      ]),
    ),
    ppi: between(LIMITS.ppi).required(),
  }),
};
