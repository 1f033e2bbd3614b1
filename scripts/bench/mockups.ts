import { readdirSync, readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import type {
  LayoutSummary,
  MockupSummary,
  ProjectDetail,
  ProjectSummary,
} from '../../src/lib/contract/data';
import { middle, print, SHORT, sized } from './measure';
import { onPage, patientPage } from './page';

const TURNS = sized(90, 6);
const REST_MS = sized(9000, 500);

/** Objects in space: how soon they are seen, how their frames go while they are turned, how soon a change is seen, and pictures. */
export async function benchMockups(): Promise<void> {
  await onPage(
    async (page, address) => {
      const get = async <T>(path: string): Promise<T> =>
        (await (await fetch(`${address}/api/v1${path}`)).json()) as T;
      const projects = await get<ProjectSummary[]>('/projects');
      const lido = projects.find(({ name }) => name === 'Marrowby Lido')!;
      const { layoutList } = await get<ProjectDetail>(`/projects/${lido.id}`);
      const cup = layoutList.find(({ name }) => name === 'Kiosk cup')!;
      const set = (await get<MockupSummary[]>(`/projects/${lido.id}/mock-ups`)).find(
        ({ name }) => name === 'Kiosk set',
      )!;
      await page.goto(`${address}/projects/${lido.id}/layouts/${cup.id}`);
      await page.waitForSelector('html[data-alive]');
      await wait(sized(2000, 200));
      const first = await seenAfter(page);
      await wait(REST_MS);
      const layoutTurn = middle(await turn(page, TURNS));
      print('The demo’s cup beside its layout, 1280 × 800', [
        { what: 'seen on it after', ms: first, ...of(first, 1500) },
        { what: 'median frame while it is turned', ms: layoutTurn, ...of(layoutTurn, 50) },
      ]);

      // Without what the browser keeps of a page that it has seen: only what it keeps of files.
      const from = performance.now();
      await page.goto(`${address}/projects/${lido.id}/mock-ups/${set.id}`);
      await page.waitForSelector('canvas[data-drawn]');
      const opened = performance.now() - from;
      await wait(REST_MS);
      const frames = await turn(page, TURNS);
      const median = middle(frames);
      const worst = Math.max(...frames);
      await wait(REST_MS);
      const follows = await changeSeenAfter(page, address, cup.id);
      print('The demo’s cup, bag and parcel, 1280 × 800', [
        { what: 'first picture after opening the page', ms: opened, ...of(opened, 1500) },
        { what: 'median frame while they are turned', ms: median, ...of(median, 50) },
        { what: '… the longest of them', ms: worst },
        { what: 'a fill that is changed elsewhere is seen after', ms: follows, ...of(follows, 300) },
      ]);
      const sheet = await sheetMadeAfter(page, address, cup.id);
      const exported = await exportedAfter(address, cup, sheet.width);
      print(`The cup’s sheet as a picture of ${sheet.width} × ${sheet.height} px`, [
        {
          ...{ what: 'drawn and handed to the graphics', ms: sheet.ms },
          ...{ ratio: sheet.ms / exported, reference: 'of its export as PNG (goal ≤ 1.3)' },
        },
        { what: 'the same page exported as PNG', ms: exported },
      ]);
      await memoryOfThree(page, `${address}/projects/${lido.id}/mock-ups/${set.id}`);
      if (SHORT) return;
      for (const side of [1024, 2048, 4096]) {
        const ms = await pictureAfter(page, side);
        print(`A picture of ${side} × ${side} px`, [
          {
            what: 'made, with its sheets drawn as finely as it shows them',
            ms,
            note: `${((ms * 1000) / side ** 2).toFixed(2)} µs a px`,
          },
        ]);
      }
    },
    { demo: true },
  );
}

const of = (ms: number, goal: number): { ratio: number; reference: string } => ({
  ...{ ratio: ms / goal, reference: `of ${goal} ms (goal ≤ 1)` },
});
const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Opens the object beside the stage, and answers after how long it is drawn, ms. */
const seenAfter = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const from = performance.now();
    const button = [...document.querySelectorAll('button')].find((one) =>
      one.textContent?.trim().startsWith('On the '),
    );
    button?.click();
    while (!document.querySelector('canvas[data-drawn]')) await new Promise(requestAnimationFrame);
    return performance.now() - from;
  });

/** Turns it by its arrow key, one press a frame that was drawn; a press is drawn in the frame after it. */
const turn = (page: Page, count: number): Promise<number[]> =>
  page.evaluate(async (presses) => {
    const canvas = document.querySelector('canvas[data-drawn]')!;
    const frames: number[] = [];
    for (let press = 0; press < presses; press += 1) {
      const before = canvas.getAttribute('data-drawn');
      const from = performance.now();
      canvas.parentElement!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
      while (canvas.getAttribute('data-drawn') === before) await new Promise(requestAnimationFrame);
      await new Promise(requestAnimationFrame);
      frames.push(performance.now() - from);
    }
    return frames;
  }, count);

/** How long the sheet of a change takes from its SVG until the graphics have its pixels, ms; the middle of some changes. */
async function sheetMadeAfter(
  page: Page,
  address: string,
  layout: string,
): Promise<{ ms: number; width: number; height: number }> {
  await page.evaluate(() => {
    const made: { ms: number; width: number; height: number }[] = [];
    let from = 0;
    const encode = window.encodeURIComponent.bind(window);
    window.encodeURIComponent = (text) => {
      if (String(text).startsWith('<svg')) from = performance.now();
      return encode(text);
    };
    const upload = WebGL2RenderingContext.prototype.texSubImage2D as (...args: unknown[]) => void;
    WebGL2RenderingContext.prototype.texSubImage2D = function (this: unknown, ...args: unknown[]) {
      upload.apply(this, args);
      const canvas = args.at(-1);
      if (!(canvas instanceof HTMLCanvasElement)) return;
      const { width, height } = canvas;
      made.push({ ms: performance.now() - from, width, height });
    } as typeof WebGL2RenderingContext.prototype.texSubImage2D;
    Object.assign(window, { made });
  });
  for (let change = 1; change <= sized(7, 1); change += 1) {
    await put(address, layout, 0.2 + change / 20);
    await page.waitForFunction(
      (count) => (window as unknown as { made: unknown[] }).made.length >= count,
      { timeout: 20_000 },
      change,
    );
    await wait(sized(1500, 100));
  }
  const made = await page.evaluate(
    () => (window as unknown as { made: { ms: number; width: number; height: number }[] }).made,
  );
  return { ...made[0]!, ms: middle(made.map(({ ms }) => ms)) };
}

/** How long the server exports a layout as PNG of so many px across, ms; the middle of some. */
async function exportedAfter(address: string, cup: LayoutSummary, width: number): Promise<number> {
  const ppi = (width / cup.width) * 96;
  const send = async <T>(path: string, body?: object): Promise<T> => {
    const answer = await fetch(`${address}/api/v1${path}`, {
      method: body ? 'POST' : 'GET',
      headers: { 'content-type': 'application/json' },
      body: body && JSON.stringify(body),
    });
    return (await answer.json()) as T;
  };
  const took: number[] = [];
  for (let count = 0; count < sized(7, 1); count += 1) {
    const from = performance.now();
    const { id } = await send<{ id: string }>(`/layouts/${cup.id}/exports`, { ppi });
    while ((await send<{ state: string }>(`/exports/${id}`)).state !== 'done') await wait(3);
    await (await fetch(`${address}/api/v1/exports/${id}/file`)).arrayBuffer();
    took.push(performance.now() - from);
  }
  return middle(took);
}

/** What a page holds while three mock-ups are open in it, one after the other and back, and what all of the browser does, MB. */
async function memoryOfThree(page: Page, path: string): Promise<void> {
  const browser = page.browser();
  const pages = [page, await patientPage(browser), await patientPage(browser)];
  for (const one of pages.slice(1)) {
    await one.bringToFront();
    await one.goto(path);
    await one.waitForSelector('canvas[data-drawn]');
    await wait(REST_MS);
  }
  const heap = await Promise.all(pages.map(async (one) => (await one.metrics()).JSHeapUsedSize ?? 0));
  const held = residentOf(browser.process()?.pid ?? 0);
  console.log(
    `\nThree mock-ups open in three pages (goal: a page under 800 MB)\n` +
      held.map(({ kind, mb }) => `  ${kind}: ${mb.toFixed(0)} MB`).join('\n') +
      `\n  scripts of the three pages: ${heap.map((bytes) => `${(bytes / 1e6).toFixed(0)} MB`).join(', ')}`,
  );
  for (const one of pages.slice(1)) await one.close();
  await page.bringToFront();
}

/** What the processes that a browser started hold of memory that is their own, MB, the largest first. */
function residentOf(browser: number): { kind: string; mb: number }[] {
  const read = (pid: number, file: string): string => {
    try {
      return readFileSync(`/proc/${pid}/${file}`, 'utf8');
    } catch {
      return '';
    }
  };
  const all = readdirSync('/proc')
    .map(Number)
    .filter((pid) => pid > 0)
    .map((pid) => {
      const status = read(pid, 'status');
      const parent = Number(/PPid:\s+(\d+)/.exec(status)?.[1]);
      return { pid, parent, status, args: read(pid, 'cmdline') };
    });
  const own = new Set([browser]);
  for (let rounds = 0; rounds < 5; rounds += 1)
    for (const { pid, parent } of all) if (own.has(parent)) own.add(pid);
  return all
    .filter(({ pid, args }) => own.has(pid) && /type=(renderer|gpu-process)/.test(args))
    .map(({ status: held, args }) => {
      const kb = (name: string): number => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(held)?.[1] ?? 0);
      return {
        kind: args.includes('type=renderer') ? 'a page' : 'graphics of all pages, in software',
        mb: (kb('RssAnon') + kb('RssShmem')) / 1024,
      };
    })
    .sort((one, other) => other.mb - one.mb);
}

/** Changes how the cup’s wall is filled through the API. */
async function put(address: string, layout: string, opacity: number): Promise<void> {
  const answer = await fetch(`${address}/api/v1/layouts/${layout}`);
  const { layout: now } = (await answer.json()) as {
    layout: { version: number; shapes: { name: string; fills: object[] }[] };
  };
  const wall = now.shapes.find(({ name }) => name === 'Wall')!;
  const fills = wall.fills.map((fill) => ({ ...fill, opacity }));
  await fetch(`${address}/api/v1/layouts/${layout}/changes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ base: now.version, changes: [{ do: 'put-shape', shape: { ...wall, fills } }] }),
  });
}

/** Changes the cup’s wall through the API, and answers after how long another picture is seen, ms. */
async function changeSeenAfter(page: Page, address: string, layout: string): Promise<number> {
  const seen = page.evaluate(async () => {
    const canvas = document.querySelector<HTMLCanvasElement>('canvas[data-drawn]')!;
    const look = (): string => {
      const small = document.createElement('canvas');
      [small.width, small.height] = [64, 48];
      const context = small.getContext('2d')!;
      context.drawImage(canvas, 0, 0, 64, 48);
      return context.getImageData(0, 0, 64, 48).data.join();
    };
    const before = look();
    while (look() === before) await new Promise(requestAnimationFrame);
    return performance.timeOrigin + performance.now();
  });
  const from = performance.timeOrigin + performance.now();
  await put(address, layout, 0.2);
  return (await seen) - from;
}

/** Saves a picture through the dialog, and answers after how long its file is handed out, ms. */
async function pictureAfter(page: Page, side: number): Promise<number> {
  const press = (text: string): Promise<void> =>
    page.evaluate((label) => {
      [...document.querySelectorAll('button')].findLast((one) => one.textContent?.trim() === label)?.click();
    }, text);
  await press('Picture');
  for (const name of ['Width of the picture', 'Height of the picture']) {
    const field = (await page.$(`input[aria-label="${name}"]`))!;
    await field.click({ count: 3 });
    await field.type(String(side));
    await page.keyboard.press('Tab');
  }
  const made = page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const own = URL.createObjectURL.bind(URL);
        URL.createObjectURL = (blob: Blob) => {
          resolve();
          URL.createObjectURL = own;
          return own(blob);
        };
      }),
  );
  const from = performance.now();
  await press('Save');
  await made;
  return performance.now() - from;
}
