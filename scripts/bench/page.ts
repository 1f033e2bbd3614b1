import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Page } from 'puppeteer-core';
import { freePort, startServer } from '../lib/serve.mjs';

/** One frame of a 60 Hz screen, ms. */
export const FRAME = 1000 / 60;

/** Starts the built Isle on an empty database, or with the demo, and hands a page of headless Chromium to `work`. */
export async function onPage(
  work: (page: Page, address: string) => Promise<void>,
  { demo = false } = {},
): Promise<void> {
  const dataFolder = mkdtempSync(join(tmpdir(), 'isle-bench-'));
  const port: number = await freePort(4700);
  const { child, address } = await startServer({ port, dataFolder, demo, stdio: 'ignore' });
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

type TraceEvent = {
  ph: string;
  name: string;
  pid: number;
  tid: number;
  dur?: number;
  args: { name?: string };
};

/** The longest task of the page's own thread while `work` goes on, ms, as the browser's tracing tells it. */
export async function longestTask(page: Page, work: () => Promise<unknown>): Promise<number> {
  await page.tracing.start({
    categories: ['devtools.timeline', 'disabled-by-default-devtools.timeline', '__metadata'],
  });
  await work();
  const trace = await page.tracing.stop();
  const { traceEvents } = JSON.parse(Buffer.from(trace ?? []).toString('utf8')) as {
    traceEvents: TraceEvent[];
  };
  const mains = new Set(
    traceEvents
      .filter(({ name, args }) => name === 'thread_name' && args.name === 'CrRendererMain')
      .map(({ pid, tid }) => `${pid} ${tid}`),
  );
  const tasks = traceEvents.filter(
    ({ ph, name, pid, tid }) => ph === 'X' && name === 'RunTask' && mains.has(`${pid} ${tid}`),
  );
  if (tasks.length === 0) throw new Error('The tracing of the browser told of no task.');
  return Math.max(...tasks.map(({ dur = 0 }) => dur)) / 1000;
}
