import { describe, expect, it } from 'vitest';
import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { picturePattern } from '../../../../tests/support/picture-patterns';
import { block, dot, place, recipe } from '../../../../tests/support/recipes';
import { IDENTITY, scaling, translation } from '../geom/affine';
import type { Motif } from '../recipe/recipe';
import { drawingOf, pictureElement } from '../scene/drawing';
import { compileMotif } from '../scene/motif';
import { pictureSides } from '../scene/pictures';
import { resolveGround } from '../scene/pattern';
import { compileUnit, withoutGround } from '../scene/unit';
import { cellMarkup, elementMarkup, pieceMarkup } from './pieces';
import { groundPaint } from './fill';
import { embedPictures, paintMarkup, picturesIn, smallerPictures, throughLook } from './paint';
import { contentId } from './print';
import { motifSvg } from './motif';

const colours = { ink: '#102030', paper: '#ffffff' };
const asset = 'a'.repeat(64);

describe('paints', () => {
  const gradient = {
    kind: 'linear' as const,
    matrix: scaling(10),
    spread: 'reflect' as const,
    stops: [
      { at: 0, slot: 'ink', opacity: 1 },
      { at: 1, slot: 'paper', opacity: 0.5 },
    ],
  };

  it('are a colour, none, or a gradient that stands before its use under an id of its own content', () => {
    expect(paintMarkup('ink', colours)).toEqual({ value: '#102030', defs: '' });
    expect(paintMarkup(null, colours).value).toBe('none');
    const { value, defs } = paintMarkup(gradient, colours);
    const id = /^url\(#(\w+)\)$/.exec(value)?.[1];
    expect(defs).toContain(`<linearGradient id="${id}"`);
    expect(defs).toContain('spreadMethod="reflect"');
    expect(defs).toContain('stop-color="#ffffff" stop-opacity="0.5"');
    expect(paintMarkup({ ...gradient }, colours)).toEqual({ value, defs });
    expect(paintMarkup(gradient, { ...colours, ink: '#102031' }).value).not.toBe(value);
  });

  it('have ids that differ where their content differs', () => {
    const ids = new Set(Array.from({ length: 4000 }, (_, at) => contentId('g', `stop ${at}`)));
    expect(ids.size).toBe(4000);
  });

  it('go through the matrix of a placing, strokes with them', () => {
    const motif = block('b', 10, 10);
    const { elements } = compileMotif(motif);
    const [element] = elements;
    if (!element) throw new Error('no element');
    const scene = compileUnit(
      recipe({ motifs: [motif], placings: [place('b', 50, 50, { scaleX: 2, scaleY: 2 })] }),
    );
    const [piece] = scene.pieces;
    if (!piece) throw new Error('no piece');
    const filled = { ...piece, elements: [{ ...element, fill: gradient }] };
    expect(pieceMarkup(filled, { x: 7, y: 0 }, colours)).toContain(
      'gradientTransform="matrix(20 0 0 20 57 50)"',
    );
  });
});

describe('see-through elements', () => {
  it('use the opacity of their one paint, and a layer only where fill and stroke lie on each other', () => {
    const [element] = compileMotif(dot('d', 10)).elements;
    if (!element) throw new Error('no element');
    const stroke = {
      slot: 'paper',
      width: 1,
      cap: 'butt' as const,
      join: 'miter' as const,
      miterLimit: 4,
      dashes: [],
    };
    expect(elementMarkup({ ...element, opacity: 0.5 }, colours)).toContain('fill-opacity="0.5"');
    expect(elementMarkup({ ...element, fill: null, stroke, opacity: 0.5 }, colours)).toContain(
      'stroke-opacity="0.5"',
    );
    expect(elementMarkup({ ...element, stroke, opacity: 0.5 }, colours)).toMatch(/ opacity="0.5"/);
  });
});

describe('pictures', () => {
  const picture = { asset, width: 20, height: 10, matrix: translation(1, 2) };
  const [base] = compileMotif(block('b', 20, 10)).elements;
  const markup = base ? elementMarkup({ ...base, picture }, colours) : '';

  it('are fetched by the browser and put into files that must stand alone', () => {
    expect(picturesIn(markup)).toEqual([{ asset, look: null }]);
    const whole = embedPictures(markup, (wanted) =>
      wanted.asset === asset ? 'data:image/png;base64,AA==' : null,
    );
    expect(whole).toContain('href="data:image/png;base64,AA=="');
    expect(picturesIn(whole)).toEqual([]);
    expect(embedPictures(markup, () => null)).not.toContain('/api/');
  });

  it('stand in a file once, however often they are drawn, and lie where they lay', async () => {
    const unit = compileUnit(
      picturePattern({ kind: 'brick', step: 0.5, run: 'progressive' }, { width: 8, height: 6 }),
    );
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="80" height="60">${cellMarkup(unit, {}, 1, 3, 3)}</svg>`;
    const picture = await sharp({ create: { width: 8, height: 6, channels: 3, background: '#b5462f' } })
      .composite([
        { input: { create: { width: 3, height: 3, channels: 3, background: '#fff' } }, left: 0, top: 0 },
      ])
      .png()
      .toBuffer();
    const url = `data:image/png;base64,${picture.toString('base64')}`;
    const whole = embedPictures(svg, () => url);
    expect(whole.split('base64,')).toHaveLength(2);
    const pixels = (text: string): Uint8Array => new Resvg(text).render().pixels;
    expect(pixels(whole)).toEqual(pixels(svg.replaceAll(/href="\/api[^"]*"/g, `href="${url}"`)));
    const librsvg = async (text: string): Promise<Buffer> => sharp(Buffer.from(text)).raw().toBuffer();
    expect(await librsvg(whole)).toEqual(
      await librsvg(svg.replaceAll(/href="\/api[^"]*"/g, `href="${url}"`)),
    );
  });
});

describe('grounds', () => {
  const of = recipe({
    unit: { width: 80, height: 60 },
    gap: { across: 0, down: 10 },
    ground: {
      kind: 'linear',
      along: 'down',
      stops: [
        { at: 0.2, slot: 'ink' },
        { at: 0.6, slot: 'paper' },
      ],
    },
  });

  it('that fade run once over the unit with its gap and come back to their first colour', () => {
    const ground = resolveGround(compileUnit(of), colours);
    expect(ground?.gradient).toEqual({
      to: { x: 0, y: 70 },
      stops: [
        { at: 0.2, colour: '#102030' },
        { at: 0.6, colour: '#ffffff' },
        { at: 1, colour: '#102030' },
      ],
    });
    expect(ground && groundPaint(ground, IDENTITY).defs).toContain('spreadMethod="repeat"');
  });

  it('that fade round are a piece in each unit over the last colour, left out for uses with another ground', () => {
    const round = compileUnit({
      ...of,
      ground: {
        kind: 'radial',
        radius: 0.5,
        stops: [
          { at: 0, slot: 'paper' },
          { at: 1, slot: 'ink' },
        ],
      },
    });
    expect(resolveGround(round, colours)).toEqual({ colour: '#102030', gradient: null });
    expect(round.pieces.map(({ box }) => box)).toEqual([{ x: 10, y: 0, width: 60, height: 60 }]);
    expect(withoutGround(round).pieces).toEqual([]);
  });
});

describe('a motif as a file', () => {
  it('is as large as its ink with its shadow, and carries its name and credit', () => {
    const shadow = { slot: 'ink', angle: 0, distance: 5, blur: 1, opacity: 0.5 };
    const credit = { author: 'A. Gull', source: 'own work', licence: 'CC-BY-4.0' };
    const svg = motifSvg({ ...dot('Ring & rope', 20), effects: { drop: shadow }, credit }, colours);
    expect(svg).toContain('<title>Ring &amp; rope</title>');
    expect(svg).toContain('<desc>author: A. Gull; source: own work; licence: CC-BY-4.0</desc>');
    // 10 px of radius, 5 px of distance and three deviations of blur, one px of air.
    expect(svg).toContain('viewBox="-19 -19 38 38"');
    expect(svg).toContain('<feGaussianBlur in="SourceAlpha" stdDeviation="1"/>');
  });
});

describe('pictures as large as they are seen', () => {
  const one = 'a'.repeat(64);
  const motif = (id: string, asset: string, scale: number): Motif => ({
    id,
    name: id,
    content: drawingOf([pictureElement({ asset, width: 2000, height: 1000, matrix: scaling(scale) })], null),
  });
  const scene = compileUnit(
    recipe({
      unit: { width: 400, height: 400 },
      motifs: [motif('small', one, 0.05), motif('large', 'b'.repeat(64), 0.4)],
      placings: [
        place('small', 100, 100),
        place('small', 200, 200, { scaleX: 3, scaleY: 1.5, rotation: 30 }),
        place('large', 300, 300),
      ],
    }),
  );

  it('are told by how large they lie in the unit at most, stretched and turned', () => {
    const sides = pictureSides(scene);
    expect(sides.get(one)).toEqual({ own: 2000, seen: expect.closeTo(300, 6) });
    expect(sides.get('b'.repeat(64))).toEqual({ own: 2000, seen: expect.closeTo(800, 6) });
  });

  it('are fetched with so many px a side, and read again as such; those that are recoloured stay whole', () => {
    const markup = cellMarkup(scene, {}, 1);
    const smaller = smallerPictures(markup, new Map([[one, 512]]));
    expect(picturesIn(smaller)).toEqual(
      expect.arrayContaining([
        { asset: one, look: null, side: 512 },
        { asset: 'b'.repeat(64), look: null },
      ]),
    );
    // Nothing but the address is another one.
    expect(smaller.replaceAll('?side=512', '')).toBe(markup);
    const look = { map: [], shift: { hue: 40, lightness: 0, chroma: 1 }, tint: null };
    const tinted = throughLook(markup, look);
    expect(smallerPictures(tinted, new Map([[one, 512]]))).toBe(tinted);
    expect(embedPictures(smaller, ({ side }) => `data:${side ?? 'whole'}`)).toContain('data:512');
  });
});
