import { describe, expect, it } from 'vitest';
import { arcOf } from './arc';
import { areaOf } from '../geom/boolean';
import { flatten, type Path } from '../geom/path';
import { polygonArea } from '../geom/polygon';
import {
  cutSheet,
  freshNumbers,
  numberOf,
  OBJECT_KINDS,
  OBJECTS,
  roundOf,
  type ObjectKind,
  type ObjectSpec,
} from './objects';
import type { ObjectNumbers, Round } from './object-entry';
import type { Periods } from '../lattice/span';
import { freshFill, type PatternFill } from '../recipe/fill';
import type { Shape } from '../recipe/layout';
import { closedRound, fillsRound, runsOn, wholeRound, type WholeRound } from './whole-round';
import { shapesOf } from './cut-shapes';
import { meshOf, type Mesh } from './mesh';
import { pageOnSheet } from './on-sheet';
import type { Panel, Sheet } from './sheet';
import { cross3, dot3, far, minus, unitOf, type Space } from './space';

function sheetOf(kind: ObjectKind, numbers: ObjectNumbers = {}): Sheet {
  const made = cutSheet({ kind, numbers: { ...freshNumbers(kind), ...numbers } });
  if (!made.ok) throw new Error(made.message);
  return made.sheet;
}
const area = (path: Path): number => areaOf({ path, rule: 'nonzero' });
const named = (sheet: Sheet, name: string): Panel => sheet.panels.find((panel) => panel.name === name)!;

describe('the sheet of a paper cup', () => {
  // The development of a right circular cone, from geometry: slant height L, radius R, angle 2πR ∕ L.
  it('is a part of a ring as the formula of a developed cone says', () => {
    const { panels, width, height } = sheetOf('cup', { top: 80, bottom: 56, height: 94 });
    const slant = Math.hypot(94, 12);
    const outer = (slant * 40) / 12;
    const angle = (2 * Math.PI * 40) / outer;
    expect(panels).toHaveLength(1);
    expect(width).toBeCloseTo(2 * outer * Math.sin(angle / 2), 2);
    expect(height).toBeCloseTo(outer - (outer - slant) * Math.cos(angle / 2), 2);
    // The lateral area of a truncated cone: π (R + r) s.
    expect(area(panels[0]!.outline) / (Math.PI * (40 + 28) * slant)).toBeCloseTo(1, 3);
  });

  it('has the rims as its arcs: the circumferences above and below', () => {
    const { panels } = sheetOf('cup', { top: 80, bottom: 56, height: 94 });
    const [ring] = flatten(panels[0]!.outline, 400);
    const lengths = ring!.points.map((point, index) => {
      const next = ring!.points[(index + 1) % ring!.points.length]!;
      return Math.hypot(next.x - point.x, next.y - point.y);
    });
    const around = lengths.reduce((sum, one) => sum + one, 0);
    expect(around).toBeCloseTo(Math.PI * (80 + 56) + 2 * Math.hypot(94, 12), 0);
  });

  it.each([
    ['narrower below', { top: 80, bottom: 56, height: 94 }],
    ['wider below', { top: 50, bottom: 90, height: 70 }],
    ['nearly flat', { top: 200, bottom: 40, height: 20 }],
    ['a cylinder', { top: 70, bottom: 70, height: 120 }],
  ])('keeps all lengths along the wall, and closes: %s', (_, numbers) => {
    const { panels } = sheetOf('cup', numbers);
    expect(isometric(panels[0]!)).toBeLessThan(1e-3);
    const [first] = panels[0]!.cells;
    const last = panels[0]!.cells.at(-1)!;
    const at = panels[0]!.at!;
    // The upper left corner of the sheet and its upper right one are one place of the rim, at the back.
    expect(far(minus(at(first![0]!), at(last[1]!)))).toBeLessThan(1e-6);
    expect(far(minus(at(first![3]!), at(last[2]!)))).toBeLessThan(1e-6);
    expect([at(first![0]!).y, at(first![3]!).y]).toEqual([
      expect.closeTo(numbers.height, 6),
      expect.closeTo(0, 6),
    ]);
    expect(at(first![0]!).z).toBeCloseTo(-numbers.top / 2, 6);
  });
});

/** The greatest share by which a short way on a panel is another length on the object. */
function isometric(panel: Panel): number {
  const at = panel.at!;
  let worst = 0;
  for (const cell of panel.cells) {
    const middle = {
      x: cell.reduce((sum, { x }) => sum + x, 0) / cell.length,
      y: cell.reduce((sum, { y }) => sum + y, 0) / cell.length,
    };
    for (let turn = 0; turn < 8; turn += 1) {
      const step = 0.01;
      const to = {
        x: middle.x + step * Math.cos((turn * Math.PI) / 4),
        y: middle.y + step * Math.sin((turn * Math.PI) / 4),
      };
      worst = Math.max(worst, Math.abs(far(minus(at(to), at(middle))) / step - 1));
    }
  }
  return worst;
}

/** The corners of each triangle of a mesh, and the directions that it says they face. */
function triangles({ places, normals, index }: Mesh): { corners: Space[]; out: Space[] }[] {
  const read = (from: readonly number[], at: number): Space => ({
    ...{ x: from[at * 3]!, y: from[at * 3 + 1]!, z: from[at * 3 + 2]! },
  });
  return Array.from({ length: index.length / 3 }, (_, at) => {
    const own = index.slice(at * 3, at * 3 + 3);
    return { corners: own.map((one) => read(places, one)), out: own.map((one) => read(normals, one)) };
  });
}
const facing = ([a, b, c]: readonly Space[]): Space => cross3(minus(b!, a!), minus(c!, a!));

describe.each(OBJECT_KINDS)('the sheet of a %s', (kind) => {
  const stretches = OBJECTS[kind].stretches?.share(numberOf({ kind, numbers: {} })) ?? 1e-3;
  it('keeps all lengths, lies on its page, and its parts are all of it', () => {
    const sheet = sheetOf(kind);
    for (const panel of sheet.panels) {
      for (const { points } of flatten(panel.outline))
        for (const { x, y } of points)
          expect(x > -1e-6 && y > -1e-6 && x < sheet.width + 1e-6 && y < sheet.height + 1e-6).toBe(true);
      if (panel.at) expect(isometric(panel)).toBeLessThan(stretches * 1.0001);
      const cells = panel.cells.reduce((sum, cell) => sum + polygonArea(cell), 0);
      expect(cells / area(panel.outline)).toBeCloseTo(1, 2);
    }
  });

  it('is as large in space as on its sheet, and faces outwards everywhere', () => {
    const sheet = sheetOf(kind);
    const { printed, blanks } = meshOf(sheet);
    const shown = sheet.panels.filter(({ at }) => at);
    const flat = shown.reduce((sum, { outline }) => sum + area(outline), 0);
    const spread = triangles(printed).reduce((sum, { corners }) => sum + far(facing(corners)) / 2, 0);
    expect(Math.abs(spread / flat - 1)).toBeLessThan(Math.max(0.002, stretches));
    for (const mesh of [printed, ...Object.values(blanks)])
      for (const { corners, out } of triangles(mesh)) {
        const own = facing(corners);
        if (far(own) < 1e-6) continue;
        for (const one of out) expect(dot3(unitOf(own), one)).toBeGreaterThan(0.5);
      }
  });

  it('is refused with a sentence where a number cannot be', () => {
    const [first] = OBJECTS[kind].numbers;
    for (const value of [NaN, -5, 1e9]) {
      const made = cutSheet({ kind, numbers: { ...freshNumbers(kind), [first!.key]: value } });
      expect(made.ok ? '' : made.message).toMatch(/lies between/);
    }
  });
});

describe('what is wrapped and folded', () => {
  it('has the circumference as its width, less what the handle needs', () => {
    expect(sheetOf('mug', { top: 82, gap: 30 }).width).toBeCloseTo(Math.PI * 82 - 30, 9);
    const label = sheetOf('label', { top: 74, overlap: 8 });
    expect(label.width).toBeCloseTo(Math.PI * 74 + 8, 9);
    expect(named(label, 'Label').cells).toHaveLength(96);
  });

  it('has the area of a box: 2 (wh + dh + wd), and its faces meet edge to edge', () => {
    const sheet = sheetOf('box', { width: 160, depth: 110, height: 80 });
    const faces = sheet.panels.filter(({ at }) => at);
    const sum = faces.reduce((total, { outline }) => total + area(outline), 0);
    expect(sum).toBeCloseTo(2 * (160 * 80 + 110 * 80 + 160 * 110), 3);
    // Every corner of the box belongs to three faces.
    const corners = faces.flatMap(({ at, cells }) => cells[0]!.map((point) => at!(point)));
    const counts = new Map<string, number>();
    for (const { x, y, z } of corners) {
      const name = [x, y, z].map((one) => Math.round(one * 1000) + 0).join();
      counts.set(name, (counts.get(name) ?? 0) + 1);
    }
    expect([...counts.values()]).toEqual([3, 3, 3, 3, 3, 3, 3, 3]);
  });

  it('has no room where handle or seal take all of it, and says so', () => {
    const mug = cutSheet({ kind: 'mug', numbers: { top: 82, height: 95, gap: 400 } });
    expect(mug.ok ? '' : mug.message).toContain('leave less free');
    const pouch = cutSheet({ kind: 'pouch', numbers: { width: 60, height: 60, seal: 40 } });
    expect(pouch.ok ? '' : pouch.message).toContain('make them narrower');
  });

  it('is laid on a page in px by its parts: rectangles where they are, whatever the numbers', () => {
    for (const width of [100, 160.1, 233.33]) {
      let count = 0;
      const sheet = sheetOf('box', { width });
      const shapes = shapesOf(sheet, () => `s${(count += 1)}`);
      expect(shapes.map(({ name }) => name)).toEqual(sheet.panels.map(({ name }) => name));
      expect(new Set(shapes.map(({ id }) => id)).size).toBe(shapes.length);
      expect(shapes.every(({ form }) => form.kind === 'rectangle')).toBe(true);
      expect(shapes.find(({ name }) => name === 'Front')!.width).toBeCloseTo((width * 96) / 25.4, 9);
    }
    const [wall] = shapesOf(sheetOf('cup'), () => 'wall');
    expect([wall!.form.kind, wall!.x, wall!.y]).toEqual(['path', expect.closeTo(0, 9), expect.closeTo(0, 9)]);
  });
});

describe('a pattern all round', () => {
  const laid = (object: ObjectSpec, fill: Partial<PatternFill> = {}): { shapes: Shape[]; round: Round } => {
    const sheet = sheetOf(object.kind, object.numbers);
    let count = 0;
    const shapes = shapesOf(sheet, () => `s${(count += 1)}`).map((shape) => ({
      ...shape,
      fills: [{ ...freshFill(`${shape.id}f`, 'p'), anchored: 'page' as const, ...fill }],
    }));
    return { shapes, round: roundOf(object)! };
  };
  const px = (mm: number): number => (mm * 96) / 25.4;
  const square = (mm: number): Periods => ({ a: { x: px(mm), y: 0 }, b: { x: 0, y: px(mm) } });

  it('meets a straight pattern on a cone at the angle of its development', () => {
    // 2πR ∕ L by hand: top 80, bottom 56, height 94: slant √(94² + 12²) = 94.763, L = 315.9, 45.59°.
    const { round, shapes } = laid({ kind: 'cup', numbers: { top: 80, bottom: 56, height: 94 } });
    expect(round.angle).toBeCloseTo(45.59, 1);
    const { fill } = fillsRound(shapes, round)[0]!;
    expect(wholeRound(round, fill, square(20))).toBeNull();
    expect(roundOf({ kind: 'cone', numbers: { top: 80, bottom: 56, height: 94 } })!.girth).toBeCloseTo(
      Math.PI * 68,
      9,
    );
  });

  it('closes at the nearest scale there is: no scale that closes is nearer', () => {
    for (const [girthBy, unit, scale] of [
      [74, 20, 0.486],
      [74, 33.3, 1.7],
      [61.5, 7, 1],
      [120, 250, 0.31],
    ] as const) {
      const { round, shapes } = laid(
        { kind: 'label', numbers: { top: girthBy } },
        { scaleX: scale, scaleY: scale },
      );
      const { fill } = fillsRound(shapes, round)[0]!;
      const found = wholeRound(round, fill, square(unit))!;
      // Brute force: every whole number of repeats, and how far its scale is from this one.
      const all = Array.from({ length: 400 }, (_, at) => round.girth / ((at + 1) * unit));
      const nearest = all.reduce((best, one) =>
        Math.abs(Math.log(one / scale)) < Math.abs(Math.log(best / scale)) ? one : best,
      );
      expect(found.scaleX).toBeCloseTo(nearest, 9);
      expect((found.count! * unit * found.scaleX) / round.girth).toBeCloseTo(1, 9);
      // The lattice's own condition: one way round is a vector of the lattice.
      expect(closesAt(found, square(unit), px(round.girth))).toBeLessThan(1e-6);
      const again = wholeRound(
        round,
        { ...fill, ...found, scaleX: found.scaleX, scaleY: found.scaleY },
        square(unit),
      )!;
      expect([again.cost, again.count]).toEqual([0, found.count]);
    }
  });

  it('is turned a little where its lattice has no period the way round', () => {
    const { round, shapes } = laid({ kind: 'label', numbers: { top: 74 } }, { rotation: 17 });
    const { fill } = fillsRound(shapes, round)[0]!;
    const found = wholeRound(round, fill, square(20))!;
    expect(found.count).toBeNull();
    expect(Math.abs(found.rotation - 17)).toBeLessThan(8);
    expect(closesAt(found, square(20), px(round.girth))).toBeLessThan(1e-6);
  });

  it('goes on from wall to wall of a box, as one, once it is closed', () => {
    const { round, shapes } = laid(
      { kind: 'box', numbers: { width: 150, depth: 90 } },
      { anchored: 'shape' },
    );
    const fills = fillsRound(shapes, round);
    expect(fills.map(({ shape }) => shape.name)).toEqual(['Front', 'Right side', 'Back', 'Left side']);
    expect([round.girth, runsOn(fills)]).toEqual([480, false]);
    const lie = fills[0]!.fill;
    const fit = wholeRound(round, lie, square(35))!;
    expect([fit.count, fit.scaleX]).toEqual([14, expect.closeTo(480 / (14 * 35), 9)]);
    const ids = new Set(fills.map(({ fill }) => fill.id));
    const closed = shapes.map((shape) => closedRound(shape, ids, lie, fit, true));
    const after = fillsRound(closed, round);
    expect([after.length, runsOn(after), wholeRound(round, after[0]!.fill, square(35))!.cost]).toEqual([
      4,
      true,
      0,
    ]);
    // Lid and flaps stay as they were.
    expect(
      closed.filter((shape, at) => shape.fills[0] !== shapes[at]!.fills[0]).map(({ name }) => name),
    ).toEqual(round.panels);
  });
});

/** How far one way round is from the nearest vector of a lattice that is scaled and turned, px. */
function closesAt(found: WholeRound, { a, b }: Periods, girth: number): number {
  const turn = (found.rotation * Math.PI) / 180;
  const laid = ({ x, y }: { x: number; y: number }): [number, number] => [
    found.scaleX * x * Math.cos(turn) - found.scaleY * y * Math.sin(turn),
    found.scaleX * x * Math.sin(turn) + found.scaleY * y * Math.cos(turn),
  ];
  const [[ax, ay], [bx, by]] = [laid(a), laid(b)];
  const whole = ax * by - ay * bx;
  const [i, j] = [Math.round((girth * by) / whole), Math.round((-girth * ay) / whole)];
  return Math.hypot(i * ax + j * bx - girth, i * ay + j * by);
}

describe('a wall that is developed for print', () => {
  it.each([
    ['narrower below', { top: 80, bottom: 56, height: 94 }],
    ['wider below', { top: 50, bottom: 90, height: 70 }],
    ['a cylinder', { top: 70, bottom: 70, height: 120 }],
  ])('has each place of the art where it is on the cup: %s', (_, numbers) => {
    const arc = arcOf({ kind: 'cone', numbers })!;
    const ring = sheetOf('cup', numbers);
    const art = sheetOf('cone', numbers);
    expect([arc.width, arc.height]).toEqual([ring.width, ring.height]);
    let count = 0;
    for (let x = 0; x <= 60; x += 1)
      for (let y = 0; y <= 40; y += 1) {
        const point = { x: (ring.width * x) / 60, y: (ring.height * y) / 40 };
        const from = arc.from(point);
        if (!from) continue;
        count += 1;
        expect(from.x > -1e-6 && from.x < art.width + 1e-6).toBe(true);
        const [printed, seen] = [ring.panels[0]!.at!(point), art.panels[0]!.at!(from)];
        expect(far(minus(printed, seen))).toBeLessThan(1e-6);
      }
    // It is the wall and nothing beyond it: as much of its page as the ring is.
    const whole = area(ring.panels[0]!.outline) / (ring.width * ring.height);
    expect(count / (61 * 41)).toBeGreaterThan(whole * 0.95);
    expect(count / (61 * 41)).toBeLessThan(whole * 1.06 + 0.03);
  });

  it('is only there for such a cup', () => {
    expect(arcOf({ kind: 'cup', numbers: {} })).toBeNull();
    expect(arcOf({ kind: 'cone', numbers: { top: -1 } })).toBeNull();
  });
});

describe('a page on a sheet', () => {
  it('is the sheet, or lies true to size in the middle of its front', () => {
    const box = sheetOf('box', { width: 160, depth: 110, height: 80, flap: 18 });
    expect(pageOnSheet(box, { width: box.width, height: box.height })).toEqual({
      ...{ at: { x: 0, y: 0 }, how: 'sheet', panel: 'Front' },
    });
    const { x, y } = named(box, 'Front').box!;
    expect(pageOnSheet(box, { width: 100, height: 40 })).toEqual({
      ...{ at: { x: x + 30, y: y + 20 }, how: 'within', panel: 'Front' },
    });
    const beyond = pageOnSheet(box, { width: 300, height: 40 });
    expect([beyond.how, beyond.at.x]).toEqual(['beyond', x - 70]);
  });
});
