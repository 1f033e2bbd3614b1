import type { Point } from '../geom/point';
import type { Size } from '../lattice/size';
import type { Camera, Standing } from './mockup';
import { cutSheet } from './objects';
import { placesOf } from './sheet';
import { cross3, dot3, far, minus, plus, times, turnedAbout, unitOf, type Space } from './space';

/** Degrees from the top of a picture to its bottom: that of a long lens, as objects are photographed. */
export const LENS_ANGLE = 24;
/** All of it fills so much of the picture. */
const FILLS = 0.86;

/** An upright box about all that stands there, mm. */
export type Around = { least: Space; most: Space };

/** Where a camera is and looks, mm; what is nearer than `near` or further than `far` is not drawn. */
export type CameraPlace = {
  eye: Space;
  middle: Space;
  up: Space;
  distance: number;
  near: number;
  far: number;
};

/** A place of an object where it stands. */
export const standingAt = (place: Space, { x, z, turn }: Pick<Standing, 'x' | 'z' | 'turn'>): Space =>
  plus(turnedAbout(place, turn), { x, y: 0, z });

/** The box about all that stands there; a small one about the middle where nothing does. */
export function aroundOf(objects: readonly Standing[]): Around {
  const places = objects.flatMap((one) => {
    const cut = cutSheet(one.object);
    return cut.ok ? placesOf(cut.sheet).map((place) => standingAt(place, one)) : [];
  });
  if (places.length === 0) return { least: { x: -50, y: 0, z: -50 }, most: { x: 50, y: 100, z: 50 } };
  const ends = (of: (place: Space) => number): [number, number] =>
    places.reduce<[number, number]>(
      ([least, most], place) => [Math.min(least, of(place)), Math.max(most, of(place))],
      [Infinity, -Infinity],
    );
  const [x, y, z] = [ends((one) => one.x), ends((one) => one.y), ends((one) => one.z)];
  return { least: { x: x[0], y: y[0], z: z[0] }, most: { x: x[1], y: y[1], z: z[1] } };
}

/** The camera for a picture of this form: all of it fits from everywhere at this height, so that what turns does not jump. */
export function cameraPlace(looks: Camera, { least, most }: Around, { width, height }: Size): CameraPlace {
  const middle = times(plus(least, most), 0.5);
  const own = minus(most, least);
  const [turn, raised] = [(looks.turn * Math.PI) / 180, (looks.raised * Math.PI) / 180];
  const half = Math.tan((LENS_ANGLE * Math.PI) / 360) * FILLS;
  const across = Math.hypot(own.x, own.z) / 2;
  const tall = (own.y / 2) * Math.cos(raised) + across * Math.abs(Math.sin(raised));
  const fits = Math.max(tall / half, across / (half * (width / height))) + across * 0.5;
  const distance = fits / looks.zoom;
  const towards: Space = {
    x: Math.sin(turn) * Math.cos(raised),
    y: Math.sin(raised),
    z: Math.cos(turn) * Math.cos(raised),
  };
  const length = far(own);
  return {
    eye: plus(middle, times(towards, distance)),
    middle,
    // Straight from above the front is what lies below in the picture.
    up:
      Math.abs(looks.raised) > 89.9 ? { x: -Math.sin(turn), y: 0, z: -Math.cos(turn) } : { x: 0, y: 1, z: 0 },
    distance,
    near: Math.max(distance * 0.02, distance - length * 1.6),
    far: distance + length * 4,
  };
}

/** Where places are seen on a picture, px from its upper left corner. */
export function projector(looks: Camera, around: Around, size: Size): (place: Space) => Point {
  const { eye, middle, up } = cameraPlace(looks, around, size);
  const ahead = unitOf(minus(middle, eye));
  const right = unitOf(cross3(ahead, up));
  const above = cross3(right, ahead);
  const scale = size.height / (2 * Math.tan((LENS_ANGLE * Math.PI) / 360));
  return (place) => {
    const from = minus(place, eye);
    const depth = dot3(from, ahead);
    return {
      x: size.width / 2 + (scale * dot3(from, right)) / depth + looks.x * size.height,
      y: size.height / 2 - (scale * dot3(from, above)) / depth + looks.y * size.height,
    };
  };
}
