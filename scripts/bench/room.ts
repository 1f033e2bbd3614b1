import type { Page } from 'puppeteer-core';
import type { LayoutSummary, ProjectDetail, ProjectSummary } from '../../src/lib/contract/data';
import { middle, print, sized } from './measure';
import { firstPicture, FRAME, onPage } from './page';

const ROUNDS = sized(5, 1);
const STEPS = sized(90, 6);

/** Opening the demo's largest page, and giving the parts beside its stage another size. */
export function benchRoom(): Promise<void> {
  return onPage(
    async (page, address) => {
      const { id, projectId } = await largest(address);
      const path = `${address}/projects/${projectId}/layouts/${id}`;
      const opened: number[] = [];
      // The first opening fetches the code of the view.
      await page.goto(path, { waitUntil: 'load' });
      const stage = await (await page.waitForSelector('.stage'))?.boundingBox();
      if (!stage) throw new Error('The stage is not to be seen');
      // Below the bars of tools, which are there first.
      const box = { ...stage, y: stage.y + 60, height: stage.height - 60 };
      for (let round = 0; round < ROUNDS; round += 1) {
        await page.goto('about:blank');
        opened.push(await firstPicture(page, path, box));
      }
      const sizing = await dragged(page, '[aria-label="Size of the hangers"]', 'x');
      const lowering = await dragged(page, '[aria-label="Size of the ledger"]', 'y');
      const folding = await folded(page);
      print('Room of the layout view, the demo’s largest page', [
        {
          what: 'opening to the first picture',
          ms: middle(opened),
          ratio: middle(opened) / 700,
          reference: 'of 700 ms (goal ≤ 1)',
        },
        ...[
          { what: 'a frame while the hangers are sized', frames: sizing },
          { what: 'a frame while the ledger is sized', frames: lowering },
          { what: 'a frame while all is folded and opened', frames: folding },
        ].map(({ what, frames }) => ({
          what,
          ms: middle(frames),
          ratio: middle(frames) / FRAME,
          reference: 'of a frame (goal ≤ 1)',
          note: `worst ${Math.max(...frames).toFixed(0)} ms`,
        })),
      ]);
    },
    { demo: true },
  );
}

async function largest(address: string): Promise<LayoutSummary> {
  const get = async <T>(path: string): Promise<T> =>
    (await (await fetch(`${address}/api/v1${path}`)).json()) as T;
  const projects = await get<ProjectSummary[]>('/projects');
  const details = await Promise.all(projects.map(({ id }) => get<ProjectDetail>(`/projects/${id}`)));
  const layouts = details.flatMap(({ layoutList }) => layoutList);
  return layouts.reduce((most, one) => (one.shapes > most.shapes ? one : most));
}

/** Times between frames while an edge is dragged to and fro. */
async function dragged(page: Page, selector: string, axis: 'x' | 'y'): Promise<number[]> {
  const box = await (await page.waitForSelector(selector))?.boundingBox();
  if (!box) throw new Error(`${selector} is not to be seen`);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await watch(page);
  for (let step = 0; step < STEPS; step += 1) {
    const by = 60 * Math.sin((step / STEPS) * 4 * Math.PI);
    await page.mouse.move(x + (axis === 'x' ? by : 0), y + (axis === 'y' ? by : 0));
  }
  const frames = await watched(page);
  await page.mouse.up();
  return frames;
}

async function folded(page: Page): Promise<number[]> {
  await page.focus('.stage');
  await watch(page);
  for (let step = 0; step < STEPS / 6; step += 1) {
    await page.keyboard.press('5');
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
  return watched(page);
}

type Watching = Window & { seen?: number[]; watching?: boolean };

const watch = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const held = window as Watching;
    held.seen = [];
    held.watching = true;
    let last = performance.now();
    const frame = (now: number): void => {
      held.seen?.push(now - last);
      last = now;
      if (held.watching) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });

const watched = (page: Page): Promise<number[]> =>
  page.evaluate(() => {
    const held = window as Watching;
    held.watching = false;
    return (held.seen ?? []).slice(1);
  });
