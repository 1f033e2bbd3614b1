import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { openProcesses, whyFailed, type Processes } from '../../src/lib/server/processes/pool';
import { LANES, WORK_LIMITS } from '../../src/lib/server/processes/limits';

/** The real child processes: ended when they must be, replaced, and nobody else the worse for it. */
const folder = mkdtempSync(join(tmpdir(), 'isle-processes-'));
const log: string[] = [];
const pools: Processes[] = [];
const open = (): Processes => {
  const pool = openProcesses((line) => log.push(line));
  pools.push(pool);
  return pool;
};
afterAll(async () => {
  await Promise.all(pools.map((pool) => pool.close()));
  rmSync(folder, { recursive: true, force: true });
});

const svg = (body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="99" height="99">${body}</svg>`;
const SMALL = { fileName: 'a.svg', svg: svg('<path d="M0 0h9v9z"/>') };
/** Takes seconds to read: a circle cut by thousands of others. */
const HEAVY = {
  fileName: 'b.svg',
  svg: svg(`<g opacity=".5">${'<text font-family="Bitter">Heavy</text>'.repeat(9000)}</g>`),
};

describe('child processes', () => {
  it('answer, and go on answering after one has been ended in the middle of something', async () => {
    const pool = open();
    expect(await pool.run('readMotif', SMALL)).toMatchObject({ ok: true });
    const abort = new AbortController();
    const stopped = pool.run('readMotif', HEAVY, { signal: abort.signal });
    const beside = pool.run('readMotif', SMALL);
    setTimeout(() => abort.abort(), 60);
    const from = performance.now();
    expect(await stopped).toMatchObject({ ok: false, failure: { code: 'cancelled' } });
    expect(performance.now() - from).toBeLessThan(1500);
    expect(await beside).toMatchObject({ ok: true });
    expect(await pool.run('readMotif', SMALL)).toMatchObject({ ok: true });
  });

  it('give everyone a turn, tell the place in the queue, and refuse what would wait too long', async () => {
    const pool = open();
    /** Names in the order in which their work began; which of two that run beside each other ends first is the machine's doing. */
    const began: string[] = [];
    const places: (number | null)[] = [];
    const run = (asker: string, name: string) =>
      pool.run('readMotif', SMALL, {
        asker,
        ahead: (count) => {
          if (count === null) began.push(name);
          if (asker === 'one') places.push(count);
        },
      });
    // Processes that are there already: one that has yet to start would take its turn late.
    await Promise.all(Array.from({ length: 4 }, () => pool.run('readMotif', SMALL)));
    const many = Array.from({ length: 12 }, (_, index) => run('many', `m${index}`));
    await Promise.all([...many, run('one', 'one')]);
    // Those of many that had a process at once, one more whose turn it was, and then the one who asked last of all.
    expect(began).toHaveLength(13);
    expect(began.indexOf('one')).toBe(LANES[WORK_LIMITS.readMotif.lane].processes + 1);
    // A place only ever falls; the last word is that the work has begun.
    const numbers = places.filter((place) => place !== null);
    expect(numbers).toEqual([...numbers].sort((left, right) => right - left));
    expect(places.at(-1)).toBeNull();

    const full = Array.from({ length: LANES.exports.waiting + 1 }, () =>
      pool.run('layoutPng', {
        store: join(folder, 'none.db'),
        layout: 'x',
        ppi: 96,
        bleed: false,
        path: join(folder, 'x'),
      }),
    );
    const refused = await pool.run('layoutPng', {
      ...{ store: join(folder, 'none.db'), layout: 'x', ppi: 96, bleed: false, path: join(folder, 'x') },
    });
    expect(refused).toMatchObject({ ok: false, failure: { code: 'busy' } });
    // Work that throws is a sentence for whoever asked and a line in the log; the process goes on.
    for (const outcome of await Promise.all(full))
      expect(outcome).toMatchObject({ ok: false, failure: { code: 'unsupported' } });
    expect(log.join('\n')).toMatch(/layoutPng: .*unable to open database/);
  });

  it('end what is still waiting or running when they are closed, and take nothing more', async () => {
    const pool = open();
    const running = [
      pool.run('readMotif', HEAVY),
      pool.run('readMotif', HEAVY),
      pool.run('readMotif', HEAVY),
    ];
    await new Promise((resolve) => setTimeout(resolve, 100));
    await pool.close();
    for (const outcome of await Promise.all(running))
      expect(outcome).toMatchObject({ ok: false, failure: { code: 'cancelled' } });
    expect(await pool.run('readMotif', SMALL)).toMatchObject({ ok: false, failure: { code: 'stopping' } });
  });

  it('check bodies by their route, whatever is in the file', async () => {
    const pool = open();
    const check = async (text: string) => {
      const path = join(folder, `${Math.random()}`);
      writeFileSync(path, text);
      return pool.run('checkBody', { route: 'createProject', path });
    };
    expect(await check('{"name":" Pool "}')).toEqual({ ok: true, value: { value: { name: 'Pool' } } });
    for (const [text, code] of [
      ['{"name":1}', 'invalid'],
      ['{"a":'.repeat(100_000), 'too_large'],
      [`{${Array.from({ length: 500_000 }, (_, index) => `"k${index}":1`).join()}}`, 'too_large'],
      ['{"name":"\ud800', 'unreadable'],
      ['', 'unreadable'],
    ] as const)
      expect(await check(text)).toMatchObject({ ok: false, failure: { code } });
  });
});

describe('a limit that is passed', () => {
  it('is told in a sentence that names it', () => {
    const limit = WORK_LIMITS.swatch;
    const sentence = (ended: Parameters<typeof whyFailed>[0]): string => {
      const outcome = whyFailed(ended, limit);
      return outcome.ok ? '' : `${outcome.failure.code}: ${outcome.failure.message}`;
    };
    expect(sentence({ why: 'time' })).toBe(
      'too_heavy: Drawing this pattern took longer than 10 s and was stopped; make it simpler or smaller.',
    );
    expect(sentence({ why: 'memory' })).toMatch(/needed more than 700 MB/);
    expect(sentence({ why: 'died', how: 'SIGABRT' })).toMatch(
      /^unsupported: Drawing this pattern did not work/,
    );
  });
});
