import { seededRandom } from '../../src/lib/core/num/random';
import { goodFiles, hostileCases, randomCase, type Case } from './cases';
import { pause, Victim } from './victim';

export type Harm = {
  cases: number;
  requests: number;
  faults: string[];
  /** Light requests beside: see {@link Victim.light}. */
  light: Victim['light'];
  /** Memory of the server process before and after, MB. */
  memory: { before: number; after: number };
  alive: boolean;
};

/** More than this the server may not have grown, MB. */
const MOST_GROWTH = 100;
/** Cases that go on beside each other. */
const BESIDE = 2;

/** Throws hostile files and `chance` random cases at a server of its own, and tells what it did not bear. */
export async function harm(
  chance: number,
  {
    seed = 1,
    only = '',
    quick = false,
    say = () => undefined,
  }: { seed?: number; only?: string; quick?: boolean; say?: (line: string) => void },
): Promise<Harm> {
  const victim = await Victim.start();
  victim.quick = quick;
  victim.say = say;
  try {
    const good = await goodFiles(victim);
    await warmUp(victim);
    const before = victim.megabytes();
    const random = seededRandom(seed);
    const fixed = hostileCases().filter(({ name }) => name.includes(only));
    const total = fixed.length + chance;
    let next = 0;
    const take = (): Case | null => {
      if (next >= total || !victim.alive) return null;
      const one = fixed[next] ?? randomCase(seededRandom(Math.floor(random() * 2 ** 31)), good);
      next += 1;
      return one;
    };
    const worker = async (): Promise<void> => {
      for (let one = take(); one; one = take()) {
        const started = performance.now();
        victim.begin(one.name);
        await one.run(victim);
        const ms = performance.now() - started;
        for (const line of victim.slow.splice(0)) say(`  ${line}`);
        if (ms > 60_000) say(`  ${(ms / 1000).toFixed(0)} s in all: ${one.name}`);
        if (next % 250 === 0)
          say(`  ${next} of ${total}, ${victim.megabytes().toFixed(0)} MB, ${victim.faults.length} faults`);
      }
    };
    await Promise.all(Array.from({ length: BESIDE }, worker));
    victim.begin('after all');
    await pause(3000);
    const after = victim.megabytes();
    if (after - before > MOST_GROWTH)
      victim.fault(`the server grew from ${before.toFixed(0)} to ${after.toFixed(0)} MB`);
    return {
      cases: next,
      requests: victim.requests,
      faults: victim.faults,
      light: victim.light,
      memory: { before, after },
      alive: victim.alive,
    };
  } finally {
    await victim.stop();
  }
}

/** What every server does in its first minute: so that what it keeps for good is not counted as growth. */
async function warmUp(victim: Victim): Promise<void> {
  victim.begin('warming up');
  const { patterns } = (await victim.send('GET', '/patterns?limit=60')).body as {
    patterns: { id: string }[];
  };
  for (let round = 0; round < 3; round += 1) {
    for (const { id } of patterns) await victim.send('GET', `/patterns/${id}`);
    await victim.send('POST', '/motifs', {
      fileName: 'a.svg',
      svg: `<svg xmlns="http://www.w3.org/2000/svg">${'<path d="M0 0h9v9z"/>'.repeat(20_000)}</svg>`,
    });
  }
  await pause(500);
}
