/** A place in space, mm: x to the right, y up, z towards whoever looks at the front. */
export type Space = { x: number; y: number; z: number };

export const minus = (one: Space, other: Space): Space => ({
  x: one.x - other.x,
  y: one.y - other.y,
  z: one.z - other.z,
});

export const plus = (one: Space, other: Space): Space => ({
  x: one.x + other.x,
  y: one.y + other.y,
  z: one.z + other.z,
});

export const times = ({ x, y, z }: Space, by: number): Space => ({ x: x * by, y: y * by, z: z * by });

export const far = ({ x, y, z }: Space): number => Math.hypot(x, y, z);

/** The direction of a vector; upwards where it has none. */
export const unitOf = (one: Space): Space => {
  const length = far(one);
  return length > 0 ? times(one, 1 / length) : { x: 0, y: 1, z: 0 };
};

export const dot3 = (one: Space, other: Space): number => one.x * other.x + one.y * other.y + one.z * other.z;

export const cross3 = (one: Space, other: Space): Space => ({
  x: one.y * other.z - one.z * other.y,
  y: one.z * other.x - one.x * other.z,
  z: one.x * other.y - one.y * other.x,
});

/** Turned about the upright axis by degrees; positive turns the front to the right. */
export function turnedAbout({ x, y, z }: Space, degrees: number): Space {
  const [sin, cos] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  return { x: x * cos + z * sin, y, z: z * cos - x * sin };
}
