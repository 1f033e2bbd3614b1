import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, describe, expect, it } from 'vitest';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';
import { seriousFaults } from '../support/axe';
import { openBrowser } from '../support/browser';
import { OwnStudio, PASSWORD } from '../support/own-studio';
import { until } from '../support/until';

/** Isle on a real machine: what it says of itself, and how it is reached. */
const folders: string[] = [];
const children: ChildProcess[] = [];
const folder = (): string => {
  folders.push(mkdtempSync(join(tmpdir(), 'isle-machine-')));
  return folders[folders.length - 1]!;
};
afterEach(async () => {
  for (const child of children.splice(0)) {
    const gone = new Promise((resolve) => child.once('exit', resolve));
    if (child.exitCode === null && child.kill('SIGKILL')) await gone;
  }
  for (const one of folders.splice(0)) rmSync(one, { recursive: true, force: true });
});
const isle = (data: string, ...words: string[]) =>
  spawnSync(process.execPath, ['scripts/isle.mjs', ...words], {
    env: { ...process.env, ISLE_DATA: data },
    encoding: 'utf8',
  });

describe('a machine', () => {
  it('is not reached from others before there is an owner; one is made by command, and comes in by a link', async () => {
    const data = folder();
    const port = await freePort(5900);
    const env = {
      ...process.env,
      NODE_ENV: 'production',
      PORT: String(port),
      ISLE_DATA: data,
      HOST: '0.0.0.0',
    };
    const refused = spawnSync(process.execPath, ['build/index.js'], {
      env,
      encoding: 'utf8',
      timeout: 30_000,
    });
    expect([refused.status, refused.stderr.trim()]).toEqual([
      1,
      expect.stringMatching(
        /^Isle may be reached from other machines only once the studio has an owner\. Run “npm run isle -- owner NAME ADDRESS”/,
      ),
    ]);
    const made = isle(data, 'owner', 'Mara Quill', 'mara@pier.example');
    expect(made.status).toBe(0);
    const token = /\/join\/([\w-]+)/.exec(made.stdout)?.[1];
    const child = spawn(process.execPath, ['build/index.js'], {
      env: { ...env, ISLE_LOG: 'json', ISLE_METRICS_TOKEN: 'secret' },
      stdio: ['ignore', 'ignore', 'pipe'],
    });
    children.push(child);
    let log = '';
    child.stderr?.on('data', (text: Buffer) => (log += text.toString()));
    const address = `http://127.0.0.1:${port}`;
    await until(async () => expect((await fetch(`${address}/ready`)).status).toBe(200));
    const come = (password: string) =>
      fetch(`${address}/api/v1/invitations/links/${token}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ password }),
      });
    expect((await come('mara@pier.example')).status).toBe(400);
    const came = await come(PASSWORD);
    expect(came.status).toBe(200);
    const cookie = came.headers.get('set-cookie')!.split(';')[0]!;
    expect((await fetch(`${address}/api/v1/people`, { headers: { cookie } })).status).toBe(200);
    expect((await come(PASSWORD)).status).toBe(404);

    // What it says of itself: to those who know the token alone, without names or ids.
    expect((await fetch(`${address}/metrics`)).status).toBe(404);
    const measured = await (
      await fetch(`${address}/metrics`, { headers: { authorization: 'Bearer secret' } })
    ).text();
    expect(measured).toMatch(/isle_answers_total\{method="GET",route="\/api\/v1\/people",status="200"\} 1/);
    expect(measured).toMatch(/# TYPE isle_answer_seconds histogram/);
    await until(() => expect(log).toContain('"route":"/api/v1/people"'));
    const lines = log
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(lines.every((line) => typeof line.level === 'number' && typeof line.msg === 'string')).toBe(true);
    expect(log + measured).not.toMatch(new RegExp(`Mara|pier\\.example|${token}`));
    expect((await fetch(`${address}/health`)).status).toBe(200);

    const from = performance.now();
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await gone;
    expect(performance.now() - from).toBeLessThan(10_000);
  }, 60_000);

  it('has the headers of safety on every answer', async () => {
    const { child, address } = await startServer({
      port: await freePort(5950),
      dataFolder: folder(),
      demo: false,
      stdio: 'ignore',
    });
    children.push(child);
    for (const path of [
      '/library',
      '/api/v1/projects',
      '/api/v1/nothing',
      '/nothing',
      '/ready',
      '/sign-in',
      '/api/v1/openapi.json',
    ]) {
      const { headers } = await fetch(address + path, { redirect: 'manual' });
      expect([path, headers.get('x-content-type-options')]).toEqual([path, 'nosniff']);
      expect([path, headers.get('content-security-policy')]).toEqual([
        path,
        expect.stringMatching(/default-src '(self|none)'.*frame-ancestors 'none'/s),
      ]);
      expect([path, headers.get('referrer-policy')]).toEqual([path, 'same-origin']);
      expect([path, headers.get('permissions-policy')]).toEqual([path, expect.stringContaining('camera=()')]);
    }
    const page = await (await fetch(`${address}/library`)).text();
    const script = /\/_app\/immutable\/[\w./-]+\.js/.exec(page)?.[0] ?? '';
    const { headers, status } = await fetch(address + script);
    expect([status, headers.get('x-content-type-options'), headers.get('cache-control')]).toEqual([
      ...[200, 'nosniff', 'public,max-age=31536000,immutable'],
    ]);
  }, 60_000);
});

describe('a backup', () => {
  it('is made by an owner, warned of where it is late, and restored into a new folder as it was', async () => {
    const studio = await OwnStudio.open();
    try {
      await studio.must('owner', 'POST', '/projects', { name: 'Kept by the backup' });
      await studio.comeIn('designer');
      const place = folder();
      const relative = await studio.ask('owner', 'PUT', '/backups', { folder: 'here', every: 1, keep: 2 });
      expect([relative.status, relative.body.path]).toEqual([400, 'folder']);
      await studio.must('owner', 'PUT', '/backups', { folder: place, every: 1, keep: 2 });
      const made = await studio.must('owner', 'POST', '/backups');
      expect(made.body).toMatchObject({ ok: true });
      const held = await studio.must('owner', 'GET', '/backups');
      expect(held.body).toMatchObject({ place, warning: null, files: [{ file: made.body.file }] });
      // One that is a week old: its name says when it was made.
      renameSync(join(place, String(made.body.file)), join(place, 'isle-backup-2026-01-01T00-00-00Z.db'));
      expect((await studio.must('owner', 'GET', '/backups')).body.warning).toMatch(
        /The newest backup is \d+ days old/,
      );
      const copy = join(place, 'isle-backup-2026-01-01T00-00-00Z.db');
      expect(isle(place, 'verify', copy)).toMatchObject({
        status: 0,
        stdout: expect.stringMatching(/Nothing is wrong/) as string,
      });
      const elsewhere = join(folder(), 'new');
      expect(isle(place, 'restore', copy, elsewhere).status).toBe(0);
      expect(isle(place, 'restore', copy, elsewhere).stdout).toMatch(/There is a database .* already/);
      const port = await freePort(5980);
      const { child, address } = await startServer({
        port,
        dataFolder: elsewhere,
        demo: false,
        stdio: 'ignore',
      });
      children.push(child);
      const came = await fetch(`${address}/api/v1/sessions`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email: 'designer@studio.example', password: PASSWORD }),
      });
      const cookie = came.headers.get('set-cookie')!.split(';')[0]!;
      const projects = await (await fetch(`${address}/api/v1/projects`, { headers: { cookie } })).text();
      expect(projects).toContain('Kept by the backup');
    } finally {
      await studio.close();
    }
  }, 90_000);
});

describe('a passkey', () => {
  it('is made on a device and signs one in without a password; a forgotten one does not', async () => {
    const studio = await OwnStudio.open();
    const session = await openBrowser();
    try {
      const address = studio.address.replace('127.0.0.1', 'localhost');
      const { page } = session;
      const cdp = await page.createCDPSession();
      await cdp.send('WebAuthn.enable');
      await cdp.send('WebAuthn.addVirtualAuthenticator', {
        options: {
          ...{ protocol: 'ctap2', transport: 'internal', hasResidentKey: true, hasUserVerification: true },
          ...{ isUserVerified: true, automaticPresenceSimulation: true },
        },
      });
      const go = async (path: string): Promise<void> => {
        await page.goto(address + path, { waitUntil: 'load' });
        await page.waitForSelector('html[data-alive]');
      };
      const press = async (text: string): Promise<void> => {
        const button = await page.waitForSelector(`xpath///button[normalize-space(.)="${text}"]`);
        await button?.click();
      };
      await go('/sign-in?to=/me');
      expect(await seriousFaults(page)).toEqual([]);
      await page.type('input[autocomplete="username"]', 'owner@studio.example');
      await page.type('input[autocomplete="current-password"]', PASSWORD);
      await press('Sign in');
      await page.waitForFunction(() => location.pathname === '/me');
      await page.waitForSelector('section.you');
      expect(await seriousFaults(page)).toEqual([]);
      await go('/studio');
      expect(await seriousFaults(page)).toEqual([]);
      await go('/me');
      await press('Add a passkey …');
      await page.waitForSelector('dialog[open]');
      await press('Add it');
      await page.waitForFunction(() => document.body.textContent?.includes('signs you in from now on'));
      await page.deleteCookie(...(await page.cookies()));
      await go('/me');
      expect(new URL(page.url()).pathname).toBe('/sign-in');
      await press('With a passkey');
      await page.waitForFunction(() => location.pathname === '/me');
      await page.waitForFunction(() =>
        /This device\s*last used \d\d:\d\d/.test(document.body.textContent ?? ''),
      );
      await press('Forget');
      await page.waitForFunction(() => document.body.textContent?.includes('is forgotten'));
      await page.deleteCookie(...(await page.cookies()));
      await go('/sign-in');
      await press('With a passkey');
      await page.waitForFunction(() => document.body.textContent?.includes('This passkey was not accepted'));
    } finally {
      await session.close();
      await studio.close();
    }
  }, 90_000);
});
