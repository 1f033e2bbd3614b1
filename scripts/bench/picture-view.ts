import type { Page } from 'puppeteer-core';
import sharp from 'sharp';
import { regionFor } from '../../src/lib/core/lattice/fold';
import { madeSize } from '../../src/lib/core/recipe/made';
import { freshPictured } from '../../src/lib/core/recipe/pictured';
import type { PicturedRecipe } from '../../src/lib/core/recipe/recipe';
import { middle, print, sized } from './measure';
import { FRAME, caller, longestTask, onPage } from './page';
import { photo } from './pictures';

const FRAMES = sized(90, 6);

/** The view where a repeat is made from a picture: its region dragged on a photograph of 6000 × 4000 px, the repeat beside it in p4m. */
export async function benchPictureView(): Promise<void> {
  const [width, height] = [sized(6000, 600), sized(4000, 400)];
  const file = await sharp(await photo(width, height))
    .jpeg({ quality: 85 })
    .toBuffer();
  await onPage(async (page, address) => {
    const brought = await fetch(`${address}/api/v1/motifs/pictures`, {
      method: 'POST',
      headers: { 'content-type': 'image/jpeg', 'x-file-name': 'photo.jpg' },
      body: new Uint8Array(file),
    });
    const { asset } = (await brought.json()) as { asset: string };
    const { id } = await caller(address)<{ id: string }>('POST', '/patterns', {
      name: 'A photograph',
      recipe: kaleidoscope(asset, width, height),
    });
    await page.evaluateOnNewDocument(countRepeats);
    await page.goto(`${address}/library/${id}/bench`);
    await page.waitForSelector('.tray canvas, .tray img');
    await new Promise((resolve) => setTimeout(resolve, sized(6000, 500)));
    await drag(page, 10);
    const { frames, repeats } = await drag(page, FRAMES);
    const task = await longestTask(page, () => drag(page, FRAMES));
    const ms = middle(frames);
    const made = frames.reduce((sum, one) => sum + one, 0) / Math.max(1, repeats);
    print(`The region of a photograph of ${width} × ${height} px dragged, 3 × 3 repeats in p4m beside it`, [
      { what: 'median frame', ms, ratio: ms / FRAME, reference: 'of a 60 Hz frame (goal ≤ 1)' },
      { what: 'a repeat is shown every', ms: made, ratio: made / FRAME, reference: 'of a frame (goal ≤ 1)' },
      { what: 'longest task of the page', ms: task, ratio: task / 50, reference: 'of 50 ms (goal ≤ 1)' },
    ]);
  });
}

function kaleidoscope(asset: string, width: number, height: number): PicturedRecipe {
  const fresh = freshPictured({ asset, width, height, name: 'photo' });
  const symmetry = { on: true, group: 'p4mm' as const };
  const region = regionFor({ ...fresh.region, width: height / 4, height: height / 4 }, 'p4mm');
  const pictured = { ...fresh, region, symmetry };
  const made = madeSize(pictured);
  return {
    kind: 'pictured',
    version: 2,
    measure: 'mm',
    pictured,
    lay: { kind: 'straight' },
    unit: { width: made.width / 4, height: made.height / 4 },
    ground: { kind: 'clear' },
    slots: [],
  };
}

/** Runs in the page: counts the repeats that come to be shown, but not the small ones of the tray. */
function countRepeats(): void {
  const counted = window as unknown as { repeats: number };
  counted.repeats = 0;
  const { prototype } = CanvasRenderingContext2D;
  const put = prototype.putImageData;
  let last: unknown = null;
  prototype.putImageData = function (this: CanvasRenderingContext2D, image: ImageData, ...rest: number[]) {
    if (image.width > 100 && image.data !== last) counted.repeats += 1;
    if (image.width > 100) last = image.data;
    put.apply(this, [image, ...rest] as unknown as Parameters<typeof put>);
  };
}

/** Drags the region in a circle, one step a frame. */
function drag(page: Page, count: number): Promise<{ frames: number[]; repeats: number }> {
  return page.evaluate(async (steps) => {
    const inside = document.querySelector<SVGElement>('.photo .inside');
    if (!inside) throw new Error('There is no region to drag.');
    const counted = window as unknown as { repeats: number };
    const box = inside.getBoundingClientRect();
    const [x0, y0] = [box.left + box.width / 2, box.top + box.height / 2];
    const send = (type: string, x: number, y: number): void => {
      const where = { clientX: x, clientY: y, button: 0, pointerId: 1 };
      inside.dispatchEvent(new PointerEvent(type, { bubbles: true, cancelable: true, ...where }));
    };
    for (let node: Element | null = inside; node; node = node.parentElement)
      node.setPointerCapture = () => undefined;
    const frame = (): Promise<number> => new Promise((resolve) => requestAnimationFrame(resolve));
    send('pointerdown', x0, y0);
    const frames: number[] = [];
    let last = await frame();
    const before = counted.repeats;
    for (let step = 1; step <= steps; step += 1) {
      const angle = (step / steps) * 2 * Math.PI;
      send('pointermove', x0 + 40 * (1 - Math.cos(angle)) + 4, y0 + 40 * Math.sin(angle));
      const now = await frame();
      frames.push(now - last);
      last = now;
    }
    const repeats = counted.repeats - before;
    send('pointermove', x0, y0);
    await frame();
    send('pointerup', x0, y0);
    await new Promise((resolve) => setTimeout(resolve, 900));
    return { frames, repeats };
  }, count);
}
