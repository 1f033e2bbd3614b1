import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { askLightly, type Asker as Lightly } from '../../tests/support/lightly';
import { filledShape } from '../../tests/support/scenes';
import { freePort, startServer } from '../lib/serve.mjs';
import { middle, print, sized } from './measure';
import { caller } from './page';

const EXPORTS = 10;
const SHAPES = sized(2000, 50);
const WRITERS = 20;
const SECONDS = sized(8, 1);

/** A running server under load: light requests beside exports and large saves, and many who write at once. */
export async function benchServer(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'isle-bench-server-'));
  const port = await freePort(4770);
  const { child, address } = await startServer({ port, dataFolder: folder, demo: true, stdio: 'ignore' });
  const call = caller(address);
  const asker = await Asker.start(address);
  try {
    await asker.during(1000);
    const idle = await asker.during(sized(3000, 300));
    await besideExports(address, call, asker, idle);
    await largeSave(call, asker, folder);
    await manyWriters(call, folder);
  } finally {
    await asker.end();
    child.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}

type Call = ReturnType<typeof caller>;
type Waited = { median: number; worst: number };

async function besideExports(address: string, call: Call, asker: Asker, idle: Waited): Promise<void> {
  const projects = (await (await fetch(`${address}/api/v1/projects`)).json()) as { id: string }[];
  const detail = await fetch(`${address}/api/v1/projects/${projects[0]?.id}`);
  const { layoutList } = (await detail.json()) as { layoutList: { id: string }[] };
  const jobs: string[] = [];
  for (let count = 0; count < EXPORTS; count += 1) {
    const { id } = await call<{ id: string }>('POST', `/layouts/${layoutList[0]?.id}/exports`, {
      ppi: sized(200, 24),
    });
    jobs.push(id);
  }
  const beside = await asker.during(sized(6000, 300));
  await Promise.all(jobs.map((id) => fetch(`${address}/api/v1/exports/${id}`, { method: 'DELETE' })));
  print(`A light request (a search of the library) beside ${EXPORTS} exports`, [
    {
      what: 'median',
      ms: beside.median,
      ratio: beside.median / idle.median,
      reference: `the same with nothing else going on, ${idle.median.toFixed(1)} ms`,
    },
    { what: 'worst', ms: beside.worst, ratio: beside.worst / 250, reference: 'of 250 ms (goal ≤ 1)' },
  ]);
}

/** Saving many shapes at once: how long it takes, and how long a light request has to wait meanwhile. */
async function largeSave(call: Call, asker: Asker, folder: string): Promise<void> {
  const bare = bareRows(join(folder, 'bare.db'), SHAPES);
  const project = await call<{ id: string }>('POST', '/projects', { name: 'Large' });
  const times: number[] = [];
  const waits: number[] = [];
  for (let round = 0; round < sized(5, 1); round += 1) {
    const { id } = await call<{ id: string }>('POST', `/projects/${project.id}/layouts`, {
      ...{ name: `L${round}`, width: 4000, height: 4000, measure: 'px' },
    });
    const changes = Array.from({ length: SHAPES }, (_, index) => ({
      do: 'put-shape',
      shape: {
        ...filledShape({ x: index, y: 0, width: 30, height: 30 }),
        id: `b${round}-${index}`,
        fills: [
          {
            kind: 'colour',
            version: 3,
            id: `f${round}-${index}`,
            opacity: 1,
            blend: 'normal',
            shown: true,
            mask: null,
            colour: '#10394d',
          },
        ],
      },
    }));
    const waiting = asker.until();
    const from = performance.now();
    await call('POST', `/layouts/${id}/changes`, { base: 1, changes });
    times.push(performance.now() - from);
    waits.push((await waiting()).worst);
  }
  print(`A save of ${SHAPES} shapes with a fill each`, [
    {
      what: 'until it is acknowledged',
      ms: middle(times),
      ratio: middle(times) / bare,
      reference: `as many rows put into a bare table, ${bare.toFixed(0)} ms`,
    },
    {
      what: 'the longest that a light request waited meanwhile',
      ms: middle(waits),
      ratio: middle(waits) / 300,
      reference: 'of 300 ms (goal ≤ 1)',
    },
  ]);
}

function bareRows(file: string, count: number): number {
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.exec(
    'CREATE TABLE a (id text PRIMARY KEY, json text); CREATE TABLE b (id text PRIMARY KEY, a text, json text)',
  );
  const [one, other] = [
    client.prepare('INSERT INTO a VALUES (?, ?)'),
    client.prepare('INSERT INTO b VALUES (?, ?, ?)'),
  ];
  const from = performance.now();
  client.transaction(() => {
    for (let index = 0; index < count; index += 1) {
      one.run(`a${index}`, '{"kind":"rectangle","radius":0,"x":1,"y":2,"width":30,"height":30}');
      other.run(`b${index}`, `a${index}`, '{"kind":"colour","colour":"#10394d"}');
    }
  })();
  const ms = performance.now() - from;
  client.close();
  return ms;
}

/** Many who save small changes to layouts of their own at once, against bare transactions of the same durability. */
async function manyWriters(call: Call, folder: string): Promise<void> {
  const project = await call<{ id: string }>('POST', '/projects', { name: 'Many' });
  const layouts = await Promise.all(
    Array.from({ length: WRITERS }, (_, index) =>
      call<{ id: string }>('POST', `/projects/${project.id}/layouts`, {
        ...{ name: `W${index}`, width: 100, height: 100, measure: 'px' },
      }),
    ),
  );
  const end = performance.now() + SECONDS * 1000;
  let saves = 0;
  await Promise.all(
    layouts.map(async ({ id }) => {
      for (let base = 1; performance.now() < end; base += 1) {
        await call('POST', `/layouts/${id}/changes`, { base, changes: [{ do: 'page', width: 100 + base }] });
        saves += 1;
      }
    }),
  );
  const client = new Database(join(folder, 'bare-writes.db'));
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.exec('CREATE TABLE a (id integer PRIMARY KEY, value real); INSERT INTO a VALUES (1, 0)');
  const put = client.prepare('UPDATE a SET value = ? WHERE id = 1');
  let bare = 0;
  const until = performance.now() + (SECONDS * 1000) / 4;
  while (performance.now() < until) put.run((bare += 1));
  client.close();
  const [each, bareEach] = [(SECONDS * 1000) / saves, (SECONDS * 250) / bare];
  print(`${WRITERS} writers`, [
    {
      what: `a save, ${(1000 / each).toFixed(0)} a second in all`,
      ms: each,
      ratio: each / bareEach,
      reference: `a bare transaction of one row, ${(1000 / bareEach).toFixed(0)} a second`,
    },
  ]);
}

/** Asks for something light again and again, and knows how long it had to wait. */
class Asker {
  private lightly: Lightly | null = null;
  private waits: number[] = [];

  static async start(address: string): Promise<Asker> {
    const asker = new Asker();
    asker.lightly = await askLightly(address, 15, ({ ms }) => asker.waits.push(ms));
    return asker;
  }

  async during(ms: number): Promise<Waited> {
    const waiting = this.until();
    await new Promise((resolve) => setTimeout(resolve, ms));
    return waiting();
  }

  until(): () => Promise<Waited> {
    this.waits = [];
    return async () => {
      // One that is still waiting has to be counted too.
      const { length } = this.waits;
      while (this.waits.length === length) await new Promise((resolve) => setTimeout(resolve, 10));
      return { median: middle(this.waits), worst: Math.max(...this.waits) };
    };
  }

  async end(): Promise<void> {
    await this.lightly?.stop();
  }
}
