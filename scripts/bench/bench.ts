import { execFileSync } from 'node:child_process';
import type { Page } from 'puppeteer-core';
import sharp from 'sharp';
import { scaling } from '../../src/lib/core/geom/affine';
import { seededRandom } from '../../src/lib/core/num/random';
import type { ComposedRecipe, Motif } from '../../src/lib/core/recipe/recipe';
import { drawingOf, pictureElement } from '../../src/lib/core/scene/drawing';
import { widestGap } from '../../src/lib/core/scene/gap';
import { scatter, type ScatterPlan } from '../../src/lib/core/scene/scatter';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { dot, drawing, place, recipe } from '../../tests/support/recipes';
import { median, middle, print, sized } from './measure';
import { FRAME, caller, onPage } from './page';

const FRAMES = sized(60, 4);

/** A unit of 300 scattered pieces, each a drawing of three paths or a dot, brick. */
function threeHundred(): { base: ComposedRecipe; plan: ScatterPlan } {
  const leaf = drawing('leaf', 'M0 -12C8 -6 8 6 0 12C-8 6 -8 -6 0 -12ZM0 -9V9M-4 -2L4 2');
  const base = recipe({
    unit: { width: 900, height: 900 },
    repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
    motifs: [dot('dot', 18), leaf],
    ground: { kind: 'slot', slot: 'paper' },
  });
  const plan: ScatterPlan = {
    motifs: ['dot', 'leaf'],
    count: 300,
    seed: 3,
    spacing: 3,
    size: { from: 0.7, to: 1.3 },
    angle: { from: 0, to: 360 },
  };
  return { base, plan };
}

/** The bench: a drag of one of 300 placings with live neighbours, the widest gap, and the scatter of 300. */
export async function benchBench(): Promise<void> {
  const { base, plan } = threeHundred();
  let next = 0;
  const newId = (): string => `p${next++}`;
  const scattering = await median(() => scatter(base, plan, newId));
  const { placings } = scatter(base, plan, newId);
  const full = { ...base, placings };
  const scene = compileUnit(full, { skipAbutments: true });
  const gap = await median(() => widestGap(scene), 9);
  print(`The bench, ${placings.length} placings`, [
    { what: 'widest gap', ms: gap, ratio: gap / 50, reference: 'of 50 ms (goal ≤ 1)' },
    { what: 'scatter', ms: scattering, ratio: scattering / 500, reference: 'of 500 ms (goal ≤ 1)' },
  ]);
  await onPage(async (page, address) => {
    const pattern = await caller(address)<{ id: string }>('POST', '/patterns', {
      name: 'Three hundred',
      recipe: full,
    });
    await page.goto(`${address}/library/${pattern.id}/bench`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('.unit-view svg[role=img]');
    await new Promise((resolve) => setTimeout(resolve, 1500));
    const [first] = placings;
    if (!first) return;
    await dragFrames(page, first, 10);
    const frames: number[] = [];
    for (let round = 0; round < sized(5, 1); round += 1)
      frames.push(...(await dragFrames(page, first, FRAMES)));
    const worst = [...frames].sort((one, other) => other - one);
    const tenth = worst[Math.floor(frames.length / 10)] ?? 0;
    const ms = middle(frames);
    print('The bench, dragging one of 300 placings, neighbours live', [
      {
        what: 'median frame',
        ms,
        ratio: ms / FRAME,
        reference: 'of a 60 Hz frame (goal ≤ 1)',
        note: `one in ten is longer than ${tenth.toFixed(1)} ms, worst ${(worst[0] ?? 0).toFixed(0)} ms`,
      },
    ]);
  });
  await benchCutOuts();
}

/** Cut-out photographs of 2000 px on a unit of 12 in at 300 ppi: how large the page becomes, and how its frames go. */
async function benchCutOuts(): Promise<void> {
  const COUNT = sized(40, 3);
  const SIDE = sized(2000, 300);
  const UNIT = 900;
  await onPage(async (page, address) => {
    const call = caller(address);
    const motifs: Motif[] = [];
    for (let index = 0; index < COUNT; index += 1) {
      const file = await cutOutPng(SIDE, index);
      const answer = await fetch(`${address}/api/v1/motifs/pictures`, {
        method: 'POST',
        headers: { 'content-type': 'image/png', 'x-file-name': `cut-out-${index}.png` },
        body: new Uint8Array(file),
      });
      const { asset } = (await answer.json()) as { asset: string };
      const matrix = scaling((UNIT / 3600) * (2000 / SIDE) * 0.5);
      const picture = { asset, width: SIDE, height: SIDE, clear: true, matrix };
      motifs.push({
        id: `m${index}`,
        name: `Cut-out ${index}`,
        content: drawingOf([pictureElement(picture)], null),
      });
    }
    const placings = motifs.map(({ id }, index) =>
      place(id, ((index * 0.381966) % 1) * UNIT, ((index + 0.5) / COUNT) * UNIT, {
        id: `p${index}`,
        rotation: (index * 31) % 360,
      }),
    );
    const pattern = await call<{ id: string }>('POST', '/patterns', {
      name: 'Cut-outs',
      recipe: recipe({ unit: { width: UNIT, height: UNIT }, motifs, placings }),
    });
    await page.goto(`${address}/library/${pattern.id}/bench`, { waitUntil: 'networkidle2' });
    await page.waitForSelector('.unit-view svg[role=img]');
    await new Promise((resolve) => setTimeout(resolve, 3000));
    const [first] = placings;
    if (!first) return;
    await dragFrames(page, first, 10);
    const ms = middle(await dragFrames(page, first, FRAMES));
    const megabytes = pageMegabytes(page);
    print(`The bench, dragging one of ${COUNT} cut-out photographs of ${SIDE} px`, [
      { what: 'median frame', ms, ratio: ms / FRAME, reference: 'of a 60 Hz frame (goal ≤ 1)' },
    ]);
    console.log(`  the largest process of the browser holds ${megabytes} MB (goal ≤ 1500)`);
  });
}

/** A star of grain on nothing. */
async function cutOutPng(side: number, seed: number): Promise<Buffer> {
  const random = seededRandom(seed + 1);
  const data = Buffer.alloc(side * side * 4);
  for (let y = 0; y < side; y += 1)
    for (let x = 0; x < side; x += 1) {
      const [dx, dy] = [x - side / 2, y - side / 2];
      const edge = side * (0.34 + 0.12 * Math.cos((5 + (seed % 4)) * Math.atan2(dy, dx)));
      const grain = random() * 60;
      const at = (y * side + x) * 4;
      data[at] = 120 + grain + seed;
      data[at + 1] = 180 - grain;
      data[at + 2] = (seed * 37) % 200;
      data[at + 3] = Math.max(0, Math.min(255, (edge - Math.hypot(dx, dy)) * 60));
    }
  return sharp(data, { raw: { width: side, height: side, channels: 4 } })
    .png({ compressionLevel: 3 })
    .toBuffer();
}

/** Resident memory of the largest process that the page's browser has, MB. */
function pageMegabytes(page: Page): number {
  const own = page.browser().process()?.pid ?? 0;
  const rows = execFileSync('ps', ['-eo', 'pid=,ppid=,rss='], { encoding: 'utf8' })
    .trim()
    .split('\n')
    .map((row) => row.trim().split(/\s+/).map(Number) as [number, number, number]);
  const family = new Set([own]);
  for (let turn = 0; turn < 4; turn += 1)
    for (const [pid, parent] of rows) if (family.has(parent)) family.add(pid);
  return Math.round(Math.max(0, ...rows.filter(([pid]) => family.has(pid)).map(([, , rss]) => rss)) / 1024);
}

/** Drags a piece in a circle about its place, one step a frame, and answers how long each frame took. */
function dragFrames(page: Page, piece: { x: number; y: number }, count: number): Promise<number[]> {
  return page.evaluate(
    async (at, frames) => {
      const svg = document.querySelector<SVGSVGElement>('.unit-view svg[role=img]');
      const edge = document.querySelector('[data-edge="top"]');
      const side = document.querySelector('[data-edge="left"]');
      if (!svg || !edge || !side) throw new Error('no unit view');
      svg.setPointerCapture = () => undefined;
      const box = svg.getBoundingClientRect();
      const number = (element: Element, name: string): number => Number(element.getAttribute(name));
      const zoom = (number(edge, 'x2') - number(edge, 'x1')) / 900;
      const x0 = box.left + number(edge, 'x1') + at.x * zoom;
      const y0 = box.top + number(edge, 'y1') + at.y * zoom;
      const send = (type: string, x: number, y: number): void => {
        svg.dispatchEvent(
          new PointerEvent(type, {
            bubbles: true,
            cancelable: true,
            clientX: x,
            clientY: y,
            button: 0,
            pointerId: 1,
          }),
        );
      };
      const frame = (): Promise<number> => new Promise((resolve) => requestAnimationFrame(resolve));
      send('pointerdown', x0, y0);
      const times: number[] = [];
      let last = await frame();
      for (let step = 1; step <= frames; step += 1) {
        const angle = (step / frames) * 2 * Math.PI;
        send('pointermove', x0 + 40 * (1 - Math.cos(angle)) + 4, y0 + 40 * Math.sin(angle));
        const now = await frame();
        times.push(now - last);
        last = now;
      }
      send('pointermove', x0, y0);
      await frame();
      send('pointerup', x0, y0);
      await new Promise((resolve) => setTimeout(resolve, 900));
      return times;
    },
    { x: piece.x, y: piece.y },
    count,
  );
}
