import { describe, expect, it } from 'vitest';
import { harm } from '../harm/run';
import { kills } from '../harm/kills';

/** The short form of `npm run harm`: every hostile file once, a few cases of chance, a few kills of each kind. */
describe('a server that harm is done to', () => {
  it('bears hostile files, mutated ones, and recipes whose numbers come to too much', async () => {
    const done = await harm(30, { seed: 20, quick: true });
    expect(done.faults).toEqual([]);
    expect(done.alive).toBe(true);
    expect(done.cases).toBeGreaterThan(140);
    expect(done.light.count).toBeGreaterThan(100);
  }, 600_000);

  it('has lost nothing and left nothing half done, whenever it was killed', async () => {
    const done = await kills(12, { seed: 4 });
    expect(done.faults).toEqual([]);
    expect(Object.values(done.byKind)).toEqual([2, 2, 2, 2, 2, 2]);
  }, 600_000);
});
