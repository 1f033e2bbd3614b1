import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { glyphPathData } from '../../src/lib/core/geom/glyphs';
import { formatPath, parsePath } from '../../src/lib/core/geom/path';
import { setLines, type LineAlign } from '../../src/lib/core/geom/set-lines';
import { colourFill, freshFill, gradientFill, type Fill } from '../../src/lib/core/recipe/fill';
import type { TextForm } from '../../src/lib/core/recipe/form';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { freshPage, freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { compiledPattern } from '../../src/lib/core/scene/pattern';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { openDatabase } from '../../src/lib/server/db/open';
import { readFont } from '../../src/lib/server/render/font-file';
import { fontById } from '../../src/lib/server/render/text';
import { addFont } from '../../src/lib/server/repo/fonts';
import { setLineIn } from '../../src/lib/server/work/setting-lines';
import { textRuns } from '../../src/lib/server/work/text-runs';
import { othersInside } from '../support/inside';
import { asSvg, FINE, pdfOf } from '../support/pdf-pages';
import { drawnBy, faultsOf, layersOf, READERS, wordsOf } from '../support/pdf-readers';
import { block, place, recipe } from '../support/recipes';
import { need } from '../support/studio';

const SIDE = 320;
const find = createRequire(import.meta.url);
const BROUGHT = '@fontsource/bitter/files/bitter-latin-400-normal.woff2';

/** Words as a layout keeps them: their outlines by their font, in a box of their own. */
function written(text: string, font: string, size: number, align: LineAlign = 'start'): TextForm {
  const { font: read } = fontById(font)!;
  const lines = text.split('\n').map((line) => {
    const outline = parsePath(glyphPathData(read.getPath(line, 0, 0, size).commands));
    return { path: outline.ok ? outline.path : [], width: read.getAdvanceWidth(line, size) };
  });
  const { path, box } = setLines(lines, { size, align })!;
  return { kind: 'text', d: formatPath(path), width: box.width, height: box.height, text, font, size, align };
}

let count = 0;
const words = (form: TextForm, fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id: `s${(count += 1)}`, name: 'Words', form, x: 20, y: 60, width: form.width, height: form.height },
    ...{ fills, ...over },
  });
const slots = [{ id: 'ink', name: 'Ink', colour: '#b02030' }];
const unit = compileUnit(
  recipe({
    slots,
    unit: { width: 12, height: 12 },
    motifs: [block('b', 6, 12)],
    placings: [place('b', 6, 6)],
  }),
);
const page = (shapes: Shape[]): DisplayList =>
  lowerLayout({ ...freshPage(SIDE, SIDE), shapes }, () => compiledPattern('p@1', 'P', unit, slots));

const ink = colourFill('c', { colour: '#14211f' });
const PAGES: Record<string, { list: DisplayList; says: RegExp }> = {
  'upright, kerned': {
    list: page([words(written('AVATAR Toy', 'bitter-700', 44), [ink])]),
    says: /AVATAR Toy/,
  },
  'two lines in the middle, turned and stretched': {
    list: page([
      words(written('Lantern\nRow fair', 'limelight-400', 40, 'middle'), [ink], {
        rotation: 20,
        width: 260,
        height: 90,
      }),
    ]),
    says: /Lantern[\s\S]*Row fair/,
  },
  'filled with a gradient, reflected': {
    list: page([
      words(
        written('Échelle', 'schibsted-grotesk-700', 60),
        [gradientFill('g', freshGradient({ colour: '#d04020' }, { colour: '#20a0c0' }))],
        { reflectY: true },
      ),
    ]),
    says: /Échelle/,
  },
  'filled with a pattern, with a stroke': {
    list: page([
      words(written('Reeds', 'caveat-brush-400', 90), [freshFill('f', 'p')], {
        stroke: {
          width: 1.5,
          cap: 'round',
          join: 'round',
          dashes: [],
          fills: [colourFill('s', { colour: '#204080' })],
        },
      }),
    ]),
    says: /Reeds/,
  },
};

const db = openDatabase(':memory:');

/** With its words as fonts. */
const worded = async (list: DisplayList): Promise<Uint8Array> =>
  pdfOf(list, { sources: { text: await textRuns([list], db) } });

describe('words as fonts in a PDF', () => {
  it.each(Object.keys(PAGES))('are drawn as their outlines are, and can be read: %s', async (name) => {
    const { list, says } = PAGES[name]!;
    const pdf = await worded(list);
    expect(await faultsOf(pdf)).toBe('');
    const { text, fonts } = await wordsOf(pdf);
    expect(text).toMatch(says);
    // Name, kind, encoding, embedded, a part, with what its glyphs stand for.
    expect(fonts).toEqual([expect.stringMatching(/^[A-Z]{6}\+\S+ CID TrueType Identity-H yes yes yes/)]);
    for (const reader of READERS)
      expect(othersInside(await drawnBy(reader, pdf, 96 * FINE), asSvg(list), 40).share, reader).toBeLessThan(
        0.004,
      );
    const plain = await wordsOf(await pdfOf(list));
    expect([plain.text.trim(), plain.fonts]).toEqual(['', []]);
  });

  it('are so too in a font that somebody brought, kerned, with a ligature that reads as its letters', async () => {
    const read = need(await readFont(readFileSync(find.resolve(BROUGHT)), 'x.woff2'));
    const { id } = need(addFont(db, { ...read, licence: 'OFL', bytes: Buffer.from(read.bytes) }));
    const { d, width } = need(await setLineIn(db, { font: id, text: 'AVATAR office', size: 40 }));
    expect(width).toBeLessThan(300);
    const outline = parsePath(d);
    const { path, box } = setLines([{ path: outline.ok ? outline.path : [], width }], {
      size: 40,
      align: 'start',
    })!;
    const form: TextForm = {
      ...{ kind: 'text', d: formatPath(path), width: box.width, height: box.height },
      ...{ text: 'AVATAR office', font: id, size: 40, align: 'start' },
    };
    const list = page([words(form, [ink])]);
    const pdf = await worded(list);
    expect(await faultsOf(pdf)).toBe('');
    expect((await wordsOf(pdf)).text).toMatch(/AVATAR office/);
    for (const reader of READERS)
      expect(othersInside(await drawnBy(reader, pdf, 96 * FINE), asSvg(list), 40).share, reader).toBeLessThan(
        0.004,
      );
  });

  it('take little: only the letters that are used', async () => {
    const { list } = PAGES['upright, kerned']!;
    expect((await worded(list)).length).toBeLessThan(9000);
  });

  it('stay outlines where the font makes other ones of them', async () => {
    const form = written('Harbour', 'bitter-700', 40);
    const older = { ...form, d: form.d.replace(/^M(\S+)/, 'M1.25') };
    expect((await wordsOf(await worded(page([words(older, [ink])])))).fonts).toEqual([]);
    const foreign = { ...form, font: 'nowhere-400' };
    expect((await wordsOf(await worded(page([words(foreign, [ink])])))).fonts).toEqual([]);
  });
});

describe('layers of a PDF', () => {
  it('are the outermost groups of shapes; shapes without one share one', async () => {
    const form = written('Aa', 'bitter-700', 40);
    const group = { locked: false, hidden: false };
    const list = lowerLayout(
      {
        ...freshPage(SIDE, SIDE),
        groups: [
          { id: 'front', name: 'Front (Ü)', parent: null, ...group },
          { id: 'within', name: 'Within', parent: 'front', ...group },
          { id: 'back', name: 'Back', parent: null, ...group },
        ],
        shapes: [
          words(form, [ink], { group: 'back' }),
          words(form, [ink]),
          words(form, [ink], { group: 'within' }),
        ],
      },
      () => null,
    );
    const pdf = await pdfOf(list, { layers: true });
    expect(await faultsOf(pdf)).toBe('');
    expect(await layersOf(pdf)).toEqual(['Front (Ü)', 'Back', 'Other shapes']);
    for (const reader of READERS)
      expect(othersInside(await drawnBy(reader, pdf, 96 * FINE), asSvg(list), 40).share, reader).toBeLessThan(
        0.004,
      );
  });
});
