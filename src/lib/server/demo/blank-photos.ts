import type { Box } from '../../core/geom/box';
import { aroundOf, projector, standingAt } from '../../core/mockup/camera';
import {
  freshMockup,
  freshStanding,
  photoMockup,
  type Mockup,
  type Standing,
} from '../../core/mockup/mockup';
import type { SurfaceGrid } from '../../core/mockup/photo';
import { cutSheet } from '../../core/mockup/objects';

/** Photographs of blank things: pictures of our own objects, and where what is printed lies on them. */
export type BlankPhoto = {
  file: string;
  name: string;
  width: number;
  height: number;
  scene: Mockup;
  /** The part of the first object's cut sheet that is a surface, mm, and its handles. */
  surface: { name: string; part: Box; columns: number; rows: number };
};

const scene = (objects: Standing[], ground: string, turn: number, raised: number): Mockup => ({
  ...freshMockup(objects),
  ground,
  camera: { turn, raised, zoom: 1, x: 0, y: 0 },
});

const mug = {
  ...freshStanding('mug', 'mug', 'Mug'),
  object: { kind: 'mug' as const, numbers: { top: 84, height: 96, gap: 0 } },
  turn: -118,
};
const GIRTH = Math.PI * 84;

export const BLANK_PHOTOS: readonly BlankPhoto[] = [
  {
    ...{ file: 'blank-mug.jpg', name: 'Mug on a table', width: 1600, height: 1200 },
    scene: scene([mug], '#c9bda9', 0, 16),
    // What faces the camera of the wall that goes all round: the mug is turned by 118°, so that its handle is at the right.
    surface: {
      name: 'Wall of the mug',
      part: { x: GIRTH * (0.5 + 118 / 360 - 0.19), y: 7, width: GIRTH * 0.38, height: 82 },
      columns: 5,
      rows: 3,
    },
  },
  {
    ...{ file: 'blank-frame.jpg', name: 'Frame on a floor', width: 1600, height: 1200 },
    scene: scene([freshStanding('frame', 'poster', 'Frame')], '#cdd2cf', -28, 10),
    surface: { name: 'Poster', part: { x: 0, y: 0, width: 500, height: 700 }, columns: 2, rows: 2 },
  },
  {
    ...{ file: 'blank-tote.jpg', name: 'Cotton bag', width: 1200, height: 1500 },
    scene: scene([freshStanding('tote', 'tote', 'Bag')], '#d8d2c6', 18, 9),
    surface: {
      name: 'Front of the bag',
      part: { x: 25, y: 45, width: 330, height: 350 },
      columns: 7,
      rows: 3,
    },
  },
];

/** A blank photograph as a mock-up whose surface shows nothing yet. */
export function blankMockup({ width, height, scene: of, surface }: BlankPhoto, asset: string): Mockup {
  const body = photoMockup({ asset, width, height, strokes: [] }, 'surface');
  const { part, columns, rows, name } = surface;
  const numbers = { width: Math.round(part.width * 10) / 10, height: Math.round(part.height * 10) / 10 };
  return {
    ...body,
    objects: body.objects.map((one) => ({
      ...one,
      name,
      object: { kind: 'board', numbers },
      grid: gridOf(of, surface, { width, height }, columns, rows),
    })),
  };
}

/** Where a part of the first object's sheet is seen on the picture of a scene. */
function gridOf(
  { objects, camera }: Mockup,
  { part }: BlankPhoto['surface'],
  size: { width: number; height: number },
  columns: number,
  rows: number,
): SurfaceGrid {
  const one = objects[0]!;
  const cut = cutSheet(one.object);
  const panel = cut.ok ? cut.sheet.panels.find(({ at }) => at !== null) : undefined;
  const seen = projector(camera, aroundOf(objects), size);
  const points = Array.from({ length: columns * rows }, (_, index) => {
    const sheet = {
      x: part.x + (part.width * (index % columns)) / (columns - 1),
      y: part.y + (part.height * Math.floor(index / columns)) / (rows - 1),
    };
    const { x, y } = seen(standingAt(panel!.at!(sheet), one));
    return { x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 };
  });
  return { columns, points, light: 1, gloss: 1 };
}
