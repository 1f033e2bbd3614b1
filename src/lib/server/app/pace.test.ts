import { setImmediate as turn } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import { Pace } from './pace';

/** Asks for a beginning, notes it under its name, and is answered a few turns of the loop later. */
function asking(pace: Pace) {
  const order: string[] = [];
  let most = 0;
  let now = 0;
  const ask = async (asker: string, name: string, answered: Promise<unknown> = turn()): Promise<void> => {
    const free = await pace.begin(asker);
    order.push(free ? name : `${name} refused`);
    most = Math.max(most, (now += 1));
    await answered;
    await turn();
    now -= 1;
    free?.();
  };
  return { order, ask, most: () => most };
}

describe('requests', () => {
  it('begin at once where few others do, one to a turn of the loop', async () => {
    const { order, ask } = asking(new Pace());
    void ask('a', 'one');
    void ask('a', 'two');
    await Promise.resolve();
    await Promise.resolve();
    expect(order).toEqual(['one']);
    for (let waited = 0; waited < 4; waited += 1) await turn();
    expect(order).toEqual(['one', 'two']);
  });

  it('begin a few at a time, in the order of each asker, and a newcomer before the rest of a flood', async () => {
    const { order, ask, most } = asking(new Pace());
    const all = Array.from({ length: 100 }, (_, count) => ask('flood', `f${count}`));
    await turn();
    expect(order.length).toBeLessThanOrEqual(4);
    const before = order.length;
    const light = ask('light', 'light');
    await light;
    expect(order.indexOf('light') - before).toBeLessThanOrEqual(4);
    await Promise.all(all);
    expect(order.filter((name) => name !== 'light')).toEqual(
      Array.from({ length: 100 }, (_, count) => `f${count}`),
    );
    expect(most()).toBeLessThanOrEqual(4);
  });

  it('that wait for child processes hold nobody up', async () => {
    const { order, ask } = asking(new Pace());
    let answer = (): void => undefined;
    const slow = new Promise<void>((resolve) => (answer = resolve));
    const all = Array.from({ length: 10 }, (_, count) => ask('slow', `s${count}`, slow));
    await ask('light', 'light');
    expect(order).toContain('light');
    answer();
    await Promise.all(all);
    expect(order).toHaveLength(11);
  });

  it('are refused where too many wait, and taken again once those have their answers', async () => {
    const pace = new Pace();
    const { order, ask } = asking(pace);
    const all = Array.from({ length: 5003 }, (_, count) => ask('flood', `f${count}`));
    await ask('flood', 'last');
    expect(order).toContain('last refused');
    await Promise.all(all);
    await ask('flood', 'again');
    expect(order).toContain('again');
  });
});
