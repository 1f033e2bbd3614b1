import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../core/num/random';
import { Turns, type Turn } from './turns';

const turn = (asker: string, value: number): Turn<number> => ({ asker, value });

describe('turns', () => {
  it('go round among those who ask, each one’s asks in their order', () => {
    const turns = new Turns<number>();
    for (const [asker, value] of [
      ['a', 1],
      ['a', 2],
      ['a', 3],
      ['b', 4],
      ['c', 5],
      ['b', 6],
    ] as const)
      turns.add(turn(asker, value));
    const order = Array.from({ length: 6 }, () => turns.next()?.value);
    expect(order).toEqual([1, 4, 5, 2, 6, 3]);
    expect(turns.next()).toBeNull();
  });

  it('let one who asks late go before the hundredth ask of another', () => {
    const turns = new Turns<number>();
    for (let value = 0; value < 100; value += 1) turns.add(turn('many', value));
    turns.next();
    turns.add(turn('one', 100));
    const order = Array.from({ length: 3 }, () => turns.next()?.value);
    expect(order.indexOf(100)).toBeLessThan(2);
  });

  it('say truly how many come before an ask, whoever asks and goes', () => {
    const random = seededRandom(3);
    for (let round = 0; round < 200; round += 1) {
      const turns = new Turns<number>();
      const all = Array.from({ length: 1 + Math.floor(random() * 12) }, (_, index) =>
        turn('abc'[Math.floor(random() * 3)] ?? 'a', index),
      );
      for (const one of all) turns.add(one);
      for (let served = Math.floor(random() * 4); served > 0; served -= 1) turns.next();
      const gone = all[Math.floor(random() * all.length)]!;
      turns.remove(gone);
      const said = new Map(all.map((one) => [one, turns.ahead(one)]));
      for (let at = 0; ; at += 1) {
        const next = turns.next();
        if (!next) break;
        expect(said.get(next)).toBe(at);
        said.delete(next);
      }
      // Those that are not in the queue any more have no place in it.
      for (const place of said.values()) expect(place).toBeNull();
    }
  });
});
