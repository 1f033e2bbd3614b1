import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { freePort, startServer } from '../lib/serve.mjs';
import { SHORT } from './measure';
import { runBuilt } from './built';

const PASSWORD = 'two striped towels';
const PEOPLE = 50;
const LAYOUTS = 20;

type Seen = { at: number; resolve: (ms: number) => void };

/**
 * A studio at work: fifty people on twenty layouts, over real HTTP. How soon the others see a change, what a save takes beside the bare
 * transaction of the same rows, what signing in costs a request, and what two hundred idle event streams take of a core.
 */
export async function benchStudio(): Promise<void> {
  const short = SHORT;
  const say = (line: string): void => console.log(line);
  const people = short ? 6 : PEOPLE;
  const layouts = short ? 3 : LAYOUTS;
  const folder = mkdtempSync(join(tmpdir(), 'isle-bench-studio-'));
  const port = await freePort(6100);
  const { child, address } = await startServer({ port, dataFolder: folder, demo: false, stdio: 'ignore' });
  let cookie = '';
  const ask = async (method: string, path: string, body?: unknown, as = cookie): Promise<Response> =>
    fetch(`${address}/api/v1${path}`, {
      method,
      headers: { cookie: as, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  try {
    const opened = await ask('POST', '/studio/opened', {
      ...{ studio: 'Pier', name: 'Mara', email: 'mara@pier.example', password: PASSWORD },
    });
    cookie = (opened.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
    await signingIn(address, cookie, folder, short, say);

    const project = ((await (await ask('POST', '/projects', { name: 'Job' })).json()) as { id: string }).id;
    const ids: string[] = [];
    for (let at = 0; at < layouts; at += 1) {
      const page = { name: `Sign ${at}`, width: 400, height: 300, measure: 'px' };
      const made = (await (await ask('POST', `/projects/${project}/layouts`, page)).json()) as { id: string };
      const shapes = Array.from({ length: 40 }, (_, n) =>
        freshShape({
          ...{ id: `s${at}x${n}`, name: `Shape ${n}`, form: { kind: 'rectangle', radius: 0 } as const },
          ...{ x: n * 5, y: n * 3, width: 60, height: 40, fills: [] },
        }),
      );
      await ask('POST', `/layouts/${made.id}/changes`, {
        base: 1,
        changes: shapes.map((shape) => ({ do: 'put-shape', shape })),
      });
      ids.push(made.id);
    }

    const waiting = new Map<string, Seen[]>();
    const streams = await Promise.all(
      Array.from({ length: people }, () =>
        listen(address, cookie, (subject, version) => {
          for (const one of waiting.get(`${subject} ${version}`) ?? [])
            one.resolve(performance.now() - one.at);
          waiting.delete(`${subject} ${version}`);
        }),
      ),
    );
    // Everyone saves about once a second for a while; the first other window that hears of it counts.
    const versions = new Map(ids.map((id) => [id, 2]));
    const took: number[] = [];
    const saves: number[] = [];
    let stale = 0;
    const until = performance.now() + (short ? 2000 : 20_000);
    const work = async (who: number): Promise<void> => {
      const at = who % layouts;
      const id = ids[at]!;
      while (performance.now() < until) {
        await new Promise((resolve) => setTimeout(resolve, 500 + Math.random() * 1000));
        const base = versions.get(id)!;
        const seen = new Promise<number>((resolve) => {
          const key = `${id} ${base + 1}`;
          waiting.set(key, [...(waiting.get(key) ?? []), { at: performance.now(), resolve }]);
        });
        const from = performance.now();
        const changes = [{ do: 'patch-shape', id: `s${at}x${who % 40}`, fields: { x: Math.random() * 300 } }];
        const saved = await ask('POST', `/layouts/${id}/changes`, { base, changes });
        if (saved.status !== 200) {
          stale += 1;
          await saved.text();
          versions.set(id, Math.max(base + 1, versions.get(id)!));
          continue;
        }
        saves.push(performance.now() - from);
        versions.set(id, ((await saved.json()) as { version: number }).version);
        took.push(
          await Promise.race([seen, new Promise<number>((resolve) => setTimeout(() => resolve(5000), 5000))]),
        );
      }
    };
    await Promise.all(Array.from({ length: people }, (_, who) => work(who)));
    for (const close of streams) close();
    say(
      `${people} people on ${layouts} layouts: ${took.length} saves, ${stale} to be merged; seen by others after ${ms(share(took, 0.5))} (median; goal 150), ${ms(share(took, 0.99))} (99 %; goal 500); a save is answered in ${ms(share(saves, 0.5))}`,
    );

    // One who saves alone.
    const alone = ids[0]!;
    let version = ((await (await ask('GET', `/layouts/${alone}`)).json()) as { layout: { version: number } })
      .layout.version;
    const save = async (): Promise<void> => {
      const changes = [{ do: 'patch-shape', id: 's0x0', fields: { x: Math.random() * 300 } }];
      const answer = await ask('POST', `/layouts/${alone}/changes`, { base: version, changes });
      ({ version } = (await answer.json()) as { version: number });
    };
    const count = short ? 20 : 200;
    const saved = await timed(save, count);
    const empty = await timed(() => ask('GET', '/me').then((answer) => answer.text()), count);
    const turns = short ? '50' : '5000';
    const { save: stored, bare } = (await runBuilt('saves', folder, turns)) as { save: number; bare: number };
    say(
      `a save in the store takes ${ms(stored)}, the bare transaction of its rows ${ms(bare)}: ${(stored / bare).toFixed(2)} times; goal 2`,
    );
    say(`over HTTP a save takes ${ms(saved)}, and a request that saves nothing ${ms(empty)}`);
    // Ten thousand states of history under it.
    const file = new Database(join(folder, 'isle.db'));
    file.pragma('busy_timeout = 5000');
    const back = file.prepare('SELECT back FROM layout_log WHERE layout_id = ? LIMIT 1').pluck().get(alone);
    const put = file.prepare(
      'INSERT OR IGNORE INTO layout_log (layout_id, version, at, back) VALUES (?, ?, 1, ?)',
    );
    file.transaction(() => {
      for (let at = 1; at <= (short ? 500 : 10_000); at += 1) put.run(alone, -at, back);
    })();
    file.close();
    const later = await timed(save, count);
    say(`with 10,000 states of history a save takes ${ms(later - saved)} more; goal 5 ms`);

    const idle = short ? 20 : 200;
    const open = await Promise.all(
      Array.from({ length: idle }, () => listen(address, cookie, () => undefined)),
    );
    await new Promise((resolve) => setTimeout(resolve, 1000));
    const [before, from] = [cpuOf(child.pid ?? 0), performance.now()];
    await new Promise((resolve) => setTimeout(resolve, short ? 2000 : 10_000));
    const used = (cpuOf(child.pid ?? 0) - before) / (performance.now() - from);
    for (const close of open) close();
    say(`${idle} idle event streams take ${(used * 100).toFixed(2)} % of a core; goal 2`);
  } finally {
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill();
    await gone;
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What signing in costs a request: one Isle where everyone signs in and one where nobody does, asked by turns. */
async function signingIn(
  address: string,
  cookie: string,
  folder: string,
  short: boolean,
  say: (line: string) => void,
): Promise<void> {
  const port = await freePort(6200);
  const plain = await startServer({ port, dataFolder: join(folder, 'plain'), demo: false, stdio: 'ignore' });
  try {
    const took: [number[], number[]] = [[], []];
    for (let at = 0; at < (short ? 60 : 1500); at += 1)
      for (const [which, one] of [address, plain.address].entries()) {
        const from = performance.now();
        await (await fetch(`${one}/api/v1/palettes`, { headers: which === 0 ? { cookie } : {} })).text();
        took[which]?.push(performance.now() - from);
      }
    const [signed, free] = [share(took[0].slice(100), 0.5), share(took[1].slice(100), 0.5)];
    say(`a request with sign-in costs ${ms(signed - free)} more (${ms(signed)} to ${ms(free)}); goal 0.3 ms`);
  } finally {
    const gone = new Promise((resolve) => plain.child.once('exit', resolve));
    plain.child.kill();
    await gone;
  }
}

const ms = (value: number): string => `${value.toFixed(value < 10 ? 2 : 0)} ms`;
const share = (values: readonly number[], part: number): number =>
  [...values].sort((one, other) => one - other)[
    Math.min(values.length - 1, Math.floor(values.length * part))
  ] ?? 0;

/** The median of how long something takes, ms, after a warm-up. */
async function timed(run: () => Promise<unknown>, count: number): Promise<number> {
  for (let at = 0; at < 10; at += 1) await run();
  const took: number[] = [];
  for (let at = 0; at < count; at += 1) {
    const from = performance.now();
    await run();
    took.push(performance.now() - from);
  }
  return share(took, 0.5);
}

/** A stream of events; answers what ends it. */
async function listen(
  address: string,
  cookie: string,
  heard: (subject: string, version: number) => void,
): Promise<() => void> {
  const abort = new AbortController();
  const { body } = await fetch(`${address}/api/v1/events`, { headers: { cookie }, signal: abort.signal });
  const reader = body?.getReader();
  const decoder = new TextDecoder();
  void (async () => {
    let text = '';
    for (;;) {
      const { value, done } = (await reader?.read()) ?? { value: undefined, done: true };
      if (done) return;
      text += decoder.decode(value, { stream: true });
      const lines = text.split('\n');
      text = lines.pop() ?? '';
      for (const line of lines) {
        if (!line.startsWith('data: ')) continue;
        const { subject, version } = JSON.parse(line.slice(6)) as { subject: string; version?: number };
        if (version !== undefined) heard(subject, version);
      }
    }
  })().catch(() => undefined);
  return () => abort.abort();
}

/** What a process has used of the processors so far, ms (Linux). */
function cpuOf(pid: number): number {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
  const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
  return (Number(fields[11]) + Number(fields[12])) * 10;
}
