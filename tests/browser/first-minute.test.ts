import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { ChildProcess } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';
import type { FoundPatterns, LibraryFacets } from '../../src/lib/contract/data';
import { alive, drag, middle, openBrowser, press, saved, still, type Session } from '../support/browser';
import { pngOf } from '../support/pictures';

/** A studio in which there is nothing yet: a server of its own, without the demo. */
let session: Session;
let page: Page;
let server: { child: ChildProcess; address: string };
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'isle-first-'));
  server = await startServer({
    port: await freePort(5600),
    dataFolder: join(folder, 'data'),
    demo: false,
    stdio: 'ignore',
  });
  session = await openBrowser();
  ({ page } = session);
});
afterAll(async () => {
  await session.close();
  const gone = new Promise((resolve) => server.child.once('exit', resolve));
  server.child.kill('SIGKILL');
  await gone;
  rmSync(folder, { recursive: true, force: true });
});

const open = async (path: string): Promise<void> => {
  await page.goto(server.address + path, { waitUntil: 'load' });
  await alive(page);
  await still(page);
};
const get = async <T>(path: string): Promise<T> =>
  (await (await fetch(`${server.address}/api/v1${path}`)).json()) as T;

describe('an empty studio', () => {
  it('offers what to begin with, and says the steps to a first filled shape', async () => {
    await open('/');
    const offers = await page.$$eval('.beginning li', (all) => all.map((one) => one.textContent ?? ''));
    expect(offers).toHaveLength(6);
    const steps = await page.$$eval('[aria-label="First steps"] li', (all) =>
      all.map((one) => one.classList.contains('done')),
    );
    expect(steps).toEqual([false, false, false]);
  });

  it('takes a picture to the bench at its true size, and begins a drawing', async () => {
    const file = join(folder, 'grass.png');
    writeFileSync(file, await pngOf(300, 200, () => [60, 140, 70, 255]));
    const input = await page.waitForSelector('.beginning input[type="file"]');
    await (input as ElementHandle<HTMLInputElement>).uploadFile(file);
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('[aria-label="Unit width"]')?.value === '300',
    );
    await saved(page);
    await open('/library/new?start=drawing');
    await page.waitForFunction(() => document.querySelector('.drawing')?.textContent?.includes('Drawing'));
  });

  it('has its own named pattern on a shape within nine actions from the address', async () => {
    const name = 'Pier rails';
    let actions = 0;
    const act = async (what: () => Promise<unknown>): Promise<void> => {
      actions += 1;
      await what();
    };
    await act(() => open('/'));
    await act(() => press(page, 'Measured'));
    await act(() => press(page, 'Publish revision 1'));
    await page.waitForSelector('dialog[open] input');
    await act(() => page.keyboard.type(name));
    await act(() => page.keyboard.press('Enter'));
    await page.waitForFunction(() =>
      document.querySelector('dialog[open] .main')?.textContent?.includes('New layout'),
    );
    await act(() => page.keyboard.press('Enter'));
    await page.waitForFunction(() =>
      document.querySelector('.fills-box')?.textContent?.includes('in your hand'),
    );
    await still(page);
    const [x, y] = await middle(page, '[data-paper]');
    await act(() => drag(page, [x - 60, y - 70], [x + 60, y + 70]));
    await page.waitForFunction(
      (wanted) => document.querySelector('.ledger .filled')?.textContent?.includes(wanted),
      {},
      name,
    );
    await saved(page);
    console.log(`First minute, from an empty studio: ${actions} actions`);
    expect(actions).toBeLessThanOrEqual(9);
  });

  it('has no steps any more once a shape is filled', async () => {
    await open('/');
    await page.waitForSelector('[aria-label="What is chosen"]');
    expect(await page.$('[aria-label="First steps"]')).toBeNull();
  });

  it('hangs the stock, and not twice', async () => {
    const hang = async () => {
      const answer = await fetch(`${server.address}/api/v1/stock`, { method: 'POST' });
      return (await answer.json()) as { patterns: number };
    };
    expect((await hang()).patterns).toBe(25);
    expect((await hang()).patterns).toBe(0);
    const { total } = await get<FoundPatterns>('/patterns?stock=stock');
    expect(total).toBe(25);
    expect((await get<LibraryFacets>('/library')).counts.stock).toBe(25);
  });

  it('met no fault', () => expect(session.faults).toEqual([]));
});
