import { PerspectiveCamera, Vector3 } from 'three';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point } from '../geom/point';
import { aroundOf, cameraPlace, LENS_ANGLE, projector, standingAt } from './camera';
import { freshStanding, mockupFault, photoMockup, type Camera } from './mockup';
import {
  cornersOfGrid,
  freshGrid,
  gridFault,
  isPlane,
  onPhoto,
  planeAspect,
  regrid,
  type SurfaceGrid,
} from './photo';

const size = { width: 1600, height: 1200 };
const grid = (columns: number, points: [number, number][]): SurfaceGrid => ({
  ...{ columns, light: 1, gloss: 1 },
  points: points.map(([x, y]) => ({ x, y })),
});
const seenBy = (camera: Partial<Camera>): ((x: number, y: number, z: number) => Point) => {
  const look = { turn: 0, raised: 0, zoom: 1, x: 0, y: 0, ...camera };
  const seen = projector(look, { least: { x: -300, y: 0, z: -300 }, most: { x: 300, y: 500, z: 300 } }, size);
  return (x, y, z) => seen({ x, y, z });
};

describe('the camera', () => {
  it('sees places where a second library’s camera does (three, MIT)', () => {
    const around = { least: { x: -120, y: 0, z: -80 }, most: { x: 140, y: 210, z: 90 } };
    fc.assert(
      fc.property(
        fc.record({
          turn: fc.integer({ min: -180, max: 180 }),
          raised: fc.integer({ min: -30, max: 89 }),
          zoom: fc.double({ min: 0.4, max: 6, noNaN: true }),
        }),
        fc.tuple(...[200, 200, 200].map((most) => fc.double({ min: -most, max: most, noNaN: true }))),
        (looks, [x = 0, y = 0, z = 0]) => {
          const look: Camera = { ...looks, x: 0, y: 0 };
          const { eye, middle, up, near, far } = cameraPlace(look, around, size);
          const camera = new PerspectiveCamera(LENS_ANGLE, size.width / size.height, near, far);
          camera.position.set(eye.x, eye.y, eye.z);
          camera.up.set(up.x, up.y, up.z);
          camera.lookAt(middle.x, middle.y, middle.z);
          camera.updateMatrixWorld();
          const there = new Vector3(x, y, z);
          const depth = there.clone().applyMatrix4(camera.matrixWorldInverse).z;
          fc.pre(depth < -1);
          const seen = there.project(camera);
          const own = projector(look, around, size)({ x, y, z });
          expect(own.x).toBeCloseTo(((seen.x + 1) / 2) * size.width, 3);
          expect(own.y).toBeCloseTo(((1 - seen.y) / 2) * size.height, 3);
        },
      ),
    );
  });

  it('has all that stands there in the picture, from everywhere', () => {
    const objects = [
      { ...freshStanding('a', 'cup'), x: -120 },
      { ...freshStanding('b', 'bag'), x: 90, z: -60, turn: 33 },
    ];
    const around = aroundOf(objects);
    for (let turn = -180; turn < 180; turn += 15)
      for (const raised of [0, 12, 45, 80]) {
        const seen = projector({ turn, raised, zoom: 1, x: 0, y: 0 }, around, size);
        for (const x of [around.least.x, around.most.x])
          for (const y of [around.least.y, around.most.y])
            for (const z of [around.least.z, around.most.z]) {
              const at = seen({ x, y, z });
              expect(at.x > 0 && at.x < size.width && at.y > 0 && at.y < size.height).toBe(true);
            }
      }
    // The box is that of the objects as they stand: a turned one is told by its own corners.
    const corner = standingAt({ x: 120, y: 0, z: 50 }, objects[1]!);
    expect(around.most.x).toBeGreaterThan(corner.x - 1e-9);
  });
});

describe('a plane on a photograph', () => {
  const seen = seenBy({ turn: 31, raised: 18 });
  const wall = (u: number, v: number): Point => seen(-150 + 300 * u, 420 - 420 * v, 0);
  const plane: SurfaceGrid = {
    ...{ columns: 2, light: 1, gloss: 1 },
    points: [wall(0, 0), wall(1, 0), wall(0, 1), wall(1, 1)],
  };

  it('has each place where the camera sees it, by its four corners alone', () => {
    const at = onPhoto(plane);
    for (const [u, v] of [
      [0.5, 0.5],
      [0.1, 0.83],
      [0.77, 0.2],
      [1, 1],
    ] as const) {
      expect(at(u, v).x).toBeCloseTo(wall(u, v).x, 6);
      expect(at(u, v).y).toBeCloseTo(wall(u, v).y, 6);
    }
  });

  // Projective geometry: the cross-ratio of four places on a line is that of their pictures; 0, 1/4, 1/2, 1: (1/2 · 3/4) ∕ (1/4 · 1) = 3/2.
  it('keeps the cross-ratio of four places on a line', () => {
    const at = onPhoto(plane);
    const [a, b, c, d] = [0, 0.25, 0.5, 1].map((u) => at(u, 0.3)) as [Point, Point, Point, Point];
    const far = (one: Point, other: Point): number => Math.hypot(one.x - other.x, one.y - other.y);
    expect((far(a, c) * far(b, d)) / (far(b, c) * far(a, d))).toBeCloseTo(1.5, 6);
  });

  // Zhang and He 2007: the true proportions from four corners, where the middle of the picture is where the lens points.
  it('tells its true proportions by its corners', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 60 }),
        fc.integer({ min: 8, max: 50 }),
        fc.integer({ min: 80, max: 500 }),
        fc.integer({ min: 80, max: 480 }),
        (turn, raised, wide, high) => {
          const look = seenBy({ turn, raised });
          const put = (x: number, y: number): Point => look((x - 0.5) * wide, 20 + (1 - y) * high, 0);
          const aspect = planeAspect([put(0, 0), put(1, 0), put(1, 1), put(0, 1)], size);
          expect(aspect / (wide / high)).toBeCloseTo(1, 4);
        },
      ),
    );
  });

  it('is told by its sides where it is seen straight on', () => {
    const straight = grid(2, [
      [400, 300],
      [1000, 300],
      [400, 700],
      [1000, 700],
    ]);
    expect(planeAspect(cornersOfGrid(straight), size)).toBeCloseTo(1.5, 6);
  });

  it('is refused where its corners cross or dent', () => {
    expect(gridFault(plane)).toBeNull();
    expect(
      gridFault(
        grid(2, [
          [0, 0],
          [100, 0],
          [100, 100],
          [0, 100],
        ]),
      ),
    ).toContain('cross or dent');
    expect(
      gridFault(
        grid(2, [
          [0, 0],
          [100, 0],
          [0, 100],
          [20, 20],
        ]),
      ),
    ).toContain('cross or dent');
  });
});

describe('a curved grid on a photograph', () => {
  const round = (u: number, v: number): Point => {
    const about = (u - 0.5) * 2;
    return seenBy({ raised: 14 })(90 * Math.sin(about), 200 - 160 * v, 90 * Math.cos(about));
  };
  const of = (columns: number, rows: number): SurfaceGrid => ({
    ...{ columns, light: 1, gloss: 1 },
    points: Array.from({ length: columns * rows }, (_, at) =>
      round((at % columns) / (columns - 1), Math.floor(at / columns) / (rows - 1)),
    ),
  });

  it('goes through its handles, and near the round wall between them: nearer with more', () => {
    const worst = (columns: number): number => {
      const at = onPhoto(of(columns, 3));
      let far = 0;
      for (let step = 0; step <= 60; step += 1) {
        const [one, other] = [at(step / 60, 0.4), round(step / 60, 0.4)];
        far = Math.max(far, Math.hypot(one.x - other.x, one.y - other.y));
      }
      return far;
    };
    const five = of(5, 3);
    for (let column = 0; column < 5; column += 1) {
      const handle = five.points[5 + column]!;
      expect(onPhoto(five)(column / 4, 0.5).x).toBeCloseTo(handle.x, 9);
      expect(onPhoto(five)(column / 4, 0.5).y).toBeCloseTo(handle.y, 9);
    }
    expect(worst(7)).toBeLessThan(worst(5));
    expect(worst(5)).toBeLessThan(worst(3));
    // 180 mm are about 600 px here: seven handles are within one of them.
    expect(worst(7)).toBeLessThan(1.5);
  });

  it('is made of a plane that is bent, and says where it is folded over itself', () => {
    const bent = regrid(freshGrid(size), 4, 3);
    expect([bent.points.length, isPlane(bent), gridFault(bent)]).toEqual([12, false, null]);
    const at = onPhoto(bent);
    expect(at(0, 0)).toEqual(freshGrid(size).points[0]);
    const folded = bent.points.map((point, index) =>
      index === 5 ? { x: point.x + 700, y: point.y } : point,
    );
    expect(gridFault({ ...bent, points: folded })).toContain('folded over itself');
    expect(gridFault({ ...bent, points: bent.points.slice(1) })).toContain('two handles');
  });
});

describe('a mock-up on a photograph', () => {
  const photo = { asset: 'a'.repeat(64), ...size, strokes: [] };
  it('has handles on all that lies there, and nowhere else', () => {
    const body = photoMockup(photo, 's');
    expect(mockupFault(body)).toBeNull();
    const { photo: _photo, ...without } = body;
    expect(mockupFault(without)).toContain('has a photograph');
    const { grid: _grid, ...bare } = body.objects[0]!;
    expect(mockupFault({ ...body, objects: [bare] })).toContain('handles');
    const stroke = { size: 4000, softness: 0, strength: 1, mode: 'erase' as const };
    const points = Array.from({ length: 600 }, (_, at) => (at % 2) * 4000);
    const strokes = Array.from({ length: 150 }, () => ({ ...stroke, points }));
    expect(mockupFault({ ...body, photo: { ...photo, strokes } })).toContain('More is painted');
  });
});
