import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sameValue } from './same';

/** The same value with the keys of all its objects in another order. */
function turned(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(turned);
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, held]) => [key, turned(held)]),
  );
}
/** JSON with the keys of all objects in alphabetical order. */
const ordered = (value: unknown): string =>
  JSON.stringify(value, (_key, held: unknown) =>
    held !== null && typeof held === 'object' && !Array.isArray(held)
      ? Object.fromEntries(Object.entries(held).sort(([a], [b]) => (a < b ? -1 : 1)))
      : held,
  );

describe('the same value', () => {
  it('whatever the order of its keys, and as JSON in one order says it', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 4 }), fc.jsonValue({ maxDepth: 4 }), (one, other) => {
        expect(sameValue(one, turned(one))).toBe(true);
        // JSON writes -0 as 0, so what has one is left out of the comparison.
        if (!ordered([one, other]).includes('-0') && !Object.is(one, -0))
          expect(sameValue(one, other)).toBe(ordered(one) === ordered(other));
      }),
      { numRuns: 500 },
    );
  });

  it('with a key that holds nothing, and not with one that holds null', () => {
    expect(sameValue({ a: 1, link: undefined }, { a: 1 })).toBe(true);
    expect(sameValue({ a: 1, link: null }, { a: 1 })).toBe(false);
    expect(sameValue([1, undefined], [1])).toBe(false);
    expect(sameValue([], {})).toBe(false);
  });
});
