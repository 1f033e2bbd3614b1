import { Vector3 } from 'three';
import type { LightSetting } from '$lib/core/mockup/mockup';
import { seededRandom } from '$lib/core/num/random';

/** One of the directions that light comes from (to the light), and how much of it, linear red, green, blue. */
export type Ray = { towards: Vector3; light: [number, number, number] };

/** So many directions stand for all light: the shadows of each are made once and looked up together. */
export const RAYS = 16;

type Lamp = {
  towards: Vector3;
  /** How far its rays part, as the radius of its disc at a distance of one. */
  wide: number;
  strength: number;
  tint: [number, number, number];
};

/**
 * What each setting has: a window to the left or soft boxes on both sides, and the sky of the room. Strengths are of white paper.
 * `first` is how far the directions of the first round are turned about, so that faces have the brightness that all rounds
 * together give them: while one turns nothing is darker than at rest.
 */
const SETTINGS: Record<Exclude<LightSetting, 'flat'>, { lamps: Lamp[]; sky: number; first: number }> = {
  window: {
    lamps: [{ towards: new Vector3(-0.62, 0.72, 0.62), wide: 0.2, strength: 0.82, tint: [1.03, 1, 0.95] }],
    sky: 0.62,
    first: 0.81,
  },
  even: {
    lamps: [
      { towards: new Vector3(-0.8, 0.75, 0.7), wide: 0.45, strength: 0.36, tint: [1, 1, 1] },
      { towards: new Vector3(0.8, 0.75, 0.7), wide: 0.45, strength: 0.36, tint: [1, 1, 1] },
    ],
    sky: 0.72,
    first: 0.88,
  },
};

/**
 * Sixteen directions of a setting; with another `round` others of the same light, so that pictures of many rounds
 * together have shadows without steps. The first round lies evenly.
 */
export function raysOf(setting: Exclude<LightSetting, 'flat'>, round: number): Ray[] {
  const { lamps, sky, first } = SETTINGS[setting];
  const random = seededRandom(round + 1);
  const half = RAYS / 2;
  const shift = round === 0 ? first : random();
  const own = Array.from({ length: half }, (_, index): Ray => {
    const count = half / lamps.length;
    const lamp = lamps[Math.floor(index / count)]!;
    const at = index % count;
    // Evenly over a disc: Vogel's spiral, each round turned and slid along.
    const radius = lamp.wide * Math.sqrt((at + (round === 0 ? 0.5 : random())) / count);
    const about = 2.39996 * at + 2 * Math.PI * shift;
    const to = lamp.towards.clone().normalize();
    const aside = new Vector3(0, 1, 0).cross(to).normalize();
    const up = to.clone().cross(aside);
    to.addScaledVector(aside, radius * Math.cos(about)).addScaledVector(up, radius * Math.sin(about));
    const share = lamp.strength / count;
    return { towards: to.normalize(), light: lamp.tint.map((tint) => tint * share) as Ray['light'] };
  });
  const around = Array.from({ length: half }, (_, at): Ray => {
    // By the cosine over the half above (Malley's way), from the horizon to the zenith.
    const share = (at + (round === 0 ? 0.5 : random())) / half;
    const radius = Math.sqrt(share) * 0.92;
    const about = 2.39996 * at + 2 * Math.PI * shift;
    const towards = new Vector3(
      radius * Math.cos(about),
      Math.sqrt(Math.max(0.02, 1 - radius * radius)),
      radius * Math.sin(about),
    );
    // Weighed so that an upright face gets about as much as one that lies.
    const light = (sky / half) * (0.75 / Math.max(0.35, towards.y));
    return { towards: towards.normalize(), light: [light, light, light * 1.01] };
  });
  return [...own, ...around];
}

/** What a floor gets from all rays where nothing stands in their way: its own colour is shown as it is there. */
export const onFloor = (rays: readonly Ray[]): [number, number, number] =>
  rays.reduce<[number, number, number]>(
    (sum, { towards, light }) => [
      sum[0] + light[0] * towards.y,
      sum[1] + light[1] * towards.y,
      sum[2] + light[2] * towards.y,
    ],
    [0, 0, 0],
  );
