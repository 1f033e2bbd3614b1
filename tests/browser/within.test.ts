import { Resvg } from '@resvg/resvg-js';
import { PNG } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Hex } from '../../src/lib/core/colour/parse';
import { channelsOf } from '../../src/lib/core/colour/parse';
import { apply, invert, multiply, translation } from '../../src/lib/core/geom/affine';
import { seededRandom } from '../../src/lib/core/num/random';
import {
  colourFill,
  coveringLayout,
  coveringPicture,
  fillMatrix,
  freshFill,
  type Fill,
  type LayoutFill,
} from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { api, exportPng, getLayout, must, publishedPattern, unique } from '../support/api';
import { at, openBrowser, press, visit, type Session } from '../support/browser';
import { othersInside, type Drawn } from '../support/inside';
import { stagePixels } from '../support/layout-view';
import { drawnBy, faultsOf, READERS } from '../support/pdf-readers';
import { pictureAsset } from '../support/pictures';
import { dot, place, recipe } from '../support/recipes';
import { until } from '../support/until';

let session: Session;
let page: Session['page'];
let project: string;
beforeAll(async () => {
  session = await openBrowser(1400, 1000);
  ({ page } = session);
  project = (await must<{ id: string }>('POST', '/projects', { name: unique('Within') })).id;
});
afterAll(() => session.close());

const OUTER = { width: 360, height: 260 };
const INNER = { width: 200, height: 120 };
let count = 0;
const ownId = (): string => `w${Date.now().toString(36)}${(count += 1)}`;
const box = (
  x: number,
  y: number,
  width: number,
  height: number,
  fills: Fill[],
  over: Partial<Shape> = {},
): Shape =>
  freshShape({
    ...{ id: ownId(), name: unique('S'), form: { kind: 'rectangle', radius: 0 }, x, y, width, height },
    fills: fills.map((fill) => ({ ...fill, id: ownId() })),
    ...over,
  });
const plain = (colour: Hex, over: Partial<Fill> = {}): Fill =>
  ({ ...colourFill('', { colour }), ...over }) as Fill;

async function layoutOf(
  shapes: Shape[],
  size: { width: number; height: number },
  background: Hex | null,
): Promise<string> {
  const { id } = await must<{ id: string }>('POST', `/projects/${project}/layouts`, {
    ...{ name: unique('Page'), measure: 'px', ...size, background },
  });
  await put(id, shapes);
  return id;
}
async function put(id: string, shapes: Shape[]): Promise<void> {
  if (shapes.length === 0) return;
  const { version } = (await getLayout(id)).layout;
  await must('POST', `/layouts/${id}/changes`, {
    ...{ base: version, changes: shapes.map((shape) => ({ do: 'put-shape', shape })) },
  });
}
const pathOf = (id: string): string => `/projects/${project}/layouts/${id}`;

/** The page as each drawer has it: stage, PNG, SVG in a renderer of others, PDF in three readers. */
async function everywhere(id: string): Promise<Record<string, Drawn>> {
  await visit(page, pathOf(id));
  const stage = await stagePixels(page, OUTER.width, OUTER.height);
  const svg = await (await fetch(at(`/api/v1/layouts/${id}/svg?patterns=expanded`))).text();
  const { width, height, pixels } = new Resvg(svg, { background: '#ffffff' }).render();
  const pdf = new Uint8Array(await (await fetch(at(`/api/v1/layouts/${id}/pdf`))).arrayBuffer());
  expect(await faultsOf(pdf)).toBe('');
  const read: Record<string, Drawn> = {};
  for (const reader of READERS) read[reader] = await drawnBy(reader, pdf, 96);
  return {
    png: PNG.sync.read(await exportPng(id, 96)),
    stage,
    resvg: { width, height, data: pixels },
    ...read,
  };
}

/** How a page lies on its shape: turned, skewed, mirrored, larger. */
const laid = (layout: string, over: Partial<LayoutFill> = {}): LayoutFill => ({
  ...coveringLayout('', layout, INNER, { width: 300, height: 200 }),
  ...{ scaleX: 1.35, scaleY: 1.1, rotation: 24, skew: 12, reflectX: true, anchor: { x: 250, y: -20 } },
  ...over,
});

/** Presses one of what a shape can be filled with. */
async function choose(name: string): Promise<void> {
  await press(page, 'Choose what fills it: a plain colour');
  await until(() =>
    page.$$eval(
      '.choices button',
      (all, wanted) => (all.find((one) => one.textContent?.trim() === wanted) as HTMLElement).click(),
      name,
    ),
  );
}

describe('a layout within a layout', () => {
  it('is drawn everywhere as its definition says: each point is the one of its page', async () => {
    const within = await layoutOf(
      [box(20, 20, 60, 70, [plain('#b02030')]), box(110, 30, 70, 60, [plain('#205090')])],
      INNER,
      '#f4ecd8',
    );
    const fill = laid(within);
    const shape = box(30, 30, 300, 200, [fill]);
    const drawn = await everywhere(await layoutOf([shape], OUTER, '#ffffff'));
    const back = invert(multiply(translation(shape.x, shape.y), fillMatrix(fill)))!;
    const inside = (x: number, y: number, left: number, top: number, wide: number, high: number): number =>
      Math.min(x - left, y - top, left + wide - x, top + high - y);
    const random = seededRandom(4);
    let looked = 0;
    for (let tries = 0; tries < 900; tries += 1) {
      const pixel = { x: Math.floor(random() * OUTER.width), y: Math.floor(random() * OUTER.height) };
      const { x, y } = apply(back, { x: pixel.x + 0.5, y: pixel.y + 0.5 });
      const edges = [
        inside(pixel.x + 0.5, pixel.y + 0.5, 30, 30, 300, 200),
        inside(x, y, 0, 0, INNER.width, INNER.height),
        inside(x, y, 20, 20, 60, 70),
        inside(x, y, 110, 30, 70, 60),
      ];
      if (edges.some((edge) => Math.abs(edge) < 2.5)) continue;
      looked += 1;
      const [onShape, onPage, onRed, onBlue] = edges.map((edge) => edge > 0);
      const right: Hex = !onShape || !onPage ? '#ffffff' : onRed ? '#b02030' : onBlue ? '#205090' : '#f4ecd8';
      for (const [name, { width, data }] of Object.entries(drawn)) {
        const from = (pixel.y * width + pixel.x) * 4;
        const off = Math.max(
          ...channelsOf(right).map((value, channel) => Math.abs(value - data[from + channel]!)),
        );
        expect(off, `${name} at ${pixel.x}, ${pixel.y}`).toBeLessThan(4);
      }
    }
    expect(looked).toBeGreaterThan(600);
  });

  it('brings its patterns, pictures, blends, masks and strokes along, alike in all drawers', async () => {
    const dots = await publishedPattern(
      recipe({
        slots: [
          { id: 'ink', name: 'Ink', colour: '#205090' },
          { id: 'paper', name: 'Paper', colour: '#f4ecd8' },
        ],
        ...{ unit: { width: 30, height: 26 }, ground: { kind: 'slot', slot: 'paper' } },
        motifs: [dot('d', 16)],
        placings: [place('d', 15, 13)],
      }),
      unique('Dots'),
    );
    const photo = await pictureAsset(100, 60, (x, y) => [x * 2, y * 4, 120, 255]);
    const deepest = await layoutOf(
      [box(10, 10, 40, 40, [plain('#208040')])],
      { width: 60, height: 60 },
      null,
    );
    const within = await layoutOf(
      [
        box(0, 0, 120, 120, [{ ...freshFill('', dots), rotation: 20, scaleX: 0.8, scaleY: 0.8 }]),
        box(110, 10, 80, 50, [coveringPicture('', photo, { width: 80, height: 50 })]),
        box(60, 40, 90, 60, [plain('#e0b040', { blend: 'multiply' })], {
          stroke: {
            width: 6,
            cap: 'butt',
            join: 'round',
            dashes: [],
            fills: [{ ...plain('#402010'), id: ownId() }],
          },
        }),
        box(130, 60, 60, 60, [
          coveringLayout('', deepest, { width: 60, height: 60 }, { width: 60, height: 60 }),
        ]),
      ],
      INNER,
      '#ffffff',
    );
    const shape = box(30, 30, 300, 200, [plain('#d8d0e8'), laid(within, { opacity: 0.8 })], {
      form: { kind: 'ellipse' },
    });
    const { png, ...others } = await everywhere(await layoutOf([shape], OUTER, '#ffffff'));
    for (const [name, drawn] of Object.entries(others)) {
      const { share, inside } = othersInside(drawn, png!);
      expect(inside, name).toBeGreaterThan(30_000);
      expect(share, name).toBeLessThan(0.01);
    }
  });

  it('is chosen like any fill, follows what is changed on its own page, and is there after a reload', async () => {
    const red = box(20, 20, 160, 80, [plain('#b02030')]);
    const within = await layoutOf([red], INNER, '#f4ecd8');
    const { name } = (await getLayout(within)).layout;
    const id = await layoutOf([box(30, 30, 300, 200, [plain('#808080')])], OUTER, '#ffffff');
    await visit(page, pathOf(id));
    await page.click('tbody tr[tabindex] .filled');
    await choose(name);
    await until(async () => {
      const [fill] = (await getLayout(id)).layout.shapes[0]!.fills;
      expect([fill?.kind, fill?.kind === 'layout' && fill.layout]).toEqual(['layout', within]);
    });
    const middle = async (): Promise<number[]> => {
      const { width, data } = await stagePixels(page, OUTER.width, OUTER.height);
      const from = (130 * width + 180) * 4;
      return [...data.subarray(from, from + 3)];
    };
    expect(await middle()).toEqual([176, 32, 48]);
    await put(within, [{ ...red, fills: [{ ...red.fills[0]!, colour: '#208040' } as Fill] }]);
    await until(async () => expect(await middle()).toEqual([32, 128, 64]));
    await page.reload();
    await page.waitForSelector('html[data-alive]');
    expect(await middle()).toEqual([32, 128, 64]);
    const png = PNG.sync.read(await exportPng(id, 96));
    expect([...png.data.subarray((130 * 360 + 180) * 4, (130 * 360 + 180) * 4 + 3)]).toEqual([32, 128, 64]);
  });

  it('is refused in itself, in one that lies in it, and from another project, with a sentence', async () => {
    const a = await layoutOf([], INNER, '#ffffff');
    const b = await layoutOf([box(10, 10, 100, 60, [laid(a)])], INNER, '#ffffff');
    const refusal = async (id: string, within: string): Promise<string> => {
      const { version } = (await getLayout(id)).layout;
      const shape = box(10, 10, 100, 60, [laid(within)]);
      const { status, body } = await api('POST', `/layouts/${id}/changes`, {
        ...{ base: version, changes: [{ do: 'put-shape', shape }] },
      });
      expect(status).toBeGreaterThanOrEqual(400);
      return (body as { message: string }).message;
    };
    expect(await refusal(a, a)).toContain('cannot lie in itself');
    expect(await refusal(a, b)).toContain('nor in one that lies in it');
    expect(await refusal(a, 'nothing-here')).toContain('not in this project');
    const other = await must<{ id: string }>('POST', '/projects', { name: unique('Elsewhere') });
    const strange = await must<{ id: string }>('POST', `/projects/${other.id}/layouts`, {
      ...{ name: 'Strange', measure: 'px', ...INNER },
    });
    expect(await refusal(a, strange.id)).toContain('not in this project');
    expect((await getLayout(a)).layout.shapes).toEqual([]);
    // The chooser says it before anything is sent.
    await visit(page, pathOf(a));
    await put(a, [box(10, 10, 100, 60, [plain('#808080')])]);
    await page.waitForSelector('tbody tr[tabindex] .filled');
    await page.click('tbody tr[tabindex] .filled');
    await choose((await getLayout(b)).layout.name);
    await page.waitForFunction(() => document.body.textContent?.includes('A layout cannot lie in itself'));
    expect((await getLayout(a)).layout.shapes[0]!.fills[0]!.kind).toBe('colour');
  });
});
