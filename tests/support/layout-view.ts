import type { ElementHandle, Page } from 'puppeteer-core';
import type { PNG } from 'pngjs';
import type { Fill } from '../../src/lib/core/recipe/fill';
import type { Shape } from '../../src/lib/core/recipe/layout';
import { getLayout, layoutWith } from './api';
import { pixelsOf, saved, still, visit } from './browser';

export const topOf = ({ fills }: Shape): Fill => fills[fills.length - 1] as Fill;

/** The layout view as a designer uses it; `page` answers the tab that is open. */
export function layoutView(page: () => Page) {
  let layoutId = '';
  return {
    layoutId: () => layoutId,
    /** Makes a layout of shapes and opens it. */
    async open(shapes: Shape[], size = { width: 560, height: 440 }): Promise<void> {
      const layout = await layoutWith(shapes, size);
      layoutId = layout.id;
      await visit(page(), layout.path);
    },
    /** A shape of the layout as it is saved. */
    async shapeNow(name: string): Promise<Shape> {
      await saved(page());
      const shape = (await getLayout(layoutId)).layout.shapes.find((one) => one.name === name);
      if (!shape) throw new Error(`no shape ${name}`);
      return shape;
    },
    /** Selects a shape by its row of the ledger, more with `also`. */
    async choose(name: string, also = false): Promise<void> {
      const rows = await page().$$('tbody tr[tabindex]');
      for (const row of rows) {
        const called = await row.evaluate(
          (one) => one.querySelector('input')?.value ?? one.textContent ?? '',
        );
        if (!called.includes(name)) continue;
        if (also) await page().keyboard.down('Control');
        await (await row.$('.filled'))?.click();
        if (also) await page().keyboard.up('Control');
      }
    },
    /** Presses one of the choices for a fill. */
    async pick(label: string): Promise<void> {
      const found = await page().waitForFunction(
        (wanted: string) =>
          [...document.querySelectorAll<HTMLElement>('.choices button')].find((one) =>
            one.textContent?.replace(/\s+/g, ' ').trim().startsWith(wanted),
          ),
        {},
        label,
      );
      await (found as unknown as ElementHandle<HTMLElement>).click();
    },
    /** Gives a file to the hidden field of a name. */
    async give(field: string, file: string): Promise<void> {
      const input = await page().waitForSelector(`input[aria-label="${field}"]`);
      await (input as ElementHandle<HTMLInputElement>).uploadFile(file);
    },
    /** Waits until the row of fills shows so many. */
    fillsShown: (count: number) =>
      page().waitForFunction(
        (wanted: number) => document.querySelectorAll('.stack .chip').length === wanted,
        {},
        count,
      ),
    /** Waits until the ledger has a row of a name. */
    rowShown: (name: string) =>
      page().waitForFunction(
        (wanted: string) =>
          [...document.querySelectorAll('tbody .shape')].some(
            (cell) =>
              cell.querySelector('input')?.value === wanted || (cell.textContent ?? '').includes(wanted),
          ),
        {},
        name,
      ),
    stagePixels: (width: number, height: number) => stagePixels(page(), width, height),
  };
}

/** The page of a layout as the stage shows it at 100 %. */
export async function stagePixels(page: Page, width: number, height: number): Promise<PNG> {
  await page.keyboard.press('Escape');
  await page.focus('.stage');
  await page.keyboard.press('1');
  await page.waitForFunction(
    (wide: number) => {
      const paper = document.querySelector('[data-paper]');
      return paper !== null && Math.abs(paper.getBoundingClientRect().width - wide) < 0.01;
    },
    {},
    width,
  );
  await still(page);
  const box = await page.$eval('[data-paper]', (paper) => {
    const { x, y } = paper.getBoundingClientRect();
    return { x, y };
  });
  return pixelsOf(page, { x: Math.round(box.x), y: Math.round(box.y), width, height });
}
