import { clamp } from '../num/tolerance';
import type { Box } from './box';
import type { Point } from './point';

/**
 * The convention, used everywhere: column vectors, SVG's own matrix(a b c d e f), x to the right, y down,
 * positive angles turn clockwise on the screen.
 *
 *     ⎡ x' ⎤   ⎡ a  c  e ⎤ ⎡ x ⎤
 *     ⎢ y' ⎥ = ⎢ b  d  f ⎥ ⎢ y ⎥        multiply(m, n) applies n first, then m.
 *     ⎣ 1  ⎦   ⎣ 0  0  1 ⎦ ⎣ 1 ⎦
 */
export type Affine = { a: number; b: number; c: number; d: number; e: number; f: number };

export const IDENTITY: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** True for the matrix that changes nothing. */
export const isIdentity = (m: Affine): boolean =>
  m.a === 1 && m.b === 0 && m.c === 0 && m.d === 1 && m.e === 0 && m.f === 0;

/** The matrix that applies `n` first and then `m`. */
export function multiply(m: Affine, n: Affine): Affine {
  return {
    a: m.a * n.a + m.c * n.b,
    b: m.b * n.a + m.d * n.b,
    c: m.a * n.c + m.c * n.d,
    d: m.b * n.c + m.d * n.d,
    e: m.a * n.e + m.c * n.f + m.e,
    f: m.b * n.e + m.d * n.f + m.f,
  };
}

/** Several matrices in reading order: the last one is applied first. */
export function chain(...matrices: Affine[]): Affine {
  return matrices.reduce(multiply, IDENTITY);
}

export const translation = (x: number, y: number): Affine => ({ a: 1, b: 0, c: 0, d: 1, e: x, f: y });

export const scaling = (x: number, y = x): Affine => ({ a: x, b: 0, c: 0, d: y, e: 0, f: 0 });

/** A turn by `degrees`, clockwise on the screen; multiples of 90° are exact. */
export function rotation(degrees: number): Affine {
  const { cos, sin } = cosSin(degrees);
  return { a: cos, b: sin, c: -sin, d: cos, e: 0, f: 0 };
}

/** SVG's skewX: x' = x + y·tan(degrees). */
export function skewX(degrees: number): Affine {
  return { a: 1, b: 0, c: Math.tan((degrees * Math.PI) / 180), d: 1, e: 0, f: 0 };
}

/** `matrix` applied about `centre` instead of the origin. */
export function about(centre: Point, matrix: Affine): Affine {
  return chain(translation(centre.x, centre.y), matrix, translation(-centre.x, -centre.y));
}

export const determinant = (m: Affine): number => m.a * m.d - m.b * m.c;

/** The inverse of a matrix, or `null` where it has none (its determinant is 0 or not finite). */
export function invert(m: Affine): Affine | null {
  const det = determinant(m);
  if (!Number.isFinite(det) || Math.abs(det) < 1e-300) return null;
  return {
    a: m.d / det,
    b: -m.b / det,
    c: -m.c / det,
    d: m.a / det,
    e: (m.c * m.f - m.d * m.e) / det,
    f: (m.b * m.e - m.a * m.f) / det,
  };
}

/** A point through a matrix. */
export const apply = (m: Affine, p: Point): Point => ({
  x: m.a * p.x + m.c * p.y + m.e,
  y: m.b * p.x + m.d * p.y + m.f,
});

/** A vector through a matrix: without its translation. */
export const applyVector = (m: Affine, p: Point): Point => ({
  x: m.a * p.x + m.c * p.y,
  y: m.b * p.x + m.d * p.y,
});

/** The smallest upright box around `box` after `m`. */
export function applyBox(m: Affine, box: Box): Box {
  const corners = [
    apply(m, { x: box.x, y: box.y }),
    apply(m, { x: box.x + box.width, y: box.y }),
    apply(m, { x: box.x, y: box.y + box.height }),
    apply(m, { x: box.x + box.width, y: box.y + box.height }),
  ];
  const xs = corners.map((corner) => corner.x);
  const ys = corners.map((corner) => corner.y);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

/** A linear map taken apart as rotation · skewX · scale, the order in which a fill's numbers are applied. */
export type Parts = { rotation: number; skew: number; scaleX: number; scaleY: number };

/** rotation(°) · skewX(°) · scale → matrix without translation. Inverse of {@link decompose}. */
export function compose(parts: Parts): Affine {
  return chain(rotation(parts.rotation), skewX(parts.skew), scaling(parts.scaleX, parts.scaleY));
}

/**
 * Takes the linear part of a matrix apart (QR decomposition by one Givens rotation). Scale across is positive;
 * a reflection shows as a negative scale down. `null` for a singular matrix.
 */
export function decompose(m: Affine): Parts | null {
  const det = determinant(m);
  const across = Math.hypot(m.a, m.b);
  if (!(across > 0) || Math.abs(det) < 1e-300 || !Number.isFinite(det)) return null;
  const scaleY = det / across;
  const shear = (m.a * m.c + m.b * m.d) / det;
  return {
    rotation: (Math.atan2(m.b, m.a) * 180) / Math.PI,
    skew: (Math.atan(shear) * 180) / Math.PI,
    scaleX: across,
    scaleY,
  };
}

function cosSin(degrees: number): { cos: number; sin: number } {
  const quarter = (((degrees % 360) + 360) % 360) / 90;
  if (Number.isInteger(quarter)) {
    return { cos: [1, 0, -1, 0][quarter] ?? 1, sin: [0, 1, 0, -1][quarter] ?? 0 };
  }
  const radians = (degrees * Math.PI) / 180;
  return { cos: clamp(Math.cos(radians), -1, 1), sin: clamp(Math.sin(radians), -1, 1) };
}

/** The factor by which a matrix enlarges lengths, as the root of its area factor. */
export const meanScale = ({ a, b, c, d }: Affine): number => Math.sqrt(Math.abs(a * d - b * c));

/** How much a map stretches along the axis that it stretches most: the larger of its two columns. */
export const longestScale = ({ a, b, c, d }: Affine): number => Math.max(Math.hypot(a, b), Math.hypot(c, d));
