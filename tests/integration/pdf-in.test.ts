import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import { beforeAll, describe, expect, it } from 'vitest';
import { pdfDrawing, type PdfDrawing } from '../../src/lib/core/formats/pdf-drawing';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { colourFill, gradientFill, type Fill } from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { freshPage, freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { drawnBy } from '../support/pdf-readers';
import { FINE, pdfOf } from '../support/pdf-pages';
import { othersInside } from '../support/inside';
import { redrawnMotif } from '../support/redraw-motif';

type Reader = typeof import('pdfjs-dist');
let reader: Reader;
beforeAll(async () => {
  // The reader asks for what a browser has for drawing; nothing is drawn here.
  for (const name of ['DOMMatrix', 'Path2D', 'ImageData']) Object.assign(globalThis, { [name]: class {} });
  reader = (await import('pdfjs-dist/legacy/build/pdf.mjs')) as Reader;
});

const SIDE = 200;
async function read(pdf: Uint8Array): Promise<PdfDrawing> {
  const document = await reader.getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const page = await document.getPage(1);
  const names = new Map(Object.entries(reader.OPS).map(([name, code]) => [code, name]));
  const { transform, width, height } = page.getViewport({ scale: 96 / 72 });
  const [a, b, c, d, e, f] = transform as [number, number, number, number, number, number];
  const view = { a, b, c, d, e, f };
  return pdfDrawing(await page.getOperatorList(), names, { view, width, height, title: 'Page' });
}

/** The same page as another program writes it. */
function rewritten(pdf: Uint8Array): Uint8Array {
  const folder = mkdtempSync(join(tmpdir(), 'isle-in-'));
  try {
    const [from, to] = [join(folder, 'in.pdf'), join(folder, 'out.pdf')];
    writeFileSync(from, pdf);
    spawnSync('gs', [
      '-q',
      '-dNOPAUSE',
      '-dBATCH',
      '-dSAFER',
      '-sDEVICE=pdfwrite',
      `-sOutputFile=${to}`,
      from,
    ]);
    return readFileSync(to);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const colour = (hex: string, over: object = {}): Fill => ({ ...colourFill('c', { colour: hex }), ...over });
const shape = (fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id: 's', name: 'S', form: { kind: 'ellipse' }, x: 20, y: 30, width: 150, height: 130, fills },
    ...over,
  });
const pageOf = (shapes: Shape[]): ReturnType<typeof lowerLayout> =>
  lowerLayout({ ...freshPage(SIDE, SIDE), shapes }, () => null);
const star = { kind: 'star', points: 7, inner: 0.5 } as const;

const SIMPLE = {
  'shapes over each other, turned and reflected': pageOf([
    shape([colour('#b02030')]),
    shape([colour('#204080')], {
      form: star,
      rotation: 20,
      reflectX: true,
      x: 60,
      y: 50,
      width: 90,
      height: 120,
    }),
  ]),
  'see-through fills, and a dashed stroke': pageOf([
    shape([colour('#b02030')], {
      stroke: { width: 9, cap: 'round', join: 'round', dashes: [16, 14], fills: [colour('#20a060')] },
    }),
    shape([colour('#204080', { opacity: 0.5 })], { form: star, x: 70, y: 40, width: 110, height: 130 }),
  ]),
};

describe('a page of a PDF as a drawing', () => {
  it.each(Object.keys(SIMPLE) as (keyof typeof SIMPLE)[])(
    'of nothing but paths is what MuPDF draws, also as another program wrote it: %s',
    async (name) => {
      const own = await pdfOf(SIMPLE[name]);
      for (const pdf of [own, rewritten(own)]) {
        const { svg, lacks } = await read(pdf);
        expect(lacks).toEqual([]);
        const drawn = new Resvg(svg, {
          background: '#ffffff',
          fitTo: { mode: 'width', value: SIDE * FINE },
        }).render();
        const right = await drawnBy('mupdf', pdf, 96 * FINE);
        const { share, inside } = othersInside(
          { width: drawn.width, height: drawn.height, data: drawn.pixels },
          right,
        );
        expect(inside).toBeGreaterThan(3000);
        expect(share).toBeLessThan(0.01);
        // It comes in as any other drawing does.
        const motif = await redrawnMotif(svg);
        expect(typeof motif === 'string' ? motif : motif.notes).toEqual([]);
      }
    },
  );

  it('says what no drawing of paths holds: it is better a picture', async () => {
    const gradient = gradientFill('g', freshGradient({ colour: '#d04020' }, { colour: '#f0e0c0' }));
    const page = pageOf([shape([gradient]), shape([colour('#204080', { blend: 'multiply' })], { x: 60 })]);
    expect((await read(await pdfOf(page))).lacks).toEqual(['blend modes', 'gradients and patterns']);
  });
});
