import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Inks } from '../../src/lib/core/colour/inks';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { seededRandom } from '../../src/lib/core/num/random';
import {
  colourFill,
  freshFill,
  gradientFill,
  type Fill,
  type PatternFill,
} from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { freshPage, freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { compiledPattern } from '../../src/lib/core/scene/pattern';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { openBrowser, type Session } from '../support/browser';
import { othersInside, type Drawn } from '../support/inside';
import { asSvg, FINE, pdfOf } from '../support/pdf-pages';
import { block, dot, place, recipe } from '../support/recipes';
import { until } from '../support/until';

const SIDE = 240;
/** What no shape has: by it the page is found in the viewer. */
const PAPER = [32, 160, 192] as const;

let session: Session;
let folder: string;
beforeAll(async () => {
  session = await openBrowser(900, 700);
  folder = mkdtempSync(join(tmpdir(), 'isle-viewer-'));
});
afterAll(() => session.close());

const slots = [
  { id: 'ink', name: 'Ink', colour: '#b02030' },
  { id: 'deep', name: 'Deep', colour: '#204080' },
];
const UNITS = {
  'half-drop': recipe({
    ...{ unit: { width: 40, height: 52 }, slots },
    repeat: { kind: 'half-drop', step: 0.5, run: 'alternating' },
    motifs: [dot('d', 24), block('b', 8, 8, 'deep')],
    placings: [place('d', 20, 20), place('b', 30, 44)],
  } as Parameters<typeof recipe>[0]),
  whole: recipe({
    ...{ unit: { width: 32, height: 32 }, slots },
    motifs: [block('a', 16, 32), block('b', 16, 16)],
    placings: [place('a', 8, 16), place('b', 24, 8), place('b', 24, 24)],
  }),
};
const compiled = Object.fromEntries(
  Object.entries(UNITS).map(([id, unit]) => [id, compiledPattern(`${id}@1`, id, compileUnit(unit), slots)]),
);
const use = (pattern: keyof typeof UNITS, over: Partial<PatternFill> = {}): Fill => ({
  ...freshFill('f', pattern),
  ...over,
});
const shape = (fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id: 's', name: 'S', form: { kind: 'ellipse' }, x: 20, y: 30, width: 200, height: 170, fills },
    ...over,
  });
const page = (shapes: Shape[]): DisplayList =>
  lowerLayout(
    { ...freshPage(SIDE, SIDE), background: '#20a0c0', shapes },
    ({ pattern }) => compiled[pattern] ?? null,
  );

/** A PDF's page as the browser's own viewer shows it, two px to each of the page. */
async function viewed(pdf: Uint8Array): Promise<Drawn> {
  const file = join(folder, `${Math.random().toString(36).slice(2)}.pdf`);
  writeFileSync(file, pdf);
  const tab = await session.browser.newPage();
  try {
    await tab.setViewport({ width: 900, height: 700 });
    await tab.goto(`file://${file}#toolbar=0&navpanes=0&zoom=${FINE * 100}`);
    let found: Drawn | null = null;
    await until(async () => {
      const { data, info } = await sharp(await tab.screenshot())
        .ensureAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const isPaper = (at: number): boolean =>
        PAPER.every((value, channel) => Math.abs(data[at + channel]! - value) < 3);
      const places = Array.from({ length: info.width * info.height }, (_one, at) => at).filter((at) =>
        isPaper(4 * at),
      );
      const left = places.reduce((least, at) => Math.min(least, at % info.width), info.width);
      const top = Math.floor((places[0] ?? 0) / info.width);
      const bottom = Math.floor((places.at(-1) ?? 0) / info.width);
      // Until the page is drawn in full there is another one, or none.
      expect(bottom - top + 1).toBe(SIDE * FINE);
      const part = await sharp(data, { raw: { ...info, channels: 4 } })
        .extract({ left, top, width: SIDE * FINE, height: SIDE * FINE })
        .raw()
        .toBuffer();
      const next = { width: SIDE * FINE, height: SIDE * FINE, data: new Uint8Array(part) };
      const same = found?.data.every((value, at) => value === next.data[at]) ?? false;
      found = next;
      expect(same).toBe(true);
    });
    return found!;
  } finally {
    await tab.close();
  }
}

const steps = freshGradient({ colour: '#d04020' }, { colour: '#f0e0c0' });
const inks = new Inks([
  { hex: '#b02030', name: 'Red', ink: { name: 'Red', tint: 1, overprint: false } },
  { hex: '#204080', name: 'Blue', ink: { name: 'Blue', tint: 1, overprint: false } },
]);
const PAGES: Record<string, DisplayList> = {
  'a turned, skewed half-drop': page([shape([use('half-drop', { rotation: 25, skew: 12, scaleX: 1.3 })])]),
  'a see-through, reflected one': page([shape([use('half-drop', { reflectX: true, opacity: 0.5 })])]),
  'a gradient on a skewed shape': page([shape([gradientFill('g', steps)], { skew: 20, rotation: 15 })]),
  'a blend, and a mask': page([
    shape([use('half-drop')]),
    shape([{ ...colourFill('c', { colour: '#e0b040' }), blend: 'multiply' }], {
      x: 60,
      y: 70,
      width: 120,
      height: 120,
    }),
    shape(
      [
        {
          ...colourFill('m', { colour: '#102080' }),
          mask: {
            kind: 'gradient',
            gradient: { ...steps, stops: steps.stops.map((stop, at) => ({ ...stop, opacity: at })) },
          },
        },
      ],
      {
        ...{ x: 100, y: 40, width: 90, height: 60 },
      },
    ),
  ]),
  'a gradient of two inks': page([
    shape([gradientFill('g', freshGradient({ colour: '#b02030' }, { colour: '#204080' }))]),
  ]),
};

// Chromium's own viewer (PDFium) is a fourth reader, of which nothing is shared with the three of the other tests.
describe('a page as PDF in the browser’s own viewer', () => {
  it.each(Object.keys(PAGES))('is the page: %s', async (name) => {
    const list = PAGES[name]!;
    const { share, inside } = othersInside(await viewed(await pdfOf(list, { inks })), asSvg(list));
    expect(inside).toBeGreaterThan(2000);
    expect(share).toBeLessThan(0.01);
  });

  it('shows no line where units meet, at fifty random placings', async () => {
    const random = seededRandom(29);
    for (let sheet = 0; sheet < 2; sheet += 1) {
      const shapes = Array.from({ length: 25 }, (_one, at) =>
        shape(
          [
            use('whole', {
              ...{ scaleX: 0.4 + 2 * random(), scaleY: 0.4 + 2 * random(), skew: 30 * random() - 15 },
              ...{ rotation: 360 * random(), offset: { x: 50 * random(), y: 50 * random() } },
            }),
          ],
          {
            ...{ id: `s${at}`, form: { kind: 'rectangle', radius: 0 }, width: 40, height: 40 },
            ...{ x: 6 + (at % 5) * 46, y: 6 + Math.floor(at / 5) * 46 },
          },
        ),
      );
      const { width, data } = await viewed(await pdfOf(page(shapes)));
      for (const { x, y, id } of shapes) {
        let worst = 0;
        for (let py = Math.ceil((y + 1) * FINE); py < (y + 39) * FINE; py += 1)
          for (let px = Math.ceil((x + 1) * FINE); px < (x + 39) * FINE; px += 1)
            worst = Math.max(worst, Math.abs(data[(py * width + px) * 4 + 1]! - 0x20));
        expect(worst, `${sheet} ${id}`).toBeLessThan(6);
      }
    }
  });
});
