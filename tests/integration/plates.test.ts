import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { BLEND_MODES } from '../../src/lib/core/colour/blend';
import { Inks, type InkedColour } from '../../src/lib/core/colour/inks';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { plateOf } from '../../src/lib/core/draw/plates';
import { colourFill, freshFill, gradientFill, type Fill } from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { freshPage, freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { compiledPattern, type PatternLookup } from '../../src/lib/core/scene/pattern';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { PROCESS_INKS } from '../../src/lib/core/colour/press';
import { Press } from '../../src/lib/server/render/press';
import { screenProfile } from '../../src/lib/server/work/press/intent';
import { othersInside } from '../support/inside';
import { asSvg, FINE, pdfOf } from '../support/pdf-pages';
import { drawnBy, factsOf, faultsOf, platesOf, READERS } from '../support/pdf-readers';
import { block, dot, place, recipe } from '../support/recipes';

const SIDE = 200;
const [KELP, PALE, RUST, VARNISH] = ['#0d5a50', '#9dc3bd', '#c4502e', '#e8e4f4'] as const;
const use = (name: string, tint = 1, overprint = false): InkedColour['ink'] => ({ name, tint, overprint });
const inks = new Inks([
  { hex: KELP, name: 'Kelp', ink: use('Kelp 3 #1') },
  { hex: PALE, name: 'Pale', ink: use('Kelp 3 #1', 0.4) },
  { hex: RUST, name: 'Rust', ink: use('Röst') },
  { hex: VARNISH, name: 'Gloss', ink: use('Gloss', 1, true) },
]);

const slots = [
  { id: 'ink', name: 'Ink', colour: KELP },
  { id: 'deep', name: 'Deep', colour: RUST },
  { id: 'paper', name: 'Paper', colour: '#f4ecd8' },
];
const unit = compileUnit(
  recipe({
    ...{ unit: { width: 40, height: 52 }, slots, ground: { kind: 'slot', slot: 'paper' } },
    repeat: { kind: 'half-drop', step: 0.5, run: 'alternating' },
    motifs: [dot('d', 24), block('b', 8, 8, 'deep')],
    placings: [place('d', 20, 20), place('b', 30, 44)],
  } as Parameters<typeof recipe>[0]),
);
const lookup: PatternLookup = () => compiledPattern('p@1', 'P', unit, slots);
const pattern: Fill = { ...freshFill('p', 'p'), rotation: 25, scaleX: 1.3, scaleY: 1.3 };
const colour = (hex: string, over: object = {}): Fill => ({ ...colourFill('c', { colour: hex }), ...over });
const gradient = (from: string, to: string): Fill =>
  gradientFill('g', freshGradient({ colour: from }, { colour: to }));
let count = 0;
const shape = (fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{
      id: `s${(count += 1)}`,
      name: 'S',
      form: { kind: 'ellipse' },
      x: 20,
      y: 30,
      width: 150,
      height: 130,
    },
    fills,
    ...over,
  });
const page = (shapes: Shape[], background = '#ffffff'): DisplayList =>
  lowerLayout({ ...freshPage(SIDE, SIDE), background, shapes }, lookup);
const box = { form: { kind: 'rectangle', radius: 0 }, x: 90, y: 10, width: 90, height: 180 } as const;

const PAGES: Record<string, DisplayList> = {
  'a colour, a tint, and one in process colours': page([
    shape([colour(KELP)]),
    shape([colour(PALE)], box),
    shape([colour('#20a0c0')], { ...box, x: 10, width: 40 }),
  ]),
  'an ink on an ink': page([shape([colour(KELP)]), shape([colour(RUST)], box)], PALE),
  'an ink that prints over others': page([
    shape([pattern]),
    shape([colour(VARNISH)], box),
    shape([colour(RUST)], { ...box, y: 120, height: 40 }),
  ]),
  // Ghostscript breaks off where such a page has a tiling pattern.
  'a pattern in process colours, a blend, and an ink beside them': page([
    shape([{ ...pattern, colours: { ink: { colour: '#20a0c0' }, deep: { colour: '#406020' } } } as Fill]),
    shape([colour('#f0c040', { blend: 'multiply' })], box),
    shape([colour(KELP)], { ...box, x: 10, width: 40, height: 60 }),
  ]),
  'a turned half-drop': page([shape([pattern])], '#20a0c0'),
  'a see-through pattern': page([shape([{ ...pattern, opacity: 0.6, groundOpacity: 0.5 } as Fill])], RUST),
  'a gradient to paper': page([shape([gradient(KELP, '#ffffff')]), shape([gradient(PALE, KELP)], box)], RUST),
  'a gradient of two inks': page([shape([gradient(KELP, RUST)])]),
  'a gradient to process colours': page([shape([gradient(KELP, '#20a0c0')])], PALE),
  'see-through inks': page([shape([colour(KELP)]), shape([colour(RUST, { opacity: 0.5 })], box)]),
  'a stroke, and a mask': page([
    shape(
      [
        colour(KELP, {
          mask: { kind: 'gradient', gradient: freshGradient({ colour: '#ffffff' }, { colour: '#000000' }) },
        }),
      ],
      {
        stroke: { width: 12, cap: 'round', join: 'round', dashes: [], fills: [colour(RUST)] },
      },
    ),
  ]),
  ...Object.fromEntries(
    BLEND_MODES.map((blend) => [
      `blended as ${blend}`,
      page([
        shape([colour(KELP)]),
        shape([colour(PALE, { blend })], box),
        shape([colour('#c0d040', { blend })], { ...box, y: 90, x: 60, height: 60 }),
      ]),
    ]),
  ),
};

describe('plates of spot inks', () => {
  it.each(Object.keys(PAGES))(
    'are those into which Ghostscript parts the PDF: %s',
    async (name) => {
      const list = PAGES[name]!;
      const pdf = await pdfOf(list, { inks });
      expect(await faultsOf(pdf)).toBe('');
      const theirs = await platesOf(pdf, 96 * FINE);
      const found: Record<string, number> = {};
      for (const ink of inks.all) {
        const own = asSvg(plateOf(list, inks, ink));
        const bare = own.data.every((value) => value === 255);
        const their = theirs[ink.name];
        if (!their) {
          expect(bare, ink.name).toBe(true);
          continue;
        }
        const { share, inside } = othersInside(their, own, 6);
        expect(inside).toBeGreaterThan(0.5 * SIDE * SIDE);
        found[ink.name] = share;
      }
      for (const [ink, share] of Object.entries(found))
        expect(share, `${ink} ${JSON.stringify(found)}`).toBeLessThan(0.004);
    },
    60_000,
  );

  it.each([
    'a colour, a tint, and one in process colours',
    'a turned half-drop',
    'a stroke, and a mask',
    'a gradient to process colours',
  ])('of process colours are those of Ghostscript by the same profile: %s', async (name) => {
    const list = PAGES[name]!;
    const file = resolve('assets/press/coated-offset.icc');
    const theirs = await platesOf(await pdfOf(list, { inks }), 96 * FINE, file);
    const press = (await Press.open(readFileSync(file), { intent: 'relative', blackPoint: true }))!;
    const { width, height, data } = asSvg(plateOf(list, inks, 'process'));
    const rgb = Uint8Array.from(
      { length: width * height * 3 },
      (_one, at) => data[4 * Math.floor(at / 3) + (at % 3)]!,
    );
    const own = press.toInks(rgb);
    for (const [channel, ink] of PROCESS_INKS.entries()) {
      const film = Uint8Array.from({ length: width * height * 4 }, (_one, at) =>
        at % 4 === 3 ? 255 : 255 - own[4 * Math.floor(at / 4) + channel]!,
      );
      const { share } = othersInside(theirs[ink]!, { width, height, data: film }, 6);
      // A pixel on the edge of an ink counts where its plate hardly changes there.
      expect(share, ink).toBeLessThan(0.015);
    }
  });

  it.each(READERS)('look in %s as the page does in sRGB', async (reader) => {
    for (const [name, list] of Object.entries(PAGES)) {
      // Where one ink prints over others, and where plates are blended, a reader of three colours may show it its own way.
      if (/over others|blended|see-through/.test(name)) continue;
      const { share } = othersInside(
        await drawnBy(reader, await pdfOf(list, { inks }), 96 * FINE),
        asSvg(list),
        12,
      );
      expect(share, name).toBeLessThan(0.01);
    }
  });

  it('stand in a file for print exchange, which names its press and what its red, green and blue are', async () => {
    const profile = readFileSync('assets/press/coated-offset.icc');
    const exchange = {
      press: { name: 'Kaianlage (Rolle 2)', profile },
      screen: await screenProfile(),
      changed: new Date(Date.UTC(2026, 10, 30, 12)),
    };
    const list = PAGES['a turned half-drop']!;
    const pdf = await pdfOf(list, { inks, exchange });
    expect(await faultsOf(pdf)).toBe('');
    expect(await factsOf(pdf)).toMatchObject({
      'PDF version': '1.6',
      'PDF subtype': expect.stringContaining('PDF/X-4') as string,
      'Metadata Stream': 'yes',
      Producer: 'Isle',
    });
    for (const reader of READERS) {
      const drawn = await drawnBy(reader, pdf, 96 * FINE);
      // Poppler shows such a file as the press would print it.
      if (reader === 'poppler') continue;
      expect(othersInside(drawn, asSvg(list), 12).share, reader).toBeLessThan(0.01);
    }
    const theirs = await platesOf(pdf, 96 * FINE);
    for (const ink of inks.all.filter(({ name }) => theirs[name]))
      expect(othersInside(theirs[ink.name]!, asSvg(plateOf(list, inks, ink)), 6).share).toBeLessThan(0.004);
    expect(await pdfOf(list, { inks, exchange })).toEqual(pdf);
  });
});
