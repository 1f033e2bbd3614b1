import type { ValidationErrorItem } from 'joi';
import type { Problem } from '../core/recipe/problem';

/** Field names as people read them; others are named by their path. */
const LABELS: Record<string, string> = {
  name: 'The name',
  width: 'The width',
  height: 'The height',
  scaleX: 'The scale across',
  scaleY: 'The scale down',
  rotation: 'The rotation',
  opacity: 'The opacity',
  groundOpacity: 'The opacity of the ground',
  skew: 'The skew',
  step: 'The step',
  ids: 'The choice',
  ppi: 'The resolution (ppi)',
  sides: 'The number of sides',
  points: 'The number of points',
  inner: 'The inner radius of a star',
  measure: 'The unit of length',
  colour: 'The colour',
  hex: 'The colour',
  base: 'The version that the save started from (base)',
  fileName: 'The file name',
  svg: 'The SVG text',
  email: 'The address',
  password: 'The password',
  present: 'The present password',
};

/** What is never repeated in a sentence. */
const SECRET = new Set(['password', 'present']);

/** A Joi finding as a problem with one plain sentence that names the field and the limit. */
export function problemOf(item: ValidationErrorItem): Problem {
  const path = item.path.join('.');
  const key = String(item.path[item.path.length - 1] ?? '');
  const label = LABELS[key] ?? (path === '' ? 'The request' : `“${path}”`);
  return { code: item.type, path, message: `${label} ${predicate(item)}` };
}

function predicate(item: ValidationErrorItem): string {
  const context = item.context ?? {};
  const secret = SECRET.has(String(item.path[item.path.length - 1]));
  const given = secret ? '.' : `; ${shown(context.value)} was given.`;
  switch (item.type) {
    case 'any.required':
      return 'is missing.';
    case 'any.only':
      return `must be ${(context.valids as unknown[]).map((value) => `“${String(value)}”`).join(' or ')}${given}`;
    case 'object.unknown':
      return 'is not known here; leave it out.';
    case 'object.missing':
      return `needs at least one of ${(context.peers as string[]).join(', ')}.`;
    case 'string.empty':
      return 'must not be empty.';
    case 'string.trim':
      return `must not begin or end with a space${given}`;
    case 'string.min':
      return `must have at least ${context.limit} characters; ${String(context.value).length} were given.`;
    case 'string.max':
      return `may have at most ${context.limit} characters; ${String(context.value).length} were given.`;
    case 'string.pattern.name':
      return `must be written as ${context.name}${given}`;
    case 'array.max':
      return `may hold at most ${context.limit} entries; ${(context.value as unknown[]).length} were given.`;
    case 'number.min':
      return `must be at least ${context.limit}${given}`;
    case 'number.max':
      return `must be at most ${context.limit}${given}`;
    case 'number.greater':
      return `must be more than ${context.limit}${given}`;
    default:
      return `must be ${expected(item.type)}${given}`;
  }
}

function expected(type: string): string {
  const kind = type.split('.')[0];
  if (type === 'number.integer') return 'a whole number';
  if (kind === 'number') return 'a finite number';
  if (kind === 'string') return 'text';
  if (kind === 'boolean') return 'true or false';
  if (kind === 'array') return 'a list';
  return 'of the form that docs/api.md shows';
}

function shown(value: unknown): string {
  if (value === undefined) return 'nothing';
  const text = typeof value === 'string' ? `“${value}”` : (JSON.stringify(value) ?? String(value));
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
