import { freshPage, patternFills } from '../recipe/layout';
import { describe, expect, it } from 'vitest';
import { block, dot, place, recipe } from '../../../../tests/support/recipes';
import { filledPage, filledShape } from '../../../../tests/support/scenes';
import { lowerLayout } from '../draw/lower';
import { patternLookup } from '../scene/library';
import { compileUnit, piecesOver } from '../scene/unit';
import { regionOfBox } from '../lattice/meet';
import { layoutSvg } from './layout';

const art = recipe({
  repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
  ground: { kind: 'slot', slot: 'paper' },
  motifs: [dot('d', 40)],
  placings: [place('d', 95, 50)],
});
const size = { width: '300', height: '300' };

describe('a layout as SVG', () => {
  it('keeps patterns live: one base for equal drawings, a pattern of its own for every fill', () => {
    const pattern = { id: 'pattern', name: 'P', newest: 1, recipes: { 1: art }, colourways: [] };
    const shapes = [0, 1, 2].map((index) => ({
      ...filledShape(
        { x: index * 100, y: 0, width: 90, height: 90 },
        { rotation: index * 10, colours: index === 2 ? { ink: { colour: '#ff0000' } } : {} },
      ),
      id: `s${index}`,
    }));
    const layout = { ...freshPage(300, 300), shapes };
    const svg = layoutSvg(lowerLayout(layout, patternLookup([pattern])), { patterns: 'live', ...size });
    expect(svg.match(/<pattern [^>]*width=/g)).toHaveLength(2);
    expect(svg.match(/<pattern [^>]*patternTransform=/g)).toHaveLength(3);
    expect(svg).not.toContain('clipPath');
  });

  it('expands patterns: clipped copies, no <pattern>, the ground once', () => {
    const svg = layoutSvg(filledPage(art, 300), { patterns: 'expanded', ...size });
    expect(svg).not.toContain('<pattern');
    expect(svg.match(/<use /g)?.length).toBeGreaterThan(8);
    expect(svg.match(/fill="#ffffff"/g)).toHaveLength(1);
  });

  it('keeps the ground of a use apart from the pattern: own, none, or another colour with its own opacity', () => {
    const svg = (ground: object) => layoutSvg(filledPage(art, 300, ground), { patterns: 'live', ...size });
    expect(svg({})).toContain('fill="#ffffff"/>');
    expect(svg({ ground: { kind: 'none' } })).not.toContain('#ffffff');
    expect(svg({ ground: { kind: 'colour', colour: '#00ff00' }, groundOpacity: 0.25, opacity: 0.5 })).toMatch(
      /fill="#00ff00" fill-opacity="0.25".*fill="url\(#f\d+\)" fill-opacity="0.5"/,
    );
  });

  it('shows the revision at which a use is held', () => {
    const pattern = {
      id: 'pattern',
      name: 'P',
      newest: 2,
      recipes: { 1: art, 2: recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] }) },
      colourways: [],
    };
    const lookup = patternLookup([pattern]);
    const keyAt = (held: number | null) => {
      const [fill] = patternFills(filledShape({ x: 0, y: 0, width: 9, height: 9 }, { held }));
      return fill && lookup(fill)?.key;
    };
    expect([keyAt(null), keyAt(1)]).toEqual(['pattern@2', 'pattern@1']);
  });

  it('escapes names', () => {
    const scene = filledPage(art, 300);
    const svg = layoutSvg(
      { ...scene, shapes: scene.shapes.map((shape) => ({ ...shape, name: '<b>"&\u0000' })) },
      { patterns: 'live', ...size, title: '</svg>' },
    );
    expect(svg).toContain('<title>&lt;b&gt;&quot;&amp;</title>');
    expect(svg).toContain('<title>&lt;/svg&gt;</title>');
  });
});

describe('a unit', () => {
  it('draws a piece that crosses an edge again exactly one lattice vector away', () => {
    const scene = compileUnit(art);
    const laid = piecesOver(scene, regionOfBox({ x: 0, y: 0, width: 100, height: 100 }));
    expect(laid.map(({ offset }) => offset)).toEqual(
      expect.arrayContaining([
        { x: 0, y: 0 },
        { x: -100, y: 0 },
      ]),
    );
  });
});
