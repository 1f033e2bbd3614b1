import { describe, expect, it } from 'vitest';
import { filledShape } from '../../../../tests/support/scenes';
import { apply, scaling, translation, chain } from '../geom/affine';
import type { PatternFill } from './fill';
import { formOfPath, layoutFormPath, brushForm } from './form';
import { formatPath, parsePath, pathBox } from '../geom/path';
import { freshPage, pagePatternMatrix, shapeBox, type Layout, type Shape } from './layout';
import { resizePage } from './page';
import { sayTry, sheetPage, triedShape, type StrikeSheet } from './strike-off';
import { withOutline } from './transform';

const shape = (over: Partial<PatternFill> = {}): Shape => ({
  ...filledShape(
    { x: 10, y: 20, width: 50, height: 40 },
    { scaleX: 0.5, scaleY: 0.7, rotation: 30, offset: { x: 3, y: 4 }, ...over },
  ),
  rotation: 15,
});
const fillOf = (one: Shape | undefined): PatternFill => one?.fills[0] as PatternFill;
const layout: Layout = { ...freshPage(100, 80), guides: [{ axis: 'y', at: 40 }], shapes: [shape()] };

describe('a page of another size', () => {
  it('leaves the shapes, takes them along at the patterns’ scale, or scales everything into its middle', () => {
    expect(resizePage(layout, { width: 200, height: 80 }, 'page').shapes).toBe(layout.shapes);
    const [along] = resizePage(
      { ...layout, shapes: [{ ...shape(), rotation: 0 }] },
      { width: 200, height: 160 },
      'shapes',
    ).shapes;
    expect(along).toMatchObject({ x: 20, y: 40, width: 100, height: 80 });
    expect(fillOf(along)).toEqual(fillOf(shape()));
    const all = resizePage(layout, { width: 400, height: 160 }, 'everything');
    const map = chain(translation(100, 0), scaling(2));
    const before = chain(map, pagePatternMatrix(shape(), fillOf(shape())));
    const after = pagePatternMatrix(all.shapes[0]!, fillOf(all.shapes[0]));
    for (const [key, value] of Object.entries(before)) expect(after[key as 'a']).toBeCloseTo(value, 6);
    expect(fillOf(all.shapes[0])).toMatchObject({ offset: { x: 6, y: 8 } });
    expect(all.guides).toEqual([{ axis: 'y', at: 80 }]);
  });
});

describe('drawn outlines', () => {
  it('lie in the frame that they were made in, are stretched with it, and are reshaped where they lie', () => {
    const read = parsePath('M10 10L40 10L40 30Z');
    const made = formOfPath(read.ok ? read.path : [], (path) => formatPath(path));
    expect(made).toMatchObject({
      frame: { x: 10, y: 10, width: 30, height: 20 },
      form: { width: 30, height: 20 },
    });
    expect(pathBox(layoutFormPath(made!.form, 60, 10))).toEqual({ x: 0, y: 0, width: 60, height: 10 });
    const before = shape();
    const wider = parsePath('M0 0L80 0L80 40L0 40Z');
    const after = withOutline(before, wider.ok ? wider.path : [])!;
    expect(after).toMatchObject({ width: 80, height: 40, rotation: 15 });
    const plane = (one: Shape) => apply(pagePatternMatrix(one, fillOf(one)), { x: 7, y: 9 });
    expect(plane(after).x).toBeCloseTo(plane(before).x, 6);
    expect(plane(after).y).toBeCloseTo(plane(before).y, 6);
    expect(withOutline(before, [])).toBeNull();
  });

  it('a brush stroke is as wide as the brush, a stroke lies in the middle of the outline', () => {
    const made = brushForm(
      [
        { x: 20, y: 20 },
        { x: 80, y: 20 },
      ],
      10,
      0.4,
    )!;
    expect(made.frame).toEqual({ x: 15, y: 15, width: 70, height: 10 });
    const box = pathBox(layoutFormPath(made.form, 70, 10))!;
    expect(box.height).toBeCloseTo(10, 1);
  });
});

describe('a sheet of try-outs', () => {
  const sheet: StrikeSheet = {
    shape: shape(),
    fill: 'fill',
    across: { property: 'scale', values: [0.25, 7] },
    down: { property: 'colourway', values: [null, 'sun'] },
  };

  it('changes what is tried and nothing else; a joined scale keeps its proportions', () => {
    const tried = triedShape(sheet, 1, 1);
    const { scaleX, scaleY, colourway, ...rest } = fillOf(tried);
    expect([scaleX, scaleY, colourway]).toEqual([7, 9.8, 'sun']);
    const { scaleX: _x, scaleY: _y, colourway: _w, ...before } = fillOf(sheet.shape);
    expect(rest).toEqual(before);
    expect({ ...tried, fills: [] }).toEqual({ ...sheet.shape, fills: [] });
  });

  it('stands on a page, all at their own size, named along both sides', () => {
    const { layout: page, labels } = sheetPage(sheet, (id) => id.toUpperCase());
    expect(page.shapes.map(({ width, height }) => [width, height])).toEqual(Array(4).fill([50, 40]));
    expect(labels.map(({ text }) => text)).toEqual(['25 %', '700 %', 'own colours', 'SUN']);
    const boxes = page.shapes.map(shapeBox);
    for (const [index, box] of boxes.entries())
      for (const other of boxes.slice(index + 1))
        expect(
          box.x + box.width <= other.x || box.y + box.height <= other.y || other.x + other.width <= box.x,
        ).toBe(true);
    expect(sayTry({ property: 'ground', values: ['own', 'none', '#ff0000'] }, 2, String)).toBe('#ff0000');
  });
});
