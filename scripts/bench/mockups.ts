import type { Page } from 'puppeteer-core';
import type { MockupSummary, ProjectDetail, ProjectSummary } from '../../src/lib/contract/data';
import { middle, print, SHORT, sized } from './measure';
import { onPage } from './page';

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
      const memory = await page.evaluate(
        () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize / 1e6,
      );
      print('The demo’s cup, bag and parcel, 1280 × 800', [
        { what: 'first picture after opening the page', ms: opened, ...of(opened, 1500) },
        { what: 'median frame while they are turned', ms: median, ...of(median, 50) },
        { what: '… the longest of them', ms: worst },
        { what: 'a fill that is changed elsewhere is seen after', ms: follows, ...of(follows, 300) },
      ]);
      console.log(`  the page’s own memory ${memory.toFixed(0)} MB`);
      if (SHORT) return;
      for (const side of [1024, 2048]) {
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

/** Changes the colours of the cup’s pattern through the API, and answers after how long another picture is seen, ms. */
async function changeSeenAfter(page: Page, address: string, layout: string): Promise<number> {
  const answer = await fetch(`${address}/api/v1/layouts/${layout}`);
  const { layout: now } = (await answer.json()) as {
    layout: { version: number; shapes: { name: string; fills: object[] }[] };
  };
  const wall = now.shapes.find(({ name }) => name === 'Wall')!;
  const fills = wall.fills.map((fill) => ({ ...fill, opacity: 0.2 }));
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
  await fetch(`${address}/api/v1/layouts/${layout}/changes`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ base: now.version, changes: [{ do: 'put-shape', shape: { ...wall, fills } }] }),
  });
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
