import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import {
  chmodSync,
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readdirSync,
  rmSync,
  writeFileSync,
  writeSync,
  closeSync,
  statSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, describe, expect, it } from 'vitest';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';
import { block, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';
import { api } from '../support/api';

/** How Isle starts, refuses to, stops, and bears a disk that is full: each fault is one sentence (docs/starting.md). */
const folders: string[] = [];
const children: ChildProcess[] = [];
const folder = (): string => {
  const made = mkdtempSync(join(tmpdir(), 'isle-start-'));
  folders.push(made);
  return made;
};
afterEach(async () => {
  for (const child of children.splice(0)) await ended(child, 'SIGKILL');
  for (const one of folders.splice(0)) {
    spawnSync('umount', ['-l', one], { stdio: 'ignore' });
    rmSync(one, { recursive: true, force: true });
  }
});

async function started(
  dataFolder: string,
  demo = false,
): Promise<{ child: ChildProcess; address: string; port: number }> {
  const port = await freePort(5400);
  const running = await startServer({ port, dataFolder, demo, stdio: 'ignore' });
  children.push(running.child);
  return { ...running, port };
}

async function ended(child: ChildProcess, signal: NodeJS.Signals): Promise<number> {
  const from = performance.now();
  if (child.exitCode === null && child.signalCode === null) {
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill(signal);
    await gone;
  }
  return performance.now() - from;
}

/** A start that is refused: what it says, and its exit code. */
async function refused(
  dataFolder: string,
  env: Record<string, string> = {},
): Promise<{ said: string; code: number | null }> {
  const port = await freePort(5500);
  const { stderr, status } = spawnSync(process.execPath, ['build/index.js'], {
    env: { ...process.env, NODE_ENV: 'production', PORT: String(port), ISLE_DATA: dataFolder, ...env },
    encoding: 'utf8',
    timeout: 30_000,
  });
  return { said: stderr.trim(), code: status };
}

const ART = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });

describe('a start that cannot be', () => {
  it('says that another Isle runs on the same data, and leaves its exports alone', async () => {
    const data = folder();
    const { address } = await started(data);
    mkdirSync(join(data, 'exports'), { recursive: true });
    writeFileSync(join(data, 'exports', 'one.png'), 'x');
    const { said, code } = await refused(data);
    expect(said).toMatch(
      /^Another Isle is running on .*Stop it first, or name another folder with ISLE_DATA\.$/,
    );
    expect(code).toBe(1);
    expect(existsSync(join(data, 'exports', 'one.png'))).toBe(true);
    expect((await api('GET', '/palettes', undefined, address)).status).toBe(200);
  });

  it('says that a database is of a newer Isle, and does not touch it', async () => {
    const data = folder();
    const { child } = await started(data);
    await ended(child, 'SIGTERM');
    const file = join(data, 'isle.db');
    const client = new Database(file);
    client
      .prepare('INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)')
      .run('later', 9_999_999_999_999);
    client.close();
    const before = statSync(file).mtimeMs;
    const { said, code } = await refused(data);
    expect(said).toMatch(/^The database .* was written by a newer Isle\. Isle has not changed it\./);
    expect(code).toBe(1);
    expect(statSync(file).mtimeMs).toBe(before);
  });

  it('says that a database is damaged, that it is none, and what to do', async () => {
    const data = folder();
    const { child } = await started(data, true);
    await ended(child, 'SIGTERM');
    const file = join(data, 'isle.db');
    const whole = join(data, 'whole.db');
    copyFileSync(file, whole);
    // Pages in the middle are overwritten.
    const fd = openSync(file, 'r+');
    writeSync(fd, Buffer.alloc(40_000, 0xa5), 0, 40_000, 8192);
    closeSync(fd);
    expect((await refused(data)).said).toMatch(
      /is damaged .*Isle has not changed it\. Put a backup in its place/,
    );
    const check = spawnSync(process.execPath, ['build-workers/check.js', 'check', data], {
      encoding: 'utf8',
    });
    expect(check.status).toBe(1);
    expect(check.stdout).toMatch(/faults were found|cannot be opened/);
    writeFileSync(file, 'This is a letter, not a database, and longer than a header.');
    expect((await refused(data)).said).toMatch(/is damaged \(it is no SQLite file\)/);
    copyFileSync(whole, file);
    expect(
      spawnSync(process.execPath, ['build-workers/check.js', 'check', data], { encoding: 'utf8' }).stdout,
    ).toMatch(/patterns: 59 of 59 can be read[\s\S]*Nothing is wrong\./);
  });

  it('copies what can be read of a damaged database into a new folder', async () => {
    const data = folder();
    const { child } = await started(data, true);
    await ended(child, 'SIGTERM');
    const client = new Database(join(data, 'isle.db'));
    client.prepare("UPDATE revision SET recipe = '{' WHERE rowid = 1").run();
    client.close();
    const check = spawnSync(process.execPath, ['build-workers/check.js', 'check', data], {
      encoding: 'utf8',
    });
    expect(check.stdout).toMatch(/patterns: 58 of 59 can be read[\s\S]*is damaged/);
    const to = join(folder(), 'saved');
    const saved = spawnSync(process.execPath, ['build-workers/check.js', 'save', data, to], {
      encoding: 'utf8',
    });
    expect(saved.stdout).toMatch(/pattern: 59 rows[\s\S]*What could be read lies in/);
    const again = await started(to);
    const { body } = await api('GET', '/patterns?limit=100', undefined, again.address);
    expect((body as { total: number }).total).toBe(59);
  });

  it.skipIf(process.getuid?.() === 0)('says that a folder may not be written to', async () => {
    const data = folder();
    chmodSync(data, 0o500);
    expect((await refused(data)).said).toMatch(/^The data folder .* cannot be written to \(EACCES\)/);
  });

  it('says that the data folder cannot be, where a file is in its place', async () => {
    const file = join(folder(), 'data');
    writeFileSync(file, 'x');
    expect((await refused(file)).said).toMatch(
      /^The data folder .* cannot be written to \(E\w+\)\. Give Isle the right/,
    );
  });

  it('says that the port is another program’s', async () => {
    const port = await freePort(5700);
    const other = createServer();
    await new Promise<void>((resolve) => other.listen(port, '127.0.0.1', resolve));
    const { said, code } = await refused(folder(), { PORT: String(port) });
    other.close();
    expect(said).toBe(
      `Isle cannot listen on 127.0.0.1:${port} (EADDRINUSE). Stop the program that does, or name another port with PORT.`,
    );
    expect(code).toBe(1);
  });

  it('copies a database of before aside, and migrates it', async () => {
    const data = folder();
    const { child } = await started(data, true);
    await ended(child, 'SIGTERM');
    const client = new Database(join(data, 'isle.db'));
    // As the release before left it: without its last migration and what that added.
    client.exec(`DELETE FROM __drizzle_migrations WHERE created_at = (SELECT max(created_at) FROM __drizzle_migrations);
      DROP TABLE layout_log; DROP TABLE approval; DROP TABLE comment; DROP TABLE comment_read; DROP TABLE invitation; DROP TABLE passkey;
      DROP TABLE project_person; DROP TABLE session; DROP TABLE person; ALTER TABLE event DROP COLUMN person_id;
      ALTER TABLE project DROP COLUMN closed; ALTER TABLE project DROP COLUMN demands_approval; ALTER TABLE studio DROP COLUMN opened_at;
      ALTER TABLE studio DROP COLUMN open_patterns; CREATE TABLE member (id text PRIMARY KEY)`);
    client.close();
    const { address } = await started(data);
    expect(
      ((await api('GET', '/patterns?limit=1', undefined, address)).body as { total: number }).total,
    ).toBe(59);
    expect(readdirSync(data).filter((name) => /^isle-0014_inks-.*\.db$/.test(name))).toHaveLength(1);
  });
});

describe('a running Isle', () => {
  it('goes on when a file of its interface is gone, as while it is put in anew', async () => {
    const file = join('build', 'client', `gone-${process.pid}.txt`);
    writeFileSync(file, 'x'.repeat(1000));
    const { address, child } = await started(folder());
    rmSync(file);
    const gone = await fetch(`${address}/gone-${process.pid}.txt`)
      .then((answer) => answer.text())
      .catch(() => 'broken off');
    expect(gone).toBe('broken off');
    expect((await api('GET', '/palettes', undefined, address)).status).toBe(200);
    expect(child.exitCode).toBeNull();
  });

  it('answers again once there are file handles, after there were none', async () => {
    const { address, child } = await started(folder());
    const low = (files: number): unknown =>
      execFileSync('prlimit', ['--pid', String(child.pid), `--nofile=${files}:`]);
    const open = readdirSync(`/proc/${child.pid}/fd`).length;
    // A few sockets more than there are, and nothing for the files that they ask for.
    low(open + 2);
    const icon = readdirSync('build/client').find((name) => /\.(svg|png|ico|txt)$/.test(name));
    await Promise.allSettled(
      Array.from({ length: 8 }, () =>
        fetch(`${address}/${icon}`, { signal: AbortSignal.timeout(2000) }).then((answer) => answer.text()),
      ),
    );
    low(4096);
    await expect
      .poll(
        () =>
          api('GET', '/palettes', undefined, address).then(
            ({ status }) => status,
            () => 0,
          ),
        {
          timeout: 10_000,
        },
      )
      .toBe(200);
    expect(child.exitCode).toBeNull();
  });
});

describe('a bare start', () => {
  it('listens on the loopback address alone, and answers to names of this machine only', async () => {
    const port = await freePort(5600);
    const data = folder();
    const child = spawn(process.execPath, ['build/index.js'], {
      stdio: 'ignore',
      env: { PATH: process.env.PATH ?? '', PORT: String(port), ISLE_DATA: data },
    });
    children.push(child);
    const address = `http://127.0.0.1:${port}`;
    for (let tries = 0; tries < 100; tries += 1) {
      if (
        await fetch(`${address}/api/v1/palettes`).then(
          ({ ok }) => ok,
          () => false,
        )
      )
        break;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    // The address of every other interface is still free.
    const free = await new Promise<boolean>((resolve) => {
      const probe = createServer();
      probe.once('error', () => resolve(false));
      probe.listen(port, '127.0.0.2', () => probe.close(() => resolve(true)));
    });
    expect(free).toBe(true);
    // What a foreign page points at this address by a name of its own is refused (DNS rebinding).
    const ask = (host: string): string =>
      execFileSync('curl', ['-s', '-H', `Host: ${host}`, `${address}/api/v1/palettes`], { encoding: 'utf8' });
    expect(ask('localhost')).toMatch(/^\[/);
    expect(JSON.parse(ask('evil.example'))).toMatchObject({ code: 'forbidden' });
    expect(ask('evil.example')).toMatch(/does not answer to the name “evil\.example”/);
    // A body larger than the server's own default is still taken by the route that allows it.
    const palette = await api(
      'POST',
      '/palettes',
      { name: 'Long', colours: [], pad: 'x'.repeat(900_000) },
      address,
    );
    expect(palette.status).toBe(400);
    expect(palette.body).toMatchObject({ message: '“pad” is not known here; leave it out.' });
  });
});

describe('a stop', () => {
  it('ends within five seconds while exports run, wait and are listened to', async () => {
    const { child, address } = await started(folder(), true);
    const call = (method: string, path: string, body?: unknown) => api(method, path, body, address);
    const projects = (await call('GET', '/projects')).body as { id: string }[];
    const { layoutList } = (await call('GET', `/projects/${projects[0]?.id}`)).body as {
      layoutList: { id: string }[];
    };
    for (let count = 0; count < 5; count += 1)
      await call('POST', `/layouts/${layoutList[0]?.id}/exports`, { ppi: 300 });
    const listening = await fetch(`${address}/api/v1/events`);
    expect(listening.ok).toBe(true);
    expect(await ended(child, 'SIGTERM')).toBeLessThan(5000);
  });

  it('of an export takes effect at once, and the next one begins', async () => {
    const { address } = await started(folder(), true);
    const call = (method: string, path: string, body?: unknown) => api(method, path, body, address);
    const projects = (await call('GET', '/projects')).body as { id: string }[];
    const { layoutList } = (await call('GET', `/projects/${projects[0]?.id}`)).body as {
      layoutList: { id: string }[];
    };
    const start = async () =>
      (await call('POST', `/layouts/${layoutList[0]?.id}/exports`, { ppi: 300 })).body as { id: string };
    const jobs = [await start(), await start(), await start()];
    const states = async () =>
      Promise.all(
        jobs.map(
          async ({ id }) =>
            (await call('GET', `/exports/${id}`)).body as { state: string; ahead: number | null },
        ),
      );
    // One is drawn at a time; the others know how many come before them.
    expect(await states()).toMatchObject([{ state: 'running' }, { ahead: 0 }, { ahead: 1 }]);
    const from = performance.now();
    for (const { id } of jobs.slice(0, 2))
      expect((await call('DELETE', `/exports/${id}`)).body).toMatchObject({ state: 'cancelled' });
    expect(performance.now() - from).toBeLessThan(1500);
    expect((await states())[2]).toMatchObject({ state: 'running', ahead: null });
  });
});

/** A disk of few megabytes, where this machine lets one be made; else the test is left out. */
function smallDisk(megabytes: number): string | null {
  const at = folder();
  const made = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', at], {
    stdio: 'ignore',
  });
  return made.status === 0 ? at : null;
}

const canMount = (() => {
  const at = mkdtempSync(join(tmpdir(), 'isle-mount-'));
  const made =
    spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=1m', 'tmpfs', at], { stdio: 'ignore' }).status === 0;
  if (made) spawnSync('umount', ['-l', at]);
  rmSync(at, { recursive: true, force: true });
  return made;
})();

describe.skipIf(!canMount)('a full disk', () => {
  it('lets reading go on, answers saves and exports with a sentence, and all goes on once there is room', async () => {
    const data = smallDisk(24) as string;
    const { address } = await started(data, false);
    const call = (method: string, path: string, body?: unknown) => api(method, path, body, address);
    const project = (await call('POST', '/projects', { name: 'Full' })).body as { id: string };
    const layout = (
      await call('POST', `/projects/${project.id}/layouts`, {
        name: 'L',
        width: 4000,
        height: 4000,
        measure: 'px',
      })
    ).body as { id: string };
    const made = (await call('POST', '/patterns', { name: 'P', recipe: ART })).body as {
      id: string;
      version: number;
    };
    await call('POST', `/patterns/${made.id}/revisions`, { base: made.version });
    const shape = filledShape({ x: 0, y: 0, width: 4000, height: 4000 });
    const put = {
      ...shape,
      id: 's',
      fills: shape.fills.map((fill) => ({ ...fill, id: 'f', pattern: made.id })),
    };
    expect(
      (
        await call('POST', `/layouts/${layout.id}/changes`, {
          base: 1,
          changes: [{ do: 'put-shape', shape: put }],
        })
      ).status,
    ).toBe(200);
    const filler = join(data, 'filler');
    const fill = (): void =>
      void spawnSync('dd', ['if=/dev/zero', `of=${filler}`, 'bs=64k'], { stdio: 'ignore' });
    fill();
    // Saves fail with 507 sooner or later: what the log has room for may still land.
    let refusedSave: { status: number; body: unknown } | null = null;
    let version = 2;
    for (let round = 0; round < 60 && !refusedSave; round += 1) {
      const saved = await call('POST', `/layouts/${layout.id}/changes`, {
        base: version,
        changes: [
          {
            do: 'put-shape',
            shape: {
              ...put,
              name: 'x'.repeat(80),
              form: { kind: 'path', d: `M0 0h9v9z${'l1 1'.repeat(20_000)}`, width: 9, height: 9 },
            },
          },
        ],
      });
      if (saved.status === 200) version += 1;
      else refusedSave = saved;
      fill();
    }
    expect(refusedSave).toMatchObject({ status: 507, body: { code: 'no_space' } });
    expect(JSON.stringify(refusedSave?.body)).toMatch(/disk that Isle keeps its data on is full.*Make room/);
    expect(
      ((await call('GET', `/layouts/${layout.id}`)).body as { layout: { version: number } }).layout.version,
    ).toBe(version);
    const job = (await call('POST', `/layouts/${layout.id}/exports`, { ppi: 96 })).body as {
      id?: string;
      code?: string;
    };
    if (job.id) {
      let state = { state: 'waiting', message: '' };
      for (let look = 0; look < 200 && ['waiting', 'running'].includes(state.state); look += 1) {
        state = (await call('GET', `/exports/${job.id}`)).body as typeof state;
        await new Promise((resolve) => setTimeout(resolve, 50));
      }
      expect(state).toMatchObject({ state: 'failed' });
      expect(state.message).toMatch(/disk .* is full/);
    } else expect(job.code).toBe('no_space');
    expect(readdirSync(join(data, 'exports'))).toEqual([]);
    rmSync(filler);
    const after = await call('POST', `/layouts/${layout.id}/changes`, {
      base: version,
      changes: [{ do: 'page', name: 'Room again' }],
    });
    expect(after.status).toBe(200);
    const again = (await call('POST', `/layouts/${layout.id}/exports`, { ppi: 24 })).body as { id: string };
    for (let look = 0; look < 200; look += 1) {
      const { state } = (await call('GET', `/exports/${again.id}`)).body as { state: string };
      if (state === 'done') return;
      expect(['waiting', 'running']).toContain(state);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    throw new Error('the export did not end');
  });
});
