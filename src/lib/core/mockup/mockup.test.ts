import { describe, expect, it } from 'vitest';
import { areaOf } from '../geom/boolean';
import { flatten, type Path } from '../geom/path';
import { polygonArea } from '../geom/polygon';
import {
  cutSheet,
  freshNumbers,
  OBJECT_KINDS,
  OBJECTS,
  type ObjectKind,
  type ObjectNumbers,
} from './objects';
import { shapesOf } from './cut-shapes';
import { seenFrom } from './seen';
import type { Panel, Sheet } from './sheet';
import { far, minus } from './space';

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

describe.each(OBJECT_KINDS)('the sheet of a %s', (kind) => {
  it('keeps all lengths, lies on its page, and is seen from every side', () => {
    const sheet = sheetOf(kind);
    for (const panel of sheet.panels) {
      for (const { points } of flatten(panel.outline))
        for (const { x, y } of points)
          expect(x > -1e-6 && y > -1e-6 && x < sheet.width + 1e-6 && y < sheet.height + 1e-6).toBe(true);
      if (panel.at) expect(isometric(panel)).toBeLessThan(1e-3);
      // Its cells are all of it.
      const cells = panel.cells.reduce((sum, cell) => sum + polygonArea(cell), 0);
      expect(cells / area(panel.outline)).toBeCloseTo(1, 2);
    }
    for (const turn of [0, 90, 180, 270])
      expect(seenFrom(sheet, { turn, raised: 0 }).some(({ inside }) => !inside)).toBe(true);
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

  it('is seen as large as it is: a box from the front is its width by its height', () => {
    const cells = seenFrom(sheetOf('box', { width: 160, depth: 110, height: 80 }), { turn: 0, raised: 0 });
    const points = cells.flatMap(({ corners }) => corners);
    const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(160, 6);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(80, 6);
    // The front lies before all else, and in the light.
    const front = cells.at(-1)!;
    expect([front.inside, front.light > 0.5]).toEqual([false, true]);
  });

  it('paints what lies behind first: a far handle, the inside, the floor, the outside, what is printed, a near handle', () => {
    const mug = sheetOf('mug');
    const kinds = (turn: number): string => {
      const cells = seenFrom(mug, { turn, raised: 40 });
      const kind = ({ from, inside, corners }: (typeof cells)[number]): string => {
        if (from.length > 0) return inside ? 'inside' : 'printed';
        return corners.length > 4 ? 'floor' : 'bare';
      };
      return cells
        .map(kind)
        .filter((one, index, all) => one !== all[index - 1])
        .join(' ');
    };
    // From the front the handle is behind all of it, from the back before all of it.
    expect(kinds(0)).toBe('bare inside floor printed');
    expect(kinds(180)).toMatch(/^(inside|bare).* floor bare printed bare$/);
    const label = seenFrom(sheetOf('label'), { turn: 10, raised: 20 });
    const lastBare = label.findLastIndex(({ from }) => from.length === 0);
    const printed = label.findIndex(({ from, inside }) => from.length > 0 && !inside);
    expect(printed).toBeGreaterThan(lastBare);
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
