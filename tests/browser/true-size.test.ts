import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pathBox } from '../../src/lib/core/geom/path';
import type { Point } from '../../src/lib/core/geom/point';
import { aroundOf, projector, standingAt } from '../../src/lib/core/mockup/camera';
import { shapesOf } from '../../src/lib/core/mockup/cut-shapes';
import {
  freshMockup,
  freshStanding,
  type Camera,
  type Mockup,
  type Standing,
} from '../../src/lib/core/mockup/mockup';
import { cutSheet, OBJECT_KINDS, type ObjectKind } from '../../src/lib/core/mockup/objects';
import type { Panel, Sheet } from '../../src/lib/core/mockup/sheet';
import { cross3, minus, unitOf, type Space } from '../../src/lib/core/mockup/space';
import { toPx } from '../../src/lib/core/num/length';
import { freshFill } from '../../src/lib/core/recipe/fill';
import { must, publishedPattern, unique } from '../support/api';
import { openBrowser, still, visit, type Session } from '../support/browser';
import { block, place, recipe } from '../support/recipes';
import { until } from '../support/until';

const CELL = 10;
/** So many px of the picture to a mm; fewer where furniture or folds let one come no nearer. */
const PX: Partial<Record<ObjectKind, number>> = { wall: 1.6, cloth: 3 };
const USUAL_PX = 7;
/** So many cells to each side of the middle one are looked at. */
const REACH = 2;

let session: Session;
let page: Session['page'];
let project: { id: string };
let checker = '';
/** The canvas of a mock-up, as large as the window lets it be. */
let size: { width: number; height: number };
const makeMockup = async (body: Mockup): Promise<string> => {
  const path = `/projects/${project.id}/mock-ups`;
  return (await must<{ id: string }>('POST', path, { name: unique('Seen'), body })).id;
};
const open = async (id: string) => {
  await visit(page, `/projects/${project.id}/mock-ups/${id}`);
  return (await page.waitForSelector('canvas[data-drawn]'))!;
};
beforeAll(async () => {
  // As small as five cells to each side let it be: every px is drawn many times over.
  session = await openBrowser(1000, 640);
  ({ page } = session);
  project = await must('POST', '/projects', { name: unique('True size') });
  const mm = (value: number): number => toPx(value, 'mm');
  checker = await publishedPattern(
    recipe({
      unit: { width: mm(2 * CELL), height: mm(2 * CELL) },
      slots: [
        { id: 'ink', name: 'Ink', colour: '#c02020' },
        { id: 'paper', name: 'Paper', colour: '#ffffff' },
      ],
      ground: { kind: 'slot', slot: 'paper' },
      motifs: [block('art', mm(CELL), mm(CELL))],
      placings: [0.5, 1.5].map((at) => place('art', mm(at * CELL), mm(at * CELL), { id: `p${at * 2}` })),
    }),
    unique('Checker'),
  );
  const canvas = await open(await makeMockup(freshMockup([freshStanding('a', 'board')])));
  size = (await canvas.boundingBox())!;
});
afterAll(() => session.close());

function sheetOf(kind: ObjectKind): Sheet {
  const cut = cutSheet({ kind, numbers: {} });
  if (!cut.ok) throw new Error(cut.message);
  return cut.sheet;
}

/** The part of an object that is seen first from the front, or from above where none is: its middle cell, and where it faces. */
function front({ panels }: Sheet): { panel: Panel; middle: Point; out: Space } {
  const all = panels.flatMap((panel) =>
    panel.at === null
      ? []
      : panel.cells.map((cell) => {
          const sum = cell.reduce((one, { x, y }) => ({ x: one.x + x, y: one.y + y }), { x: 0, y: 0 });
          const middle = { x: sum.x / cell.length, y: sum.y / cell.length };
          const at = panel.at!;
          const across = minus(at({ ...middle, x: middle.x + 0.1 }), at(middle));
          const down = minus(at({ ...middle, y: middle.y + 0.1 }), at(middle));
          return { panel, middle, out: unitOf(cross3(down, across)) };
        }),
  );
  const forwards = all.filter(({ out }) => out.z > 0.98);
  const facing = forwards.length > 0 ? forwards : all.filter(({ out }) => out.y > 0.98);
  const score = ({ panel, middle }: (typeof all)[number]): number => {
    const box = pathBox(panel.outline)!;
    const away = Math.hypot(middle.x - box.x - box.width / 2, middle.y - box.y - box.height / 2);
    return panel.at!(middle).z - away / 5;
  };
  return facing.reduce((best, one) => (score(one) > score(best) ? one : best));
}

/** A camera that looks straight at a place of an object, so many px of the picture to its mm. */
function lookAt(one: Standing, seen: Space, out: Space): Camera {
  const px = PX[one.object.kind] ?? USUAL_PX;
  const degrees = (radians: number): number => (radians * 180) / Math.PI;
  const raised = degrees(Math.asin(Math.max(-1, Math.min(1, out.y))));
  const turn = raised > 89 ? 0 : degrees(Math.atan2(out.x, out.z));
  let camera: Camera = { turn, raised: Math.min(90, Math.max(-30, raised)), zoom: 1, x: 0, y: 0 };
  const around = aroundOf([one]);
  const at = standingAt(seen, one);
  for (let rounds = 0; rounds < 40; rounds += 1) {
    const on = projector(camera, around, size);
    const beside = (by: Space): Point => on({ x: at.x + by.x, y: at.y + by.y, z: at.z + by.z });
    const [here, there] = [on(at), beside({ x: 1, y: 0, z: 0 })];
    camera = {
      ...camera,
      zoom: camera.zoom * (px / Math.hypot(there.x - here.x, there.y - here.y)) ** 0.7,
      x: camera.x + (size.width / 2 - here.x) / size.height,
      y: camera.y + (size.height / 2 - here.y) / size.height,
    };
  }
  return camera;
}

/** Where a colour turns into the other one on the way between two places of a picture, as a share of it; green tells red from white. */
function turnsAt({ width, data }: PNG, from: Point, to: Point): number {
  const value = ({ x, y }: Point): number => {
    const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
    const [u, v] = [x - 0.5 - left, y - 0.5 - top];
    const px = (column: number, row: number): number => data[(row * width + column) * 4 + 1]!;
    return (
      (px(left, top) * (1 - u) + px(left + 1, top) * u) * (1 - v) +
      (px(left, top + 1) * (1 - u) + px(left + 1, top + 1) * u) * v
    );
  };
  const steps = 400;
  const along = Array.from({ length: steps + 1 }, (_one, step) => {
    const share = step / steps;
    return value({ x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share });
  });
  const [start, end] = [along[0]!, along[steps]!];
  if (Math.abs(start - end) < 90) return NaN;
  const half = (start + end) / 2;
  const at = along.findIndex((one) => (one - half) * (start - half) <= 0);
  return at / steps;
}

describe('10 mm of a pattern', () => {
  it.each(OBJECT_KINDS)('are 10 mm, seen straight on: %s', async (kind) => {
    const sheet = sheetOf(kind);
    let count = 0;
    const shapes = shapesOf(sheet, () => `${unique('part').replaceAll(' ', '')}${(count += 1)}`);
    const { id: layout } = await must<{ id: string }>('POST', `/projects/${project.id}/layouts`, {
      ...{ name: unique('Sheet'), measure: 'mm', object: { kind, numbers: {} } },
      ...{ width: toPx(sheet.width, 'mm'), height: toPx(sheet.height, 'mm') },
      shapes: shapes.map((shape) => ({
        ...shape,
        fills: [{ ...freshFill(`${shape.id}f`, checker), anchored: 'page' }],
      })),
    });
    const one = { ...freshStanding('a', kind), layout };
    const { panel, middle, out } = front(sheet);
    const [column, row] = [Math.floor(middle.x / CELL), Math.floor(middle.y / CELL)];
    const centre = (x: number, y: number): Point => ({ x: (x + 0.5) * CELL, y: (y + 0.5) * CELL });
    const at = panel.at!(centre(column, row));
    const camera = lookAt(one, at, out);
    const canvas = await open(await makeMockup({ ...freshMockup([one]), light: 'flat', camera }));
    await until(async () => {
      await still(page);
      // What is said of an object above its picture takes room from it.
      const onPicture = projector(camera, aroundOf([one]), (await canvas.boundingBox())!);
      const seen = (sheetPoint: Point): Point => onPicture(standingAt(panel.at!(sheetPoint), one));
      const picture = PNG.sync.read(Buffer.from(await canvas.screenshot()));
      for (const way of ['across', 'down'] as const) {
        const ratios: number[] = [];
        for (let line = -REACH; line <= REACH; line += 1) {
          const on = (step: number): Point =>
            way === 'across' ? centre(column + step, row + line) : centre(column + line, row + step);
          const edges: { measured: Point; expected: Point }[] = [];
          for (let step = -REACH; step < REACH; step += 1) {
            const [from, to] = [on(step), on(step + 1)];
            const [a, b] = [seen(from), seen(to)];
            const share = turnsAt(picture, a, b);
            const measured = { x: a.x + (b.x - a.x) * share, y: a.y + (b.y - a.y) * share };
            const expected = seen({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });
            // Each edge lies where it belongs, to a third of a mm.
            const away = Math.hypot(measured.x - expected.x, measured.y - expected.y);
            expect((away / Math.hypot(b.x - a.x, b.y - a.y)) * CELL).toBeLessThan(0.35);
            edges.push({ measured, expected });
          }
          // From edge to like edge.
          for (let step = 2; step < edges.length; step += 1) {
            const [first, last] = [edges[step - 2]!, edges[step]!];
            const far = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);
            ratios.push(far(first.measured, last.measured) / far(first.expected, last.expected));
          }
        }
        const mean = ratios.reduce((sum, ratio) => sum + ratio, 0) / ratios.length;
        expect(Math.abs(mean * CELL - CELL), way).toBeLessThan(0.01 * CELL);
      }
    });
  });
});
