import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';
import { seededRandom } from '../../src/lib/core/num/random';
import { filledShape } from '../support/scenes';
import { block, place, recipe } from '../support/recipes';
import { pause } from './victim';

/** What was acknowledged before a kill, and must be there after it. */
type State = {
  project: string;
  layout: { id: string; version: number };
  pattern: { id: string; version: number; published: number };
  taken: number;
};

export type Kills = { kills: number; faults: string[]; byKind: Record<string, number> };

const ART = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });
/** The patterns of one file that is taken in. */
const IN_FILE = 40;

/** Kills a server again and again at moments of chance, and looks after each restart whether anything is lost or half done. */
export async function kills(
  rounds: number,
  { seed = 1, say = () => undefined }: { seed?: number; say?: (line: string) => void } = {},
): Promise<Kills> {
  const random = seededRandom(seed);
  const root = mkdtempSync(join(tmpdir(), 'isle-kills-'));
  const port = await freePort(5200);
  const run = new Run(root, port, random);
  const kinds = ['save', 'publish', 'take in', 'export', 'seed', 'migrate'] as const;
  const byKind: Record<string, number> = {};
  try {
    await run.begin();
    for (let round = 0; round < rounds; round += 1) {
      const kind = kinds[round % kinds.length] as (typeof kinds)[number];
      byKind[kind] = (byKind[kind] ?? 0) + 1;
      await run.round(kind);
      if ((round + 1) % 50 === 0) say(`  ${round + 1} of ${rounds} kills, ${run.faults.length} faults`);
    }
  } finally {
    await run.end();
    rmSync(root, { recursive: true, force: true });
  }
  return { kills: rounds, faults: run.faults, byKind };
}

class Run {
  readonly faults: string[] = [];
  private readonly folder: string;
  private child: ChildProcess | null = null;
  private state: State = {
    project: '',
    layout: { id: '', version: 1 },
    pattern: { id: '', version: 1, published: 0 },
    taken: 0,
  };
  private file: Uint8Array = new Uint8Array();

  constructor(
    private readonly root: string,
    private readonly port: number,
    private readonly random: () => number,
  ) {
    this.folder = join(root, 'data');
  }

  /** A server with a project, a layout and a pattern to go on with, and a file to take in. */
  async begin(): Promise<void> {
    await this.start(this.folder, false);
    const project = await this.need<{ id: string }>('POST', '/projects', { name: 'Kill' });
    const layout = await this.need<{ id: string; version: number }>(
      'POST',
      `/projects/${project.id}/layouts`,
      {
        ...{ name: 'L', width: 100, height: 100, measure: 'px' },
      },
    );
    const pattern = await this.need<{ id: string; version: number }>('POST', '/patterns', {
      name: 'K',
      recipe: ART,
    });
    this.state = { project: project.id, layout, pattern: { ...pattern, published: 0 }, taken: 0 };
    const ids: string[] = [];
    for (let index = 0; index < IN_FILE; index += 1) {
      const made = await this.need<{ id: string; version: number }>('POST', '/patterns', {
        name: `In ${index}`,
        recipe: ART,
      });
      await this.need('POST', `/patterns/${made.id}/revisions`, { base: made.version });
      ids.push(made.id);
    }
    const out = await this.call('POST', '/handouts', { as: 'zip', ids });
    this.file = new Uint8Array(await out.arrayBuffer());
  }

  async end(): Promise<void> {
    await this.kill();
  }

  async round(kind: 'save' | 'publish' | 'take in' | 'export' | 'seed' | 'migrate'): Promise<void> {
    if (kind === 'seed') return this.seeding();
    if (kind === 'migrate') return this.migrating();
    if (!this.child) await this.start(this.folder, false);
    const killed = pause(20 + this.random() * (kind === 'save' ? 500 : 900)).then(() => this.kill());
    await this.work(kind).catch(() => undefined);
    await killed;
    await this.start(this.folder, false);
    await this.judge(kind);
  }

  /** Works until the server is gone, and notes what it acknowledged. */
  private async work(kind: 'save' | 'publish' | 'take in' | 'export'): Promise<void> {
    const { layout, pattern } = this.state;
    for (;;) {
      if (kind === 'save') {
        const shape = {
          ...filledShape({ x: layout.version, y: 0, width: 5, height: 5 }),
          ...{ id: `s${layout.version}`, fills: [] },
        };
        const changes = [
          { do: 'page', width: 100 + layout.version },
          layout.version <= 1500 ? { do: 'put-shape', shape } : { do: 'page', height: 100 },
        ];
        const saved = await this.need<{ version: number }>('POST', `/layouts/${layout.id}/changes`, {
          base: layout.version,
          changes,
        });
        layout.version = saved.version;
      } else if (kind === 'publish') {
        const art = { ...ART, unit: { width: 100 + pattern.published, height: 100 } };
        const kept = await this.need<{ version: number }>('PUT', `/patterns/${pattern.id}/draft`, {
          base: pattern.version,
          recipe: art,
        });
        pattern.version = kept.version;
        const done = await this.need<{ version: number; revision: number }>(
          'POST',
          `/patterns/${pattern.id}/revisions`,
          {
            base: pattern.version,
          },
        );
        pattern.version = done.version;
        pattern.published = done.revision;
      } else if (kind === 'take in') {
        const read = await this.need<{ token: string; items: { key: string }[] }>(
          'POST',
          '/intake/files',
          this.file,
        );
        const choices = Object.fromEntries(read.items.map(({ key }) => [key, 'both']));
        await this.need('POST', '/intake', { files: [{ token: read.token, choices }] });
        this.state.taken += 1;
      } else await this.need('POST', `/layouts/${layout.id}/exports`, { ppi: 2400 });
    }
  }

  /** After a restart: everything acknowledged is there, and nothing is half. */
  private async judge(kind: string): Promise<void> {
    const fault = (text: string): void => void this.faults.push(`killed during “${kind}”: ${text}`);
    const { layout, pattern } = this.state;
    const { layout: kept } = await this.need<{
      layout: { version: number; width: number; shapes: unknown[] };
    }>('GET', `/layouts/${layout.id}`);
    if (kept.version !== layout.version && kept.version !== layout.version + 1)
      fault(`the layout is at version ${kept.version}, ${layout.version} was acknowledged`);
    if (kept.version > 1 && kept.width !== 100 + kept.version - 1) fault('a save is half done');
    if (kept.shapes.length !== Math.min(1500, kept.version - 1)) fault('shapes are missing');
    layout.version = kept.version;
    const held = await this.need<{ version: number; newest: number; revisions: unknown[] }>(
      'GET',
      `/patterns/${pattern.id}`,
    );
    if (held.newest < pattern.published || held.newest > pattern.published + 1)
      fault(`revision ${held.newest} is the newest, ${pattern.published} was acknowledged`);
    if (held.revisions.length !== held.newest) fault('a revision is missing');
    pattern.version = held.version;
    pattern.published = held.newest;
    const { total } = await this.need<{ total: number }>('GET', '/patterns?search=in&limit=1');
    const files = total / IN_FILE - 1;
    if (files !== Math.floor(files)) fault(`a file was taken in by half (${total} patterns)`);
    if (files < this.state.taken || files > this.state.taken + 1)
      fault(`${files} files are in, ${this.state.taken} were acknowledged`);
    this.state.taken = Math.floor(files);
    const left = ['exports', 'work'].flatMap((name) => {
      try {
        return readdirSync(join(this.folder, name));
      } catch {
        return [];
      }
    });
    if (left.length > 0) fault(`files were left behind: ${left.slice(0, 3).join(', ')}`);
  }

  /** A first start that is killed on the way: the next one is whole. */
  private async seeding(): Promise<void> {
    await this.kill();
    const folder = join(this.root, 'seed');
    rmSync(folder, { recursive: true, force: true });
    this.spawn(folder, true);
    await pause(this.random() * 5000);
    await this.kill();
    await this.start(folder, true);
    const { total } = await this.need<{ total: number }>('GET', '/patterns?limit=1');
    const projects = await this.need<{ layouts: number }[]>('GET', '/projects');
    const layouts = projects.reduce((sum, project) => sum + project.layouts, 0);
    if (total !== 59 || layouts !== 18)
      this.faults.push(`a first start was half: ${total} patterns, ${layouts} layouts`);
    await this.kill();
  }

  /** A database of before, its migration killed on the way: the next start finishes it, and all is there. */
  private async migrating(): Promise<void> {
    await this.kill();
    const folder = join(this.root, 'old');
    rmSync(folder, { recursive: true, force: true });
    oldDatabase(folder);
    this.spawn(folder, false);
    await pause(this.random() * 1500);
    await this.kill();
    await this.start(folder, false);
    const palettes = await this.need<{ colours: unknown[] }[]>('GET', '/palettes');
    if (palettes.length !== 300 || palettes.some(({ colours }) => colours.length !== 1))
      this.faults.push(`a migration was half: ${palettes.length} palettes`);
    await this.kill();
  }

  private spawn(folder: string, demo: boolean): void {
    mkdirSync(folder, { recursive: true });
    this.child = spawn(process.execPath, ['build/index.js'], {
      stdio: 'ignore',
      env: {
        ...process.env,
        NODE_ENV: 'production',
        PORT: String(this.port),
        ISLE_DATA: folder,
        ISLE_DEMO: demo ? '1' : '0',
      },
    });
  }

  private async start(folder: string, demo: boolean): Promise<void> {
    const { child } = await startServer({ port: this.port, dataFolder: folder, demo, stdio: 'ignore' });
    this.child = child;
  }

  private async kill(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  }

  private call(method: string, path: string, body?: unknown): Promise<Response> {
    const raw = body instanceof Uint8Array;
    return fetch(`http://127.0.0.1:${this.port}/api/v1${path}`, {
      method,
      headers: body === undefined ? {} : { 'content-type': raw ? 'application/zip' : 'application/json' },
      ...(body === undefined ? {} : { body: raw ? (body as unknown as BodyInit) : JSON.stringify(body) }),
    });
  }

  private async need<T>(method: string, path: string, body?: unknown): Promise<T> {
    const answer = await this.call(method, path, body);
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as T;
  }
}

/** A database as the first release left it, with 300 palettes. */
function oldDatabase(folder: string): void {
  const migrations = join(folder, 'migrations');
  cpSync('drizzle', migrations, { recursive: true });
  const journal = join(migrations, 'meta', '_journal.json');
  const held = JSON.parse(readFileSync(journal, 'utf8')) as { entries: unknown[] };
  writeFileSync(journal, JSON.stringify({ ...held, entries: held.entries.slice(0, 2) }));
  const client = new Database(join(folder, 'isle.db'));
  migrate(drizzle(client), { migrationsFolder: migrations });
  client.prepare("INSERT INTO studio VALUES ('studio', 'Studio', 1)").run();
  for (let index = 0; index < 300; index += 1) {
    client
      .prepare("INSERT INTO palette VALUES (?, 'studio', ?, ?, 1, 1, 1, NULL)")
      .run(`p${index}`, `P ${index}`, `p ${index}`);
    client
      .prepare("INSERT INTO palette_colour VALUES (?, 'studio', ?, 0, 'Deep', '#102030')")
      .run(`c${index}`, `p${index}`);
  }
  client.close();
}
