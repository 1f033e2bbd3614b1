import Joi from 'joi';
import { LENGTH_UNITS } from '../core/num/length';
import { tidyName, tidyProse } from '../core/num/text';
import { LIMITS } from '../core/recipe/limits';

/** The parts that all schemas are made of. */
export type Range = { least: number; most: number };

export const between = (range: Range) => Joi.number().min(range.least).max(range.most);
export const finite = (most = 1e9) => Joi.number().min(-most).max(most);
export const id = () =>
  Joi.string()
    .min(1)
    .max(64)
    .pattern(/^[A-Za-z0-9_-]+$/, 'letters, digits, - and _');
/** Text that is kept as `tidy` has it, at most `most` characters. */
const tidied = (tidy: (text: string) => string, most: number) =>
  Joi.string()
    .custom((value: string, helpers) => {
      const text = tidy(value);
      return text === '' && value !== '' ? helpers.error('string.empty') : text;
    })
    .max(most);
/** A name in one line. */
export const line = (most: number) => tidied(tidyName, most);
/** A text of several lines; it may be empty. */
export const prose = (most: number) =>
  Joi.string()
    .allow('')
    .custom((value: string) => tidyProse(value))
    .max(most);
export const name = () => line(LIMITS.nameLength).min(1);
export const hex = () => Joi.string().pattern(/^#[0-9a-f]{6}$/, '#rrggbb');
export const measure = () => Joi.string().valid(...LENGTH_UNITS);
export const version = () => Joi.number().integer().min(0);
export const share = () => Joi.number().min(0).max(1);
export const one = (...kinds: string[]) =>
  Joi.string()
    .valid(...kinds)
    .required();

/** A tagged union: the value of `kind`, or of another `key`, chooses which of `options` must hold. */
export function tagged(options: Record<string, Joi.PartialSchemaMap>, key = 'kind'): Joi.AlternativesSchema {
  const switches = Object.entries(options).map(([kind, rest]) => ({
    is: kind,
    then: Joi.object({ [key]: one(kind), ...rest }),
  }));
  return Joi.alternatives()
    .conditional(Joi.ref(`.${key}`), {
      switch: switches,
      otherwise: Joi.object({ [key]: one(...Object.keys(options)) }).unknown(),
    })
    .required();
}

export const matrix = () =>
  Joi.object(
    Object.fromEntries(['a', 'b', 'c', 'd', 'e', 'f'].map((key) => [key, finite().required()])),
  ).required();
export const asset = () => Joi.string().hex().length(64);

/** Values by short names of their own. */
export const named = (value: Joi.Schema) =>
  Joi.object().pattern(Joi.string().max(20), value).max(24).required();
