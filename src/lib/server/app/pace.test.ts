import { setImmediate as turn } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import { Pace } from './pace';

describe('requests', () => {
  it('begin at once where nothing else does', async () => {
    const pace = new Pace();
    let begun = false;
    void pace.begin('a').then(() => (begun = true));
    await Promise.resolve();
    await Promise.resolve();
    expect(begun).toBe(true);
  });

  it('begin one to a turn of the loop, and a newcomer before the rest of a flood', async () => {
    const pace = new Pace();
    const order: string[] = [];
    const ask = (asker: string, name: string): void =>
      void pace.begin(asker).then((may) => order.push(may ? name : `${name} refused`));
    for (let count = 0; count < 100; count += 1) ask('flood', `f${count}`);
    await turn();
    expect(order.length).toBeLessThan(5);
    const before = order.length;
    ask('light', 'light');
    for (let waited = 0; waited < 3; waited += 1) await turn();
    expect(order.indexOf('light')).toBeGreaterThanOrEqual(0);
    expect(order.indexOf('light') - before).toBeLessThanOrEqual(2);
    while (order.length < 101) await turn();
    expect(order.filter((name) => name !== 'light')).toEqual(
      Array.from({ length: 100 }, (_, count) => `f${count}`),
    );
  });

  it('are refused where too many wait, and taken again once those have begun', async () => {
    const pace = new Pace();
    const all = Array.from({ length: 5001 }, () => pace.begin('flood'));
    expect(await pace.begin('flood')).toBe(false);
    expect(await Promise.all(all)).not.toContain(false);
    await turn();
    expect(await pace.begin('flood')).toBe(true);
  });
});
