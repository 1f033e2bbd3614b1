import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { block, dot, place, recipe } from '../../../../tests/support/recipes';
import { IDENTITY, rotation, scaling } from '../geom/affine';
import { pathBox, parsePath } from '../geom/path';
import { startMeasured } from '../recipe/measured';
import type { Recipe } from '../recipe/recipe';
import { compileUnit } from '../scene/unit';
import { Drawing, pathText } from './drawing';
import { PdfFile, say, sayMatrix } from './file';
import { boxThrough, isSolid } from './ink';
import { onPaper } from './page';
import { tilingOf } from './unit';

const slots = [
  { id: 'ink', name: 'Ink', colour: '#b02030' as const },
  { id: 'deep', name: 'Deep', colour: '#204080' as const },
];
const unit = (over: Parameters<typeof recipe>[0]): Recipe =>
  recipe({ unit: { width: 40, height: 30 }, slots, ...over });

describe('how a pattern repeats as a PDF pattern', () => {
  const apart = { motifs: [dot('d', 16)], placings: [place('d', 20, 15)] };

  it('is by whole units where they stay apart: as many tilings as a cell has units', () => {
    expect(tilingOf(compileUnit(unit(apart)))).toEqual([{ x: 0, y: 0 }]);
    const drop = unit({
      ...apart,
      repeat: { kind: 'half-drop', step: 0.5, run: 'alternating' },
    } as Parameters<typeof recipe>[0]);
    const offsets = tilingOf(compileUnit(drop))!;
    expect(offsets).toHaveLength(2);
    // The second column stands half a unit lower.
    const [one, other] = offsets.sort((a, b) => a.x - b.x);
    expect([other!.x - one!.x, Math.abs(other!.y - one!.y)]).toEqual([40, 15]);
  });

  it('is copy by copy where units lie over each other, meet edge to edge, or run on', () => {
    const crossing = unit({ motifs: [block('b', 60, 8)], placings: [place('b', 20, 15)] });
    const meeting = unit({
      motifs: [block('a', 20, 30), block('b', 20, 30, 'deep')],
      placings: [place('a', 10, 15), place('b', 30, 15)],
    });
    const stripes: Recipe = {
      ...{ kind: 'measured', version: 2, measure: 'px', slots, ground: { kind: 'clear' } },
      measured: startMeasured('stripes', ['ink', 'deep']),
    };
    for (const of of [crossing, meeting, stripes]) expect(tilingOf(compileUnit(of))).toBeNull();
    expect(tilingOf(compileUnit(unit({})))).toBeNull();
  });

  it('is told in time of thousands of pieces, whether they meet those of other units or not', () => {
    const many = (shift: number): Recipe =>
      unit({
        unit: { width: 1000, height: 1000 },
        motifs: [dot('d', 6)],
        placings: Array.from({ length: 4000 }, (_one, at) =>
          place('d', 10 + (at % 64) * 15.2 + shift, 10 + Math.floor(at / 64) * 15.2, { id: `p${at}` }),
        ),
      });
    expect(tilingOf(compileUnit(many(0)))).toHaveLength(1);
    // Moved over the edge by half it is still apart; laid as wide as the unit it meets its neighbour.
    expect(tilingOf(compileUnit(many(500)))).toHaveLength(1);
    const wide = unit({ motifs: [block('b', 40.5, 4)], placings: [place('b', 20, 15)] });
    expect(tilingOf(compileUnit(wide))).toBeNull();
  });

  it('takes art that crosses the edge of its unit uncut, as long as it stays apart from others', () => {
    const over = unit({ motifs: [dot('d', 16)], placings: [place('d', 2, 3)] });
    expect(tilingOf(compileUnit(over))).toHaveLength(1);
  });
});

describe('what is written in a content stream', () => {
  it('has numbers without exponents, to a millionth', () => {
    expect([1e-9, -1e-9, 0.1 + 0.2, 1234567.25, -3].map(say)).toEqual(['0', '0', '0.3', '1234567.25', '-3']);
    fc.assert(
      fc.property(fc.double({ min: -1e5, max: 1e5, noNaN: true }), (value) => {
        expect(say(value)).toMatch(/^-?\d+(\.\d+)?$/);
        expect(Number(say(value))).toBeCloseTo(value, 5);
      }),
    );
    expect(sayMatrix(scaling(0.0000123))).toBe('0.0000123 0 0 0.0000123 0 0');
  });

  it('has paths as moves, lines and curves, closed where they are', () => {
    const read = parsePath('M1 2L3 4C5 6 7 8 9 10Z');
    expect(read.ok && pathText(read.path)).toBe('1 2 m\n3 4 l\n5 6 7 8 9 10 c\nh');
  });

  it('keeps states balanced, and leaves out those in which nothing is drawn', async () => {
    const file = await PdfFile.begin({ title: 'T' });
    const on = new Drawing(file, { x: 0, y: 0, width: 100, height: 100 });
    on.within(scaling(2), () => undefined);
    expect(on.empty).toBe(true);
    on.within(scaling(2), () => {
      // What is seen is told in the present space.
      expect(on.around).toEqual({ x: 0, y: 0, width: 50, height: 50 });
      on.within(rotation(30), () => on.rectangle({ x: 0, y: 0, width: 5, height: 5 }, '#ff0000'));
    });
    expect(on.matrix).toBe(IDENTITY);
    const words = on.content.split(/\s+/);
    expect(words.filter((one) => one === 'q').length).toBe(words.filter((one) => one === 'Q').length);
    expect(on.content).toContain('1 0 0 rg');
  });

  it('names a resource once, however often it is asked for', async () => {
    const file = await PdfFile.begin({ title: 'T' });
    let made = 0;
    const name = (key: string): string => file.resource('XObject', key, () => file.stream(`${(made += 1)}`));
    expect([name('a'), name('a'), name('b')]).toEqual([name('a'), name('a'), name('b')]);
    expect(made).toBe(2);
    expect(name('a')).not.toBe(name('b'));
  });
});

describe('a page on paper', () => {
  it('has its trim within its bleed within room for marks, 72 pt to the inch', () => {
    const { media, bleedBox, trim, matrix } = onPaper({ width: 120, height: 216 }, { bleed: 12, room: 30 });
    expect(media).toEqual({ x: 0, y: 0, width: 150, height: 222 });
    expect(bleedBox).toEqual({ x: 30, y: 30, width: 90, height: 162 });
    expect(trim).toEqual({ x: 39, y: 39, width: 72, height: 144 });
    // The upper left corner of the page is the upper left of its bleed: PDF counts from below.
    expect([matrix.e, matrix.f]).toEqual([30, 192]);
  });

  it('tells the box about a turned box, and gradients that let nothing through', () => {
    const read = parsePath('M0 0L10 0L10 4L0 4Z');
    const box = boxThrough(
      rotation(90),
      (read.ok && pathBox(read.path)) || { x: 0, y: 0, width: 0, height: 0 },
    );
    expect([box.x, box.y, box.width, box.height].map((one) => Math.round(one) + 0)).toEqual([-4, 0, 4, 10]);
    const stops = [{ at: 0, colour: '#000000' as const, opacity: 1 }];
    expect(isSolid({ stops })).toBe(true);
    expect(isSolid({ stops: [...stops, { at: 1, colour: '#ffffff', opacity: 0.99 }] })).toBe(false);
  });
});
