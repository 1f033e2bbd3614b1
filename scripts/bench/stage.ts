import type { Page } from 'puppeteer-core';
import { seededRandom } from '../../src/lib/core/num/random';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { IDENTITY } from '../../src/lib/core/geom/affine';
import { freshFill, gradientFill, type Fill, type PatternFill } from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import type { Motif, Placing } from '../../src/lib/core/recipe/recipe';
import { recipe } from '../../tests/support/recipes';
import { middle, print, sized, type Row } from './measure';
import { FRAME, caller, onPage } from './page';

const FRAMES = sized(24, 3);
const ROUNDS = sized(5, 1);
const SCALE = '.bar input[aria-label="Scale"]';
const OFFSET = '.bar input[aria-label="Offset across"]';

/** checks.md: drag the scale of 1 and of all of 200 fills, 200 paths a unit, in headless Chromium, against one 60 Hz frame. */
export function benchStage(): Promise<void> {
  return onPage(async (page, address) => {
    const path = await makeLayout(address);
    await page.goto(`${address}${path}?shape=s100`, { waitUntil: 'networkidle2' });
    await page.waitForSelector(SCALE);
    const one = await rounds(page, SCALE);
    const slide = await rounds(page, OFFSET);
    await page.focus('.stage');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    const all = await rounds(page, SCALE);
    const slideAll = await rounds(page, OFFSET);
    const row = (what: string, measured: { median: number; worst: number }, goal: string): Row => ({
      what,
      ms: measured.median,
      ratio: measured.median / FRAME,
      reference: `of a 60 Hz frame (${goal})`,
      note: `worst frame ${measured.worst.toFixed(0)} ms`,
    });
    const oneOf = async (mark: string, what: PageOf) => {
      const other = await makeLayout(address, mark, what);
      await page.goto(`${address}${other}?shape=s${mark}100`, { waitUntil: 'networkidle2' });
      await page.waitForSelector(SCALE);
      return rounds(page, SCALE);
    };
    const layered = await oneOf('b', { layered: 200 });
    const thousand = await oneOf('c', { shapes: 1000 });
    await page.focus('.stage');
    await page.keyboard.press('s');
    const thousandMoved = await rounds(page, '[data-shape="sc100"] path:last-of-type', 'on');
    const blended = await oneOf('d', { shapes: 1000, layered: 1 });
    print('Stage, 200 paths a unit, median frame while dragging', [
      row('scale of 1 of 200 fills', one, 'goal ≤ 1'),
      row('offset of 1 of 200 fills', slide, 'goal ≤ 1'),
      row('scale of all 200 fills', all, 'goal ≤ 2.04'),
      row('offset of all 200 fills', slideAll, 'goal ≤ 2.04'),
      row('scale of 1 of 200, each under a blended, masked gradient', layered, 'goal ≤ 1'),
      row('scale of 1 of 1,000 fills', thousand, 'goal ≤ 1'),
      row('scale of 1 of 1,000 fills, another of which blends', blended, 'goal ≤ 1'),
      row('moving 1 of 1,000 shapes', thousandMoved, 'goal ≤ 1'),
    ]);
  });
}

/** A gradient that multiplies, faded by a painted mask. */
const overlay = (id: string): Fill[] => [
  {
    ...gradientFill(`g${id}`, freshGradient({ colour: '#2f8fab' }, { colour: '#ffffff' })),
    blend: 'multiply',
    mask: {
      kind: 'painted',
      matrix: IDENTITY,
      strokes: [{ mode: 'erase', size: 30, softness: 0.7, strength: 1, points: [10, 10, 50, 50] }],
    },
  },
];

const evenly = (fill: PatternFill, scale: number): PatternFill => ({ ...fill, scaleX: scale, scaleY: scale });

/** How the pointer goes: 40 px to and fro, or 4 px on at each frame. */
type Way = 'to and fro' | 'on';

/** Times frames while something that `selector` names is dragged, a step a frame. */
async function rounds(
  page: Page,
  selector: string,
  along: Way = 'to and fro',
): Promise<{ median: number; worst: number }> {
  await dragFrames(page, selector, 6, along);
  const frames: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1)
    frames.push(...(await dragFrames(page, selector, FRAMES, along)));
  return { median: middle(frames), worst: Math.max(...frames) };
}

/** Drags from the middle of an element, one step a frame, and answers how long each frame took. */
function dragFrames(page: Page, selector: string, count: number, way: Way): Promise<number[]> {
  return page.evaluate(
    async (wanted, frames, on) => {
      const element = document.querySelector<HTMLElement>(wanted);
      if (!element) throw new Error(`nothing is ${wanted}`);
      if (element instanceof HTMLInputElement) element.blur();
      // A pointer that is made here cannot be captured.
      Element.prototype.setPointerCapture = () => undefined;
      const box = element.getBoundingClientRect();
      const [left, top] = [box.x + box.width / 2, box.y + box.height / 2];
      const send = (type: string, step: number): void => {
        const place = { clientX: left + step, clientY: top + (step % 5) };
        const what = { bubbles: true, cancelable: true, button: 0, pointerId: 1, ...place };
        element.dispatchEvent(new PointerEvent(type, what));
      };
      const frame = (): Promise<number> => new Promise((resolve) => requestAnimationFrame(resolve));
      send('pointerdown', 0);
      const times: number[] = [];
      let last = await frame();
      for (let step = 1; step <= frames; step += 1) {
        send('pointermove', on ? step * 4 : (step % 2 ? step : step - 40) + 4);
        const now = await frame();
        times.push(now - last);
        last = now;
      }
      send('pointerup', 0);
      await new Promise((resolve) => setTimeout(resolve, 400));
      return times;
    },
    selector,
    count,
    way === 'on',
  );
}

/** How many shapes, and how many of them have a gradient over their pattern that blends under a mask. */
type PageOf = { shapes?: number; layered?: number };

/** 200 shapes in a grid, each with a fill of its own scale and angle of one pattern of 200 paths. */
export async function makeLayout(
  address: string,
  mark = '',
  { shapes = 200, layered = 0 }: PageOf = {},
): Promise<string> {
  const call = caller(address);
  const random = seededRandom(4);
  const motifs: Motif[] = ['ellipse', 'star'].map((kind) => ({
    id: kind,
    name: kind,
    content: {
      kind: 'form',
      form: kind === 'star' ? { kind: 'star', points: 5, inner: 0.5 } : { kind: 'ellipse' },
      width: 9,
      height: 9,
      slot: kind === 'star' ? 'ink' : 'paper',
    },
  }));
  const placings: Placing[] = Array.from({ length: 200 }, (_, index) => ({
    id: `p${index}`,
    motif: index % 2 ? 'star' : 'ellipse',
    x: random() * 160,
    y: random() * 160,
    rotation: random() * 360,
    scaleX: 1,
    scaleY: 1,
    opacity: 1,
  }));
  const art = recipe({
    unit: { width: 160, height: 160 },
    motifs,
    placings,
    ground: { kind: 'slot', slot: 'paper' },
  });
  const pattern = await call<{ id: string; version: number }>('POST', '/patterns', {
    name: `Two hundred${mark}`,
    recipe: art,
  });
  await call('POST', `/patterns/${pattern.id}/revisions`, { base: pattern.version });
  const project = await call<{ id: string }>('POST', '/projects', { name: `Bench${mark}` });
  const layout = await call<{ id: string }>('POST', `/projects/${project.id}/layouts`, {
    name: `Two hundred${mark}`,
    width: 1600,
    height: 800,
    measure: 'px',
  });
  const columns = Math.ceil(Math.sqrt(shapes * 2));
  const pitch = 1600 / columns;
  const changes = Array.from({ length: shapes }, (_, index) => ({
    do: 'put-shape',
    shape: freshShape({
      id: `s${mark}${index}`,
      name: `Shape ${index}`,
      form: { kind: 'rectangle', radius: index % 3 ? 0 : 12 },
      x: (index % columns) * pitch + pitch / 20,
      y: Math.floor(index / columns) * pitch + pitch / 20,
      width: pitch * 0.9,
      height: pitch * 0.9,
      fills: [
        evenly(
          { ...freshFill(`f${mark}${index}`, pattern.id), rotation: random() * 360 - 180 },
          0.5 + random(),
        ),
        ...(index < layered ? overlay(`${mark}${index}`) : []),
      ],
    }),
  }));
  await call('POST', `/layouts/${layout.id}/changes`, { base: 1, changes });
  return `/projects/${project.id}/layouts/${layout.id}`;
}
