import { describe, expect, it } from 'vitest';
import { block, dot, drawing, place, recipe } from '../../../../tests/support/recipes';
import { compileUnit } from '../scene/unit';
import { resolveSlots } from '../colour/slots';
import { rectanglePath } from '../geom/shapes';
import { transformPath } from '../geom/path';
import { translation } from '../geom/affine';
import { plainElement } from '../scene/motif';
import { effectsFilter } from './effects';
import { blendText, gradientPaint, isOpaqueGradient, maskMarkup } from './fill';
import { inkAttributes, inkText } from './ink';
import { readGradient } from './import-gradient';
import { rootViewport, shapePath, viewportMatrix } from './import-read';
import { PLAIN_MEASURES } from './lengths';
import { StyleSheet } from './css';
import { groundOf, withinTile } from './tile-edges';
import { patternCss, tileSvg } from './tile';
import { readSvgTree, type XmlNode } from './xml';
import type { Drawn } from './art-drawn';

const node = (body: string): XmlNode => {
  const tree = readSvgTree(`<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`);
  if (!tree.ok || !tree.root.children[0]) throw new Error('no node');
  return tree.root.children[0];
};

describe('shapes that come in (SVG 2, chapter 10)', () => {
  const path = (body: string) => {
    const read = shapePath(node(body), { fontSize: 10, viewport: { width: 200, height: 100 } });
    return read?.ok ? read.path : null;
  };

  it('have radii that stand for each other, and none where they draw nothing', () => {
    expect(path('<rect width="40" height="20" rx="10"/>')).toEqual(
      path('<rect width="40" height="20" rx="10" ry="10"/>'),
    );
    expect(path('<ellipse cx="5" cy="5" rx="9"/>')).toEqual(path('<circle cx="5" cy="5" r="9"/>'));
    expect(path('<rect width="-4" height="20"/>')).toEqual([]);
    expect(path('<circle r="0"/>')).toEqual([]);
    expect(path('<rect width="50%" height="2em"/>')).toEqual(path('<rect width="100" height="20"/>'));
    expect(path('<polygon points="0 0 10,0 10 10"/>')?.length).toBe(4);
    expect(path('<polyline points="0 0 10,0 10 10"/>')?.length).toBe(3);
    expect(path('<g/>')).toBeNull();
  });

  it('are refused before they are read where they are no drawing any more', () => {
    for (const body of [
      `<path d="M0 0${'l1 1'.repeat(200_000)}"/>`,
      `<path d="M0 0L${'1'.repeat(5000)} 0"/>`,
      `<polygon points="${'1,2 '.repeat(200_000)}"/>`,
    ])
      expect(shapePath(node(body))).toMatchObject({ ok: false });
  });

  it('lie in a viewport that is fitted, stretched or sliced', () => {
    const fitted = (how: string) =>
      viewportMatrix(node(`<svg viewBox="0 0 20 10" preserveAspectRatio="${how}"/>`), 100, 100);
    expect(fitted('none')).toMatchObject({ a: 5, d: 10, e: 0, f: 0 });
    expect(fitted('xMinYMax')).toMatchObject({ a: 5, d: 5, e: 0, f: 50 });
    expect(fitted('xMidYMid slice')).toMatchObject({ a: 10, d: 10, e: -50, f: 0 });
    const root = (attributes: string) => {
      const tree = readSvgTree(`<svg xmlns="http://www.w3.org/2000/svg" ${attributes}/>`);
      return tree.ok ? rootViewport(tree.root) : null;
    };
    expect(root('viewBox="0 0 20 10" width="40"')).toMatchObject({ width: 40, height: 20 });
    expect(root('viewBox="0 0 20 10" width="100%"')).toMatchObject({ width: 20, height: 10 });
    expect(root('width="2in" height="1in"')).toMatchObject({ width: 192, height: 96 });
    expect(root('')).toBeNull();
  });
});

describe('gradients that come in (SVG 2, chapter 14)', () => {
  const read = (defs: string, box = { x: 10, y: 20, width: 40, height: 80 }) => {
    const tree = readSvgTree(`<svg xmlns="http://www.w3.org/2000/svg">${defs}</svg>`);
    if (!tree.ok) throw new Error(tree.message);
    const byId = new Map(tree.root.children.map((one) => [one.attributes.id ?? '', one]));
    const notes: string[] = [];
    const note = (text: string): void => void notes.push(text);
    const source = { byId, sheet: new StyleSheet(note), measures: PLAIN_MEASURES, note };
    return { paint: readGradient('g', source, box, translation(0, 0)), notes };
  };
  const stops = '<stop stop-color="#ff0000"/><stop offset="1" stop-color="#0000ff" stop-opacity=".5"/>';

  it('lie over the box of what they paint, or where they say', () => {
    expect(read(`<linearGradient id="g" y2="1" x2="0">${stops}</linearGradient>`).paint).toMatchObject({
      kind: 'linear',
      matrix: { a: 0, b: 80, c: -40, d: 0, e: 10, f: 20 },
      stops: [
        { at: 0, hex: '#ff0000', opacity: 1 },
        { at: 1, hex: '#0000ff', opacity: 0.5 },
      ],
    });
    expect(
      read(
        `<radialGradient id="g" gradientUnits="userSpaceOnUse" cx="30" cy="40" r="20" fx="40" fy="40">${stops}</radialGradient>`,
      ).paint,
    ).toMatchObject({
      kind: 'radial',
      matrix: { a: 20, d: 20, e: 30, f: 40 },
      focus: { x: 0.5, y: 0 },
    });
  });

  it('keep a focus within their circle, and stops that rise', () => {
    const { paint } = read(
      `<radialGradient id="g" fx="9"><stop offset=".8" stop-color="#111111"/><stop offset=".2" stop-color="#222222"/></radialGradient>`,
    );
    if (paint?.kind !== 'radial') throw new Error('no gradient');
    expect(Math.hypot(paint.focus?.x ?? 0, paint.focus?.y ?? 0)).toBeCloseTo(0.999, 9);
    expect(paint.stops.map(({ at }) => at)).toEqual([0.8, 0.8]);
  });

  it('are plain where they have one stop or no way to go, nothing over a line, and never lead in a circle', () => {
    expect(read('<linearGradient id="g"><stop stop-color="#123456"/></linearGradient>').paint).toEqual({
      kind: 'plain',
      hex: '#123456',
      opacity: 1,
    });
    expect(read(`<linearGradient id="g" x2="0">${stops}</linearGradient>`).paint).toMatchObject({
      kind: 'plain',
      hex: '#0000ff',
    });
    expect(
      read(`<linearGradient id="g">${stops}</linearGradient>`, { x: 0, y: 0, width: 9, height: 0 }).paint,
    ).toBeNull();
    expect(read('<linearGradient id="g" href="#h"/><linearGradient id="h" href="#g"/>').paint).toBeNull();
    const many = Array.from(
      { length: 500 },
      (_, index) => `<stop offset="${index / 499}" stop-color="#${String(index).padStart(6, '0')}"/>`,
    ).join('');
    const { paint, notes } = read(`<linearGradient id="g">${many}</linearGradient>`);
    expect(paint?.kind === 'linear' && paint.stops.length).toBe(64);
    expect(notes).toEqual(['Of the 500 stops of a gradient 64 were kept.']);
  });
});

describe('a tile of another maker', () => {
  const piece = (x: number, y: number, slot = 'a', over: Partial<Drawn['element']> = {}): Drawn => {
    const path = transformPath(translation(x, y), rectanglePath(20, 20, 0));
    const element = { d: '', fill: slot, fillRule: 'nonzero' as const, stroke: null, opacity: 1, ...over };
    return { element, path, box: { x, y, width: 20, height: 20 }, clip: null };
  };
  const TILE = { width: 100, height: 100 };

  it('keeps a piece that wraps once, and cuts one that only crosses', () => {
    const kept = withinTile([piece(90, 40), piece(-10, 40), piece(40, 90), piece(300, 0)], TILE);
    expect(kept).toHaveLength(2);
    expect(kept[0]?.box).toMatchObject({ x: 90, width: 20 });
    expect(kept[1]?.box).toEqual({ x: 40, y: 90, width: 20, height: 10 });
  });

  it('takes no other piece for the rest of one: slot, opacity and place must be the same', () => {
    for (const other of [piece(-10, 40, 'b'), piece(-10, 41), piece(-10, 40, 'a', { opacity: 0.5 })])
      expect(withinTile([piece(90, 40), other], TILE).map(({ box }) => box.width)).toEqual([10, 10]);
  });

  it('has a ground where a plain rectangle comes first and covers it', () => {
    const whole = (over: Partial<Drawn['element']> = {}): Drawn => ({
      ...piece(0, 0, 'paper', over),
      path: rectanglePath(100, 100, 0),
      box: { x: 0, y: 0, ...TILE },
    });
    expect(groundOf([whole(), piece(0, 0)], TILE)).toBe('paper');
    expect(groundOf([piece(0, 0), whole()], TILE)).toBeNull();
    expect(groundOf([whole({ opacity: 0.9 })], TILE)).toBeNull();
    expect(groundOf([], TILE)).toBeNull();
  });
});

describe('a tile that is handed out', () => {
  const art = recipe({
    unit: { width: 40, height: 30 },
    motifs: [dot('d', 10)],
    placings: [place('d', 0, 0)],
    ground: { kind: 'slot', slot: 'paper' },
  });
  const colours = resolveSlots(art.slots, {});

  it('is one cell: a straight unit, or as many rows as a brick needs', () => {
    const size = (over: object) => {
      const tile = tileSvg(compileUnit({ ...art, ...over }), colours, { title: 'T' });
      return tile.ok ? [tile.width, tile.height] : tile.message;
    };
    expect(size({})).toEqual([40, 30]);
    expect(size({ repeat: { kind: 'brick', step: 1 / 3, run: 'progressive' } })).toEqual([40, 90]);
    expect(size({ repeat: { kind: 'half-drop', step: 0.5, run: 'alternating' } })).toEqual([80, 30]);
    expect(size({ repeat: { kind: 'brick', step: 0.3017, run: 'progressive' } })).toMatch(
      /no upright rectangle/,
    );
  });

  it('is written as CSS that no name breaks out of', () => {
    const tile = tileSvg(compileUnit(art), colours, { title: 'T</title><script>' });
    if (!tile.ok) throw new Error(tile.message);
    expect(tile.svg).not.toContain('<script>');
    const css = patternCss(compileUnit(art), colours, {
      name: 'a */ body{} /*',
      className: 'pattern-a',
      tile,
    });
    expect(css.match(/\*\//g)).toHaveLength(1);
    expect(css).toMatch(/background-size: 40px 30px;/);
    expect(css).toMatch(/background-color: #ffffff;/);
    expect(css).not.toMatch(/url\("[^"]*["()][^"]*"\);.*url/);
  });
});

describe('fills, ink and effects as markup', () => {
  it('blend by the W3C names, and say nothing where they lie plainly', () => {
    expect(blendText('normal')).toBe('');
    expect(blendText('color-dodge')).toBe(' style="mix-blend-mode:color-dodge"');
  });

  it('have gradients with equal ids for equal drawings, white ones for masks', () => {
    const matrix = { a: 50, b: 0, c: 0, d: 50, e: 0, f: 0 };
    const gradient = {
      kind: 'radial' as const,
      spread: 'pad' as const,
      matrix,
      stops: [
        { at: 0, colour: '#ff0000', opacity: 1 },
        { at: 1, colour: '#0000ff', opacity: 0.25 },
      ],
    };
    const one = gradientPaint(gradient);
    expect(one).toEqual(gradientPaint({ ...gradient }));
    expect(one.defs).toContain('gradientTransform="matrix(50 0 0 50 0 0)"');
    expect(one.defs).toContain('stop-opacity="0.25"');
    expect(gradientPaint(gradient, true).defs.match(/stop-color="#ffffff"/g)).toHaveLength(2);
    expect(isOpaqueGradient(gradient)).toBe(false);
    const mask = maskMarkup(
      'm',
      { kind: 'gradient', gradient },
      { x: 1, y: 2, width: 30, height: 40 },
      () => null,
    );
    expect(mask).toMatch(
      /^<mask id="m" maskUnits="userSpaceOnUse" x="1" y="2" width="30" height="40">.*<\/mask>$/,
    );
  });

  it('ink an area or a line with one paint', () => {
    expect(inkAttributes(null, '#111111', 0.5)).toEqual({ fill: '#111111', 'fill-opacity': '0.5' });
    const pen = { width: 3, cap: 'round' as const, join: 'bevel' as const, dashes: [4, 2] };
    expect(inkText(pen, 'url(#g)')).toBe(
      'fill="none" stroke="url(#g)" stroke-width="3" stroke-miterlimit="4" stroke-linecap="round" stroke-linejoin="bevel" stroke-dasharray="4 2"',
    );
  });

  it('reach with shadows as far as their blur, in the direction that they fall', () => {
    const box = { x: 0, y: 0, width: 10, height: 10 };
    const drop = { slot: 'ink', angle: 90, distance: 5, blur: 2, opacity: 0.5 };
    const { markup } = effectsFilter({ drop }, box, { ink: '#102030' });
    // 5 px down, three standard deviations of 2 px, and one more.
    expect(markup).toContain('x="-12" y="-12" width="34" height="34"');
    expect(markup).toMatch(/<feOffset dx="0" dy="5" result="fall"\/>/);
    expect(markup).toContain('flood-color="#102030" flood-opacity="0.5"');
    const relief = effectsFilter({ relief: { angle: 0, height: 2, softness: 0, strength: 1 } }, box, {});
    expect(relief.markup).toMatch(/#ffffff[\s\S]*dx="-2"[\s\S]*#000000[\s\S]*dx="2"/);
  });
});

describe('elements outside of what is drawn', () => {
  it('are left out one by one where each needs a layer, and their clip with them', () => {
    const far = drawing('d', 'M0 0h10v10h-10z');
    if (far.content.kind !== 'drawing') throw new Error('no drawing');
    const [element] = far.content.elements;
    const clip = { d: 'M0 0h5v5h-5z', rule: 'nonzero' as const };
    const moved = { ...element!, d: 'M9000 0h10v10h-10z', clip: { ...clip, d: 'M9000 0h5v5h-5z' } };
    const art = recipe({
      motifs: [{ ...far, content: { ...far.content, elements: [{ ...element!, clip }, moved] } }],
      placings: [place('d', 10, 10)],
      unit: { width: 20_000, height: 100 },
    });
    const scene = compileUnit(art);
    expect(scene.layered).toBe(true);
    const tile = tileSvg({ ...scene, cell: { ...scene.cell, width: 100 } }, resolveSlots(art.slots, {}), {
      title: 'T',
    });
    expect(tile.ok && tile.svg.match(/<clipPath/g)?.length).toBe(1);
    expect(plainElement([], {}).clip).toBeNull();
    expect(block('b', 1, 1).id).toBe('b');
  });
});
