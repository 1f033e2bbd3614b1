import type { Point } from '../geom/point';
import type { Blank, MadeOf } from './blanks';
import type { Panel, Sheet } from './sheet';
import { cross3, dot3, minus, plus, times, unitOf, type Space } from './space';

/**
 * Triangles of a surface: three numbers of `places` (mm) and `normals` to a corner, two of `sheet` (mm of the cut sheet, where
 * it is printed), three of `index` to a triangle, counter-clockwise as seen from outside.
 */
export type Mesh = { places: number[]; normals: number[]; sheet: number[]; index: number[] };

/** An object as triangles: what is printed, and the rest by what it is made of. */
export type ObjectMesh = { printed: Mesh; blanks: Partial<Record<MadeOf, Mesh>> };

/** Faces that meet at a smaller angle than this are one round surface, degrees. */
const SHARP = 40;
/** How far to each side the slope of a panel is looked for, mm. */
const NEAR = 0.05;

export function meshOf({ panels, blanks }: Sheet): ObjectMesh {
  const made = new Map<MadeOf, Blank[]>();
  for (const blank of blanks) made.set(blank.of, [...(made.get(blank.of) ?? []), blank]);
  return {
    printed: printedMesh(panels),
    blanks: Object.fromEntries([...made].map(([of, own]) => [of, blankMesh(own)])),
  };
}

/** The triangles of all panels, each of them smooth: their normals are those of the surface that the sheet follows. */
function printedMesh(panels: readonly Panel[]): Mesh {
  const mesh: Mesh = { places: [], normals: [], sheet: [], index: [] };
  for (const { at, cells } of panels) {
    if (!at) continue;
    const known = new Map<string, number>();
    const corner = (point: Point): number => {
      const key = `${point.x.toFixed(4)} ${point.y.toFixed(4)}`;
      const before = known.get(key);
      if (before !== undefined) return before;
      const number = mesh.sheet.length / 2;
      known.set(key, number);
      push(mesh, at(point), outOf(at, point));
      mesh.sheet.push(point.x, point.y);
      return number;
    };
    // The sheet's corners run clockwise, seen from outside.
    for (const cell of cells) fan(mesh, cell.map(corner).reverse());
  }
  return mesh;
}

/** The direction out of a panel at a point of its sheet. */
function outOf(at: (point: Point) => Space, { x, y }: Point): Space {
  const across = minus(at({ x: x + NEAR, y }), at({ x: x - NEAR, y }));
  const down = minus(at({ x, y: y + NEAR }), at({ x, y: y - NEAR }));
  return unitOf(cross3(down, across));
}

/** The triangles of bare parts, round where they meet at small angles. */
function blankMesh(blanks: readonly Blank[]): Mesh {
  const mesh: Mesh = { places: [], normals: [], sheet: [], index: [] };
  const faces = blanks.map(({ corners }) => faceOut(corners));
  const meeting = new Map<string, number[]>();
  const keyOf = ({ x, y, z }: Space): string => `${x.toFixed(2)} ${y.toFixed(2)} ${z.toFixed(2)}`;
  blanks.forEach(({ corners }, face) => {
    for (const corner of corners) {
      const key = keyOf(corner);
      const list = meeting.get(key);
      if (list) list.push(face);
      else meeting.set(key, [face]);
    }
  });
  const least = Math.cos((SHARP * Math.PI) / 180);
  blanks.forEach(({ corners }, face) => {
    const own = unitOf(faces[face]!);
    const numbers = corners.map((place) => {
      const round = (meeting.get(keyOf(place)) ?? [])
        .map((other) => faces[other]!)
        .filter((other) => dot3(unitOf(other), own) > least)
        .reduce(plus, { x: 0, y: 0, z: 0 });
      push(mesh, place, unitOf(round));
      return mesh.places.length / 3 - 1;
    });
    fan(mesh, numbers.reverse());
  });
  return mesh;
}

/** A face's direction, as long as its area, by the formula of Newell. Corners run clockwise, seen from outside. */
function faceOut(corners: readonly Space[]): Space {
  const sum = corners.reduce(
    (total, from, index) => plus(total, cross3(corners[(index + 1) % corners.length]!, from)),
    { x: 0, y: 0, z: 0 },
  );
  return times(sum, 0.5);
}

function push(mesh: Mesh, place: Space, normal: Space): void {
  mesh.places.push(place.x, place.y, place.z);
  mesh.normals.push(normal.x, normal.y, normal.z);
}

/** A convex outline, counter-clockwise, as triangles about its first corner. */
function fan({ index }: Mesh, corners: readonly number[]): void {
  for (let at = 2; at < corners.length; at += 1) index.push(corners[0]!, corners[at - 1]!, corners[at]!);
}
