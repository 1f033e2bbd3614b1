import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type BoundingBox, type Browser, type Page, type TracingOptions } from 'puppeteer-core';
import sharp from 'sharp';
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
    await work(await patientPage(browser), address);
  } finally {
    await browser.close();
    child.kill();
    rmSync(dataFolder, { recursive: true, force: true });
  }
}

/** A page that waits long: on a crowded machine a benchmark comes out worse, and is not ended. */
export async function patientPage(browser: Browser): Promise<Page> {
  const page = await browser.newPage();
  page.setDefaultTimeout(240_000);
  return page;
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
  ts: number;
  dur?: number;
  args: { name?: string; snapshot?: string; data?: { documentLoaderURL?: string } };
};

async function traced(
  page: Page,
  options: TracingOptions,
  work: () => Promise<unknown>,
): Promise<TraceEvent[]> {
  await page.tracing.start(options);
  await work();
  const trace = await page.tracing.stop();
  const read = JSON.parse(Buffer.from(trace ?? []).toString('utf8')) as { traceEvents: TraceEvent[] };
  return read.traceEvents;
}

/**
 * How long after going to an address the screen shows something within a box of the window, ms: on the first of the
 * browser's own pictures of the screen in which a tenth of the box is not as its corner is.
 */
export async function firstPicture(page: Page, address: string, box: BoundingBox): Promise<number> {
  const categories = ['disabled-by-default-devtools.screenshot', 'loading', 'blink.user_timing'];
  const events = await traced(page, { screenshots: true, categories }, async () => {
    await page.goto(address, { waitUntil: 'load' });
    await new Promise((resolve) => setTimeout(resolve, 1500));
  });
  const gone = events.find(
    ({ name, args }) => name === 'navigationStart' && args.data?.documentLoaderURL === address,
  );
  if (!gone) throw new Error('The tracing of the browser told of no navigation.');
  const shots = events
    .filter(({ name, ts }) => name === 'Screenshot' && ts > gone.ts)
    .sort((one, other) => one.ts - other.ts);
  const window = page.viewport() ?? { width: 1280 };
  for (const { ts, args } of shots) {
    const shot = sharp(Buffer.from(args.snapshot ?? '', 'base64')).removeAlpha();
    const share = ((await shot.metadata()).width ?? 1) / window.width;
    const part = {
      left: Math.ceil(box.x * share),
      top: Math.ceil(box.y * share),
      width: Math.floor(box.width * share),
      height: Math.floor(box.height * share),
    };
    const pixels = await shot.extract(part).raw().toBuffer();
    let other = 0;
    for (let at = 0; at < pixels.length; at += 3)
      if ([0, 1, 2].some((part) => Math.abs((pixels[at + part] ?? 0) - (pixels[part] ?? 0)) > 24)) other += 3;
    if (other > pixels.length / 10) return (ts - gone.ts) / 1000;
  }
  throw new Error('The screen showed nothing there.');
}

/** The longest task of the page's own thread while `work` goes on, ms, as the browser's tracing tells it. */
export async function longestTask(page: Page, work: () => Promise<unknown>): Promise<number> {
  const categories = ['devtools.timeline', 'disabled-by-default-devtools.timeline', '__metadata'];
  const traceEvents = await traced(page, { categories }, work);
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
