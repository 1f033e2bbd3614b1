import type { Page } from 'puppeteer-core';
import { seededRandom } from '../../src/lib/core/num/random';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { IDENTITY } from '../../src/lib/core/geom/affine';
import { freshFill, gradientFill, type Fill, type PatternFill } from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import type { Motif, Placing } from '../../src/lib/core/recipe/recipe';
import { recipe } from '../../tests/support/recipes';
import { middle, print, type Row } from './measure';
import { FRAME, caller, onPage } from './page';

const FRAMES = 24;
const ROUNDS = 5;

/** checks.md: drag the scale of 1 and of all of 200 fills, 200 paths a unit, in headless Chromium, against one 60 Hz frame. */
export function benchStage(): Promise<void> {
  return onPage(async (page, address) => {
    const path = await makeLayout(address);
    await page.goto(`${address}${path}?shape=s100`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('.bar input[aria-label="Scale"]');
    const one = await rounds(page, 'Scale');
    const slide = await rounds(page, 'Offset across');
    await page.focus('.stage');
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    const all = await rounds(page, 'Scale');
    const slideAll = await rounds(page, 'Offset across');
    const row = (what: string, measured: { median: number; worst: number }, goal: string): Row => ({
      what,
      ms: measured.median,
      ratio: measured.median / FRAME,
      reference: `of a 60 Hz frame (${goal})`,
      note: `worst frame ${measured.worst.toFixed(0)} ms`,
    });
    const oneOf = async (mark: string, what: { shapes?: number; layers?: boolean }) => {
      const other = await makeLayout(address, mark, what);
      await page.goto(`${address}${other}?shape=s${mark}100`, { waitUntil: 'networkidle2' });
      await page.waitForSelector('.bar input[aria-label="Scale"]');
      return rounds(page, 'Scale');
    };
    const layered = await oneOf('b', { layers: true });
    const thousand = await oneOf('c', { shapes: 1000 });
    const thousandMoved = await dragged(page);
    print('Stage, 200 paths a unit, median frame while dragging', [
      row('scale of 1 of 200 fills', one, 'goal ≤ 1'),
      row('offset of 1 of 200 fills', slide, 'goal ≤ 1'),
      row('scale of all 200 fills', all, 'goal ≤ 2.04'),
      row('offset of all 200 fills', slideAll, 'goal ≤ 2.04'),
      row('scale of 1 of 200, each under a blended, masked gradient', layered, 'goal ≤ 1'),
      row('scale of 1 of 1,000 fills', thousand, 'goal ≤ 1'),
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

/** Moves the selected shape about with the pointer. */
async function dragged(page: Page): Promise<{ median: number; worst: number }> {
  await page.focus('.stage');
  await page.keyboard.press('s');
  const frames: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const box = await page.$eval('.handles .outline', (outline) => {
      const { x, y, width, height } = outline.getBoundingClientRect();
      return { x: x + width * 0.2, y: y + height * 0.2 };
    });
    await page.evaluate(() => {
      const times: number[] = [];
      (window as unknown as { frameTimes: number[] }).frameTimes = times;
      let last = performance.now();
      const tick = (): void => {
        const now = performance.now();
        times.push(now - last);
        last = now;
        if (times.length < 40) requestAnimationFrame(tick);
      };
      requestAnimationFrame(tick);
    });
    await page.mouse.move(box.x, box.y);
    await page.mouse.down();
    for (let step = 1; step <= FRAMES; step += 1) await page.mouse.move(box.x + step, box.y + (step % 5));
    await page.mouse.up();
    await new Promise((resolve) => setTimeout(resolve, 400));
    frames.push(
      ...(await page.evaluate(() => (window as unknown as { frameTimes: number[] }).frameTimes.slice(4, 30))),
    );
  }
  return { median: middle(frames), worst: Math.max(...frames) };
}

async function rounds(page: Page, field: string): Promise<{ median: number; worst: number }> {
  await dragFrames(page, field, 6);
  const frames: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) frames.push(...(await dragFrames(page, field, FRAMES)));
  return { median: middle(frames), worst: Math.max(...frames) };
}

/** Drags across a number field of the fill bar, one step a frame, and answers how long each frame took. */
function dragFrames(page: Page, field: string, count: number): Promise<number[]> {
  return page.evaluate(
    async (name, frames) => {
      const input = document.querySelector<HTMLInputElement>(`.bar input[aria-label="${name}"]`);
      if (!input) throw new Error(`no field ${name}`);
      input.blur();
      input.setPointerCapture = () => undefined;
      const send = (type: string, x: number): void => {
        input.dispatchEvent(
          new PointerEvent(type, {
            bubbles: true,
            cancelable: true,
            clientX: x,
            clientY: 5,
            button: 0,
            pointerId: 1,
          }),
        );
      };
      const frame = (): Promise<number> => new Promise((resolve) => requestAnimationFrame(resolve));
      send('pointerdown', 0);
      const times: number[] = [];
      let last = await frame();
      for (let step = 1; step <= frames; step += 1) {
        send('pointermove', (step % 2 ? step : step - 40) + 4);
        const now = await frame();
        times.push(now - last);

        last = now;
      }
      send('pointerup', 0);
      await new Promise((resolve) => setTimeout(resolve, 400));
      return times;
    },
    field,
    count,
  );
}

/** 200 shapes in a grid, each with a fill of its own scale and angle of one pattern of 200 paths. */
export async function makeLayout(
  address: string,
  mark = '',
  { shapes = 200, layers = false }: { shapes?: number; layers?: boolean } = {},
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
        ...(layers ? overlay(`${mark}${index}`) : []),
      ],
    }),
  }));
  await call('POST', `/layouts/${layout.id}/changes`, { base: 1, changes });
  return `/projects/${project.id}/layouts/${layout.id}`;
}
