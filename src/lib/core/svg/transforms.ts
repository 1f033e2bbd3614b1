import { IDENTITY, chain, multiply, rotation, scaling, translation, type Affine } from '../geom/affine';
import { lengthOf, PLAIN_MEASURES, type Measures, type Side } from './lengths';

/** A list of transforms is never this long; what is, counts as none. */
const LONGEST = 20_000;

/**
 * A transform list as a matrix: SVG's attribute (numbers) or CSS's property (lengths and angles with units), CSS
 * Transforms 1. A list that cannot be read counts as none, as the standards say.
 */
export function transformOf(text: string | undefined, measures: Measures = PLAIN_MEASURES): Affine {
  if (!text || text.length > LONGEST) return IDENTITY;
  const list = /\s*,?\s*([a-zA-Z]+)\s*\(([^()]*)\)/y;
  const steps: Affine[] = [];
  let end = 0;
  for (let match = list.exec(text); match; match = list.exec(text)) {
    const step = stepOf(match[1] ?? '', (match[2] ?? '').trim().split(/[\s,]+/), measures);
    if (!step) return IDENTITY;
    steps.push(step);
    end = list.lastIndex;
  }
  if (text.slice(end).trim() !== '') return IDENTITY;
  const matrix = chain(...steps);
  return Object.values(matrix).every(Number.isFinite) ? matrix : IDENTITY;
}

function stepOf(name: string, values: string[], measures: Measures): Affine | null {
  const length = (index: number, side: Side, otherwise = 0): number =>
    values[index] === undefined ? otherwise : lengthOf(values[index], measures, side, Number.NaN);
  const number = (index: number, otherwise = Number.NaN): number =>
    values[index] === undefined ? otherwise : Number(values[index]);
  const skew = (x: number, y: number): Affine => ({ ...IDENTITY, c: Math.tan(x), b: Math.tan(y) });
  switch (name) {
    case 'matrix':
      return values.length === 6
        ? { a: number(0), b: number(1), c: number(2), d: number(3), e: length(4, 'x'), f: length(5, 'y') }
        : null;
    case 'translate':
      return translation(length(0, 'x', Number.NaN), length(1, 'y'));
    case 'translateX':
      return translation(length(0, 'x', Number.NaN), 0);
    case 'translateY':
      return translation(0, length(0, 'y', Number.NaN));
    case 'scale':
      return scaling(number(0), number(1, number(0)));
    case 'scaleX':
      return scaling(number(0), 1);
    case 'scaleY':
      return scaling(1, number(0));
    case 'rotate': {
      const at = { x: length(1, 'x'), y: length(2, 'y') };
      return chain(translation(at.x, at.y), rotation(degrees(values[0])), translation(-at.x, -at.y));
    }
    case 'skewX':
      return skew(radians(values[0]), 0);
    case 'skewY':
      return skew(0, radians(values[0]));
    case 'skew':
      return skew(radians(values[0]), values[1] === undefined ? 0 : radians(values[1]));
    default:
      return null;
  }
}

const TURNS: Record<string, number> = { deg: 1, '': 1, grad: 0.9, rad: 180 / Math.PI, turn: 360 };

function degrees(text: string | undefined): number {
  const match = /^([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)([a-z]*)$/i.exec(text?.slice(0, 60) ?? '');
  const unit = TURNS[match?.[2]?.toLowerCase() ?? ''];
  return match && unit !== undefined ? Number(match[1]) * unit : Number.NaN;
}

const radians = (text: string | undefined): number => (degrees(text) * Math.PI) / 180;

const KEYWORDS: Record<string, string> = {
  left: '0%',
  top: '0%',
  center: '50%',
  right: '100%',
  bottom: '100%',
};

/** The transform of an element with its `transform-origin`, which is taken from the viewport's corner. */
export function ownTransform(properties: Readonly<Record<string, string>>, measures: Measures): Affine {
  const matrix = transformOf(properties.transform, measures);
  const origin = properties['transform-origin'];
  if (!origin || matrix === IDENTITY) return matrix;
  const [x = '0', y = '50%'] = origin
    .trim()
    .split(/\s+/)
    .map((part) => KEYWORDS[part] ?? part);
  const at = { x: lengthOf(x, measures, 'x'), y: lengthOf(y, measures, 'y') };
  return multiply(translation(at.x, at.y), multiply(matrix, translation(-at.x, -at.y)));
}
