/** A place in space, mm: x to the right, y up, z towards whoever looks at the front. */
export type Space = { x: number; y: number; z: number };

export const minus = (one: Space, other: Space): Space => ({
  x: one.x - other.x,
  y: one.y - other.y,
  z: one.z - other.z,
});

export const far = ({ x, y, z }: Space): number => Math.hypot(x, y, z);

export const dot3 = (one: Space, other: Space): number => one.x * other.x + one.y * other.y + one.z * other.z;

export const cross3 = (one: Space, other: Space): Space => ({
  x: one.y * other.z - one.z * other.y,
  y: one.z * other.x - one.x * other.z,
  z: one.x * other.y - one.y * other.x,
});
