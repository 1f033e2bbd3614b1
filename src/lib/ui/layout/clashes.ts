import type { LengthUnit } from '$lib/core/num/length';
import { fromPx } from '$lib/core/num/length';
import type { Fill } from '$lib/core/recipe/fill';
import type { Shape } from '$lib/core/recipe/layout';
import type { Clash } from '$lib/core/recipe/merge-layouts';
import type { LayoutDoc } from './doc';

/** A document with one's own value in the place of theirs; `null` where what it is about is gone. */
export function withClash(doc: LayoutDoc, { shape, path, mine }: Clash): LayoutDoc | null {
  if (shape === null) return { ...doc, [path[0] ?? 'name']: mine };
  const held = doc.shapes.find(({ id }) => id === shape);
  const next = held && (withAt(held, path, mine) as Shape | null);
  return next ? { ...doc, shapes: doc.shapes.map((one) => (one === held ? next : one)) } : null;
}

function withAt(whole: unknown, [key, ...rest]: readonly string[], value: unknown): unknown {
  if (key === undefined) return value;
  if (Array.isArray(whole)) {
    const list = whole as Fill[];
    const held = list.find(({ id }) => id === key);
    const next = held && withAt(held, rest, value);
    return next ? list.map((one) => (one === held ? next : one)) : null;
  }
  if (typeof whole !== 'object' || whole === null) return null;
  const next = withAt((whole as Record<string, unknown>)[key], rest, value);
  return next === null && rest.length > 0 ? null : { ...whole, [key]: next };
}

const WORDS: Readonly<Record<string, string>> = {
  x: 'place across',
  y: 'place down',
  width: 'width',
  height: 'height',
  rotation: 'turn',
  skew: 'skew',
  name: 'name',
  form: 'form',
  mask: 'mask',
  group: 'group',
  locked: 'lock',
  hidden: 'visibility',
  reflectX: 'reflection',
  reflectY: 'reflection',
  scaleX: 'scale across',
  scaleY: 'scale down',
  offset: 'offset',
  opacity: 'opacity',
  blend: 'blend',
  colour: 'colour',
  colours: 'colours',
  ground: 'ground',
  colourway: 'colourway',
  pattern: 'pattern',
  gradient: 'gradient',
  background: 'background',
  bleed: 'bleed',
  margin: 'safe margin',
  ppi: 'resolution',
  measure: 'unit of length',
  guides: 'guides',
  stroke: 'stroke',
  cap: 'ends',
  join: 'corners',
  dashes: 'dashes',
};

/** What a clash is about, in words: “scale across of a fill”. */
export function fieldWords({ path }: Pick<Clash, 'path'>): string {
  const key = path[path.length - 1] ?? '';
  const of = path.includes('fills') ? (path[0] === 'stroke' ? ' of a fill of its stroke' : ' of a fill') : '';
  const stroke = path[0] === 'stroke' && of === '' && path.length > 1 ? ' of its stroke' : '';
  return `${WORDS[key] ?? (of === '' ? key : 'kind')}${of}${stroke}`;
}

const LENGTHS = new Set(['x', 'y', 'width', 'height', 'bleed', 'margin']);
const round = (value: number): string => String(Math.round(value * 100) / 100);

/** A value as one reads it; `null` where it is nothing that a few letters say. */
export function valueWords({ path }: Pick<Clash, 'path'>, value: unknown, unit: LengthUnit): string | null {
  const key = path[path.length - 1] ?? '';
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'string') return value.length > 40 ? `${value.slice(0, 39)}…` : value;
  if (typeof value !== 'number') return null;
  if (LENGTHS.has(key)) return `${round(fromPx(value, unit))} ${unit}`;
  if (key === 'rotation' || key === 'skew') return `${round(value)}°`;
  if (key === 'opacity' || key.startsWith('scale')) return `${round(value * 100)} %`;
  return round(value);
}
