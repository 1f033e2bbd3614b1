import sharp from 'sharp';
import type { ElementHandle, Page } from 'puppeteer-core';
import { expect } from 'vitest';
import type { PatternDetail } from '../../src/lib/contract/data';
import type { Raster } from '../../src/lib/core/raster/composite';
import type { PicturedRecipe } from '../../src/lib/core/recipe/recipe';
import { must } from './api';
import { at, press, saved, visit } from './browser';

/** What the server made of a recipe, and the source as it was kept. */
export async function pixels(hash: string): Promise<Raster> {
  const answer = await fetch(at(`/api/v1/motifs/${hash}`));
  expect(answer.status).toBe(200);
  const { data, info } = await sharp(Buffer.from(await answer.arrayBuffer()))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data };
}

/** What tests do in the view where a repeat is made from a picture. */
export function fromPicture(page: () => Page) {
  /** Begins a pattern with a picture. */
  async function begin(path: string): Promise<void> {
    await visit(page(), '/library/new?start=picture');
    const input = await page().waitForSelector('input[aria-label="Picture to make a repeat from"]');
    await (input as ElementHandle<HTMLInputElement>).uploadFile(path);
    await page().waitForSelector('.photo');
    await page().waitForFunction(() => document.querySelector('[data-seam]') !== null);
  }
  const idNow = (): string => page().url().split('/').at(-2)!;
  const detail = (id = idNow()): Promise<PatternDetail> => must<PatternDetail>('GET', `/patterns/${id}`);
  async function draft(): Promise<PicturedRecipe> {
    await saved(page());
    const { draft: kept } = await detail();
    if (kept?.kind !== 'pictured') throw new Error('no pattern from a picture');
    return kept;
  }
  /** The word of the joins once they are measured for what is shown now. */
  async function seamNow(): Promise<{ word: string; figure: number }> {
    await page().waitForSelector('[data-seam]');
    await page().waitForFunction(() => !document.querySelector('.card')?.textContent?.includes('measuring'));
    return page().$eval('[data-seam]', (one) => ({
      word: one.getAttribute('data-seam') ?? '',
      figure: Number(/[\d.]+$/.exec(one.textContent ?? '')?.[0] ?? '0'),
    }));
  }
  async function publishAs(name: string): Promise<void> {
    await press(page(), 'Publish revision 1');
    const field = await page().waitForSelector('dialog[open] input');
    await field?.click({ clickCount: 3 });
    await page().keyboard.type(name);
    await page().keyboard.press('Enter');
    await page().waitForFunction(() => document.body.textContent?.includes('is in the library'));
  }

  return { begin, idNow, detail, draft, seamNow, publishAs };
}
