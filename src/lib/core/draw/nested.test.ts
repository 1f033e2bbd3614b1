import { describe, expect, it } from 'vitest';
import { colourFill, coveringLayout, type Fill } from '../recipe/fill';
import { freshPage, freshShape, type Layout, type Shape } from '../recipe/layout';
import { LIMITS } from '../recipe/limits';
import { patternLookup } from '../scene/library';
import { listsIn } from './list';
import { lowerLayout } from './lower';
import { IN_ITSELF, nestingFault } from './nested';

let count = 0;
const box = (fills: Fill[]): Shape =>
  freshShape({
    ...{ id: `s${(count += 1)}`, name: 'S', form: { kind: 'rectangle', radius: 0 } },
    ...{ x: 10, y: 20, width: 100, height: 50, fills },
  });
const within = (id: string): Shape =>
  box([coveringLayout(`f${(count += 1)}`, id, { width: 200, height: 100 }, { width: 100, height: 50 })]);
const plain = (): Shape => box([colourFill(`c${(count += 1)}`, { colour: '#204060' })]);
const page = (...shapes: Shape[]): Layout => ({ ...freshPage(200, 100), shapes });
const all = (pages: Record<string, Layout>): Map<string, Layout> => new Map(Object.entries(pages));

describe('layouts that lie in each other', () => {
  it('are refused in themselves, directly and by way of others', () => {
    expect(nestingFault('a', all({ a: page(within('a')) }))).toBe(IN_ITSELF);
    const round = all({ a: page(within('b')), b: page(within('c')), c: page(within('a')) });
    expect(nestingFault('a', round)).toBe(IN_ITSELF);
    expect(nestingFault('a', all({ a: page(within('b'), within('b')), b: page(plain()) }))).toBeNull();
  });

  it('go so deep and no deeper', () => {
    const chain = (depth: number): Map<string, Layout> =>
      new Map(
        Array.from({ length: depth + 1 }, (_one, at) => [
          `p${at}`,
          at < depth ? page(within(`p${at + 1}`)) : page(plain()),
        ]),
      );
    expect(nestingFault('p0', chain(LIMITS.nestedDepth))).toBeNull();
    expect(nestingFault('p0', chain(LIMITS.nestedDepth + 1))).toContain('at most 4 deep');
  });

  it('are as deep as the longest way down, whichever way was looked at first', () => {
    const pages = all({
      // By itself “c” is two above the bottom; by way of “a” and “b” it lies deeper.
      p0: page(within('c'), within('a')),
      ...{ a: page(within('b')), b: page(within('c')), c: page(within('d')), d: page(within('e')) },
      e: page(plain()),
    });
    expect(nestingFault('p0', pages)).toContain('at most 4 deep');
    expect(nestingFault('a', pages)).toBeNull();
  });

  it('are so many and no more', () => {
    const many = (count_: number): Map<string, Layout> =>
      all({
        p0: page(...Array.from({ length: count_ }, (_one, at) => within(`q${at}`))),
        ...Object.fromEntries(Array.from({ length: count_ }, (_one, at) => [`q${at}`, page(plain())])),
      });
    expect(nestingFault('p0', many(LIMITS.nestedLayouts))).toBeNull();
    expect(nestingFault('p0', many(LIMITS.nestedLayouts + 1))).toContain('at most 40 others');
  });

  it('are counted with all that lies in them, each time that it is drawn, before anything is', () => {
    // Eight in eight in eight in eight: 4,096 shapes at the bottom, 4,680 in all; nine come to 7,380.
    const powers = (each: number): Map<string, Layout> =>
      all({
        p0: page(...Array.from({ length: each }, () => within('p1'))),
        p1: page(...Array.from({ length: each }, () => within('p2'))),
        p2: page(...Array.from({ length: each }, () => within('p3'))),
        p3: page(...Array.from({ length: each }, plain)),
      });
    expect(nestingFault('p0', powers(8))).toBeNull();
    expect(nestingFault('p0', powers(9))).toContain('more than 5,000 shapes');
    const list = lowerLayout(powers(8).get('p0')!, patternLookup([], powers(8)));
    const drawn = listsIn(list).reduce((sum, one) => sum + one.list.shapes.length, 0);
    expect(drawn).toBe(8 + 64 + 512 + 4096);
    expect(lowerLayout(page(within('p0')), patternLookup([], powers(9))).shapes[0]!.layers).toEqual([]);
  });

  it('are drawn through the fill’s place, each page lowered once; what lies in itself ends', () => {
    const pages = all({ inner: page(plain()) });
    const list = lowerLayout(page(within('inner'), within('inner')), patternLookup([], pages));
    const items = list.shapes.map((shape) => shape.layers[0]!.items[0]!);
    const [first, second] = items;
    if (first?.kind !== 'page' || second?.kind !== 'page') throw new Error('There is no page.');
    // A page of 200 × 100 covers a frame of 100 × 50 at one half.
    expect(first.matrix).toEqual({ a: 0.5, b: 0, c: 0, d: 0.5, e: 0, f: 0 });
    expect(second.list).toBe(first.list);
    expect(listsIn(list).map(({ scale }) => scale)).toEqual([1, 0.5, 0.5]);
    const looped = all({ a: page(within('a'), plain()) });
    expect(
      lowerLayout(looped.get('a')!, patternLookup([], looped)).shapes.map((one) => one.layers.length),
    ).toEqual([0, 1]);
  });
});
