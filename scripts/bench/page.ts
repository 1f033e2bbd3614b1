import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Page } from 'puppeteer-core';
import { freePort, startServer } from '../lib/serve.mjs';

/** One frame of a 60 Hz screen, ms. */
export const FRAME = 1000 / 60;

/** Starts the built Isle on an empty database and hands a page of headless Chromium to `work`. */
export async function onPage(work: (page: Page, address: string) => Promise<void>): Promise<void> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'isle-bench-'));
  const port: number = await freePort(4700);
  const { child, address } = await startServer({ port, dataFolder, demo: false, stdio: 'ignore' });
  const browser = await puppeteer.launch({
    executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
    defaultViewport: { width: 1280, height: 800 },
  });
  try {
    await work(await browser.newPage(), address);
  } finally {
    await browser.close();
    child.kill();
    rmSync(dataFolder, { recursive: true, force: true });
  }
}

/** Calls the API of a server; an answer that is no success ends the benchmark. */
export function caller(address: string) {
  return async <T>(method: string, path: string, body: unknown): Promise<T> => {
    const answer = await fetch(`${address}/api/v1${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(await answer.text());
    return (await answer.json()) as T;
  };
}
