import Joi from 'joi';
import { PRESS_INTENTS } from '../core/colour/press';
import { PROOF_KEYS, PROOF_LIMITS, PROOF_MEDIA } from '../core/proof/limits';
import { LIMITS } from '../core/recipe/limits';
import { between, id, measure, name, one, prose, version } from './schema-parts';

const proofLimits = Joi.object(
  Object.fromEntries(PROOF_KEYS.map((key) => [key, between(PROOF_LIMITS[key]).required()])),
).required();
const proofSettings = Joi.object({
  medium: one(...PROOF_MEDIA).required(),
  print: proofLimits,
  screen: proofLimits,
});

const pressSettings = Joi.object({
  profile: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .allow(null)
    .required(),
  intent: one(...PRESS_INTENTS).required(),
  blackPoint: Joi.boolean().required(),
  inkLimit: between(LIMITS.inkLimit).required(),
});

/** What a PDF of layouts can be asked for. */
const pdfWishes = {
  bleed: Joi.boolean().default(false),
  /** Marks where the paper is cut; those by which plates are laid on each other, with a colour bar. */
  marks: Joi.boolean().default(false),
  register: Joi.boolean().default(false),
  exchange: Joi.boolean().default(false),
  fonts: Joi.boolean().default(false),
  layers: Joi.boolean().default(false),
  /** Pictures have no more px than this needs. */
  ppi: between(LIMITS.ppi).default(300),
};

/** Bodies that are about a project: how it is kept, proofed, printed and handed over. */
export const projectSchemas = {
  createProject: Joi.object({ name: name().required(), measure: measure() }),
  patchProject: Joi.object({
    base: version().required(),
    name: name(),
    measure: measure(),
    proof: proofSettings,
    press: pressSettings,
  }).or('name', 'measure', 'proof', 'press'),
  exportPdfQuery: Joi.object(pdfWishes),
  projectPdfQuery: Joi.object({
    /** Ids of layouts, in the order of their pages, with commas between. */
    layouts: Joi.string()
      .pattern(/^[\w-]+(,[\w-]+)*$/, 'ids of layouts with commas between')
      .max(LIMITS.pdfPages * 40)
      .required(),
    ...pdfWishes,
  }),
  fontQuery: Joi.object({ licence: prose(1000).required() }),
  lineQuery: Joi.object({
    text: Joi.string().max(LIMITS.textLength).allow('').required(),
    size: Joi.number().min(0.1).max(1e5).required(),
  }),
  pressQuery: Joi.object({
    intent: one(...PRESS_INTENTS)
      .optional()
      .default('relative'),
    blackPoint: Joi.boolean().default(true),
  }),
  platesQuery: Joi.object({ side: between(LIMITS.plateSide).integer().default(1200) }),
  parcel: Joi.object({
    layouts: Joi.array().items(id()).max(10_000).unique().required(),
    ...Object.fromEntries(
      ['pdf', 'png', 'svg', 'bleed', 'marks', 'register', 'patterns', 'palettes', 'spec'].map((key) => [
        key,
        Joi.boolean().required(),
      ]),
    ),
    exchange: Joi.boolean(),
    fonts: Joi.boolean(),
    layers: Joi.boolean(),
    ppi: between(LIMITS.ppi).required(),
  }),
};
