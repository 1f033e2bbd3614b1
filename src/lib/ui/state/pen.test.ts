import { describe, expect, it } from 'vitest';
import { formatPath } from '$lib/core/geom/path';
import { Pen } from './pen.svelte';

describe('a path set point by point', () => {
  it('is straight where points are pressed and bends where handles are pulled', () => {
    const pen = new Pen();
    pen.add({ x: 0, y: 0 });
    pen.add({ x: 10, y: 0 });
    pen.pull({ x: 12, y: 4 });
    pen.add({ x: 20, y: 10 });
    const path = pen.finish();
    expect(path && formatPath(path)).toBe('M0 0C0 0 8 -4 10 0C12 4 20 10 20 10');
    expect(pen.nodes).toEqual([]);
  });

  it('closes at its first point, from three points on', () => {
    const pen = new Pen();
    pen.add({ x: 0, y: 0 });
    pen.add({ x: 10, y: 0 });
    expect(pen.closes({ x: 1, y: 1 }, 3)).toBe(false);
    pen.add({ x: 5, y: 8 });
    expect(pen.closes({ x: 1, y: 1 }, 3)).toBe(true);
    const path = pen.finish(true);
    expect(path && formatPath(path)).toBe('M0 0L10 0L5 8Z');
  });

  it('keeps to steps of 15° from its last point when asked', () => {
    const pen = new Pen();
    pen.add({ x: 0, y: 0 });
    const { x, y } = pen.inSteps({ x: 10, y: 9 }, 15);
    expect(x).toBeCloseTo(y, 9);
    expect(Math.hypot(x, y)).toBeCloseTo(Math.hypot(10, 9), 9);
  });

  it('is nothing with fewer than two points, or when it is given up', () => {
    const pen = new Pen();
    pen.add({ x: 0, y: 0 });
    expect(pen.finish()).toBe(null);
    pen.add({ x: 0, y: 0 });
    pen.cancel();
    expect(pen.nodes).toEqual([]);
  });
});
