import { isHex, type Hex } from '../colour/parse';
import type { Point } from '../geom/point';
import { checkStrokes } from '../recipe/stroke';
import type { Problem } from '../recipe/problem';
import { freshGrid, gridFault, type Photo, type SurfaceGrid } from './photo';
import { cutSheet, freshNumbers, OBJECTS, type ObjectKind, type ObjectSpec } from './objects';
import type { Material } from './object-entry';
import { placesOf } from './sheet';

/** How a mock-up is lit: from a window, evenly from both sides, or not at all, every colour as it is. */
export const LIGHT_SETTINGS = ['window', 'even', 'flat'] as const;
export type LightSetting = (typeof LIGHT_SETTINGS)[number];

/**
 * Where one looks from: turned to the right about what stands there and raised above it, degrees; so many times as large as
 * all of it fits; moved by shares of the picture's height, to the right and down.
 */
export type Camera = { turn: number; raised: number; zoom: number; x: number; y: number };

/** An object that stands in a mock-up, and what it shows. */
export type Standing = {
  id: string;
  name: string;
  object: ObjectSpec;
  material: Material;
  /** The colour of what is not printed on it; `null` is the usual one. */
  bare: Hex | null;
  /** Where it stands on the floor, mm to the right and to the front, and how it is turned, degrees. */
  x: number;
  z: number;
  turn: number;
  /** The layout that it shows. */
  layout: string | null;
  /** Where the page of another size lies on its sheet, mm from where it would lie by itself. */
  slid: Point;
  /** A colourway that the patterns of the layout show here, those that have it. */
  colourway: string | null;
  /** Where it lies on the photograph of its mock-up. */
  grid?: SurfaceGrid;
};

export type KeptView = { id: string; name: string; camera: Camera };

/** Objects as they stand, how they are lit and seen; or surfaces on a photograph. */
export type Mockup = {
  kind: 'objects' | 'photo';
  /** The photograph, and what lies in front of the surfaces on it. */
  photo?: Photo;
  objects: readonly Standing[];
  camera: Camera;
  light: LightSetting;
  /** The colour of floor and background; `null` is clear. */
  ground: Hex | null;
  views: readonly KeptView[];
};

export const MOCKUP_LIMITS = {
  surfaces: 6,
  objects: 12,
  views: 24,
  place: { least: -20_000, most: 20_000 },
  turn: { least: -360, most: 360 },
  raised: { least: -30, most: 90 },
  zoom: { least: 0.2, most: 40 },
  moved: { least: -5, most: 5 },
} as const;

/** Where one can look from by one key. */
export const LOOKS = [
  { name: 'Front', key: '1', turn: 0, raised: 12 },
  { name: 'Three-quarter', key: '2', turn: 32, raised: 22 },
  { name: 'Back', key: '3', turn: 180, raised: 12 },
  { name: 'Above', key: '4', turn: 32, raised: 62 },
] as const;

export const FRESH_CAMERA: Camera = { turn: 32, raised: 22, zoom: 1, x: 0, y: 0 };
export const STUDIO_GROUND: Hex = '#dcdad4';

export const freshMockup = (objects: readonly Standing[] = []): Mockup => ({
  kind: 'objects',
  objects,
  camera: FRESH_CAMERA,
  light: 'window',
  ground: STUDIO_GROUND,
  views: [],
});

/** An object as it starts: in the middle, facing forwards, showing nothing yet. */
export const freshStanding = (
  id: string,
  kind: ObjectKind,
  name: string = OBJECTS[kind].label,
): Standing => ({
  id,
  name,
  object: { kind, numbers: freshNumbers(kind) },
  material: OBJECTS[kind].material,
  bare: null,
  ...{ x: 0, z: 0, turn: 0 },
  layout: null,
  slid: { x: 0, y: 0 },
  colourway: null,
});

/** A mock-up on a photograph, with one surface in its middle. */
export const photoMockup = (photo: Photo, id: string): Mockup => ({
  ...freshMockup([{ ...freshStanding(id, 'board', 'Surface'), grid: freshGrid(photo) }]),
  kind: 'photo',
  photo,
  camera: { turn: 0, raised: 0, zoom: 1, x: 0, y: 0 },
  light: 'flat',
  ground: null,
});

/** How wide and deep an object is where it stands, mm from its own middle. */
export function footprint(object: ObjectSpec): { left: number; right: number; back: number; front: number } {
  const cut = cutSheet(object);
  if (!cut.ok) return { left: -50, right: 50, back: -50, front: 50 };
  const places = placesOf(cut.sheet);
  const [xs, zs] = [places.map(({ x }) => x), places.map(({ z }) => z)];
  return { left: Math.min(...xs), right: Math.max(...xs), back: Math.min(...zs), front: Math.max(...zs) };
}

/** Where another object has room to the right of all that stand there; in the middle where none does. */
export function roomBeside(objects: readonly Standing[], object: ObjectSpec): number {
  if (objects.length === 0) return 0;
  const right = Math.max(...objects.map((one) => one.x + reach(one.object)));
  const own = reach(object);
  return Math.round(right + own + Math.max(8, own * 0.35));
}

const reach = (object: ObjectSpec): number => {
  const { left, right, back, front } = footprint(object);
  return Math.max(-left, right, Math.hypot(back, front) / 2);
};

/** The same objects, their middle on the middle of the floor. */
export function centred(objects: readonly Standing[]): Standing[] {
  if (objects.length === 0) return [];
  const ends = objects.map((one) => {
    const { left, right } = footprint(one.object);
    return { left: one.x + left, right: one.x + right };
  });
  const middle =
    (Math.min(...ends.map(({ left }) => left)) + Math.max(...ends.map(({ right }) => right))) / 2;
  return objects.map((one) => ({ ...one, x: Math.round((one.x - middle) * 10) / 10 }));
}

/** What is wrong with a mock-up that its schema lets by: numbers that make no object, ids that are there twice, handles that show no surface. */
export function mockupFault({ kind, photo, objects, views, ground }: Mockup): string | null {
  const ids = [...objects, ...views].map(({ id }) => id);
  if (new Set(ids).size < ids.length) return 'Two things in a mock-up have the same id.';
  if ((kind === 'photo') !== (photo !== undefined))
    return 'A mock-up on a photograph has a photograph, and no other has one.';
  const problems: Problem[] = [];
  if (photo) checkStrokes(photo.strokes, 'photo', problems);
  if (problems[0]) return problems[0].message;
  for (const { name, object, grid } of objects) {
    const cut = cutSheet(object);
    if (!cut.ok) return `${name}: ${cut.message}`;
    if ((grid !== undefined) !== (photo !== undefined))
      return `${name}: what lies on a photograph has handles there, and nothing else has.`;
    const fault = grid ? gridFault(grid) : null;
    if (fault !== null) return `${name}: ${fault}`;
  }
  return ground === null || isHex(ground) ? null : 'The ground is no colour.';
}

/** The ids of the layouts that a mock-up shows, each once. */
export const layoutsIn = ({ objects }: Mockup): string[] => [
  ...new Set(objects.flatMap(({ layout }) => (layout === null ? [] : [layout]))),
];
