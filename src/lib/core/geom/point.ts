/** A point or a vector; lengths in CSS px, x to the right, y down. */
export type Point = { x: number; y: number };

export const ORIGIN: Point = { x: 0, y: 0 };

/** a + b. */
export const add = (a: Point, b: Point): Point => ({ x: a.x + b.x, y: a.y + b.y });

/** a − b. */
export const subtract = (a: Point, b: Point): Point => ({ x: a.x - b.x, y: a.y - b.y });

/** a scaled by `factor`. */
export const times = (a: Point, factor: number): Point => ({ x: a.x * factor, y: a.y * factor });

/** The length of a vector. */
export const length = (a: Point): number => Math.hypot(a.x, a.y);

/** The signed area of the parallelogram that a and b span; positive where b lies clockwise of a on screen. */
export const cross = (a: Point, b: Point): number => a.x * b.y - a.y * b.x;

export const dot = (a: Point, b: Point): number => a.x * b.x + a.y * b.y;

/** The direction of a vector in degrees, clockwise on screen from the x axis, in (−180, 180]. */
export const directionDegrees = (a: Point): number => (Math.atan2(a.y, a.x) * 180) / Math.PI;
