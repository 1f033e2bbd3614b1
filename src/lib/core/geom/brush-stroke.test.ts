import { describe, expect, it } from 'vitest';
import { paintedArea, partsOfStroke, strokeArea } from './brush-stroke';

const brush = { size: 10, softness: 0.5, strength: 1 };
const long = { ...brush, points: [0, 0, 40, 0, 80, 30, 120, 30, 120, 90, 20, 90] };

describe('a stroke', () => {
  it('is counted by its width along its length, and by the rectangle about it', () => {
    expect(paintedArea({ ...brush, points: [5, 5] })).toBe(100);
    // A dot, and 50 px on (3, 4, 5) with a brush of 10 px.
    expect(paintedArea({ ...brush, points: [0, 0, 30, 40] })).toBe(100 + 10 * 60);
    expect(strokeArea({ ...brush, points: [0, 0, 30, 40] })).toBe(40 * 50);
  });

  it('falls into parts end to end, none larger than asked for, each with its brush', () => {
    const parts = partsOfStroke(long, 2400);
    expect(parts.length).toBeGreaterThan(2);
    for (const part of parts) {
      expect(strokeArea(part)).toBeLessThanOrEqual(2400);
      expect(part).toMatchObject(brush);
    }
    parts
      .slice(1)
      .forEach((part, index) => expect(part.points.slice(0, 2)).toEqual(parts[index]!.points.slice(-2)));
    expect(parts[0]!.points.slice(0, 2)).toEqual([0, 0]);
    expect(parts.at(-1)!.points.slice(-2)).toEqual([20, 90]);
  });

  it('stays whole where it fits, and where its brush alone is too large', () => {
    expect(partsOfStroke(long, 1e9)).toEqual([long]);
    const dot = { ...brush, points: [3, 4] };
    expect(partsOfStroke(dot, 50)).toEqual([dot]);
  });
});
