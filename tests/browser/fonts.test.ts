import { createRequire } from 'node:module';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { StudioFont } from '../../src/lib/contract/data';
import { getLayout, layoutWith, must } from '../support/api';
import { enter, named, openBrowser, press, visit, type Session } from '../support/browser';
import { wordsOf } from '../support/pdf-readers';
import { until } from '../support/until';

const FONT = createRequire(import.meta.url).resolve('@fontsource/bitter/files/bitter-latin-400-normal.woff2');

let session: Session;
let page: Session['page'];
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
});
afterAll(() => session.close());

/** The words of the only text on a layout. */
const textOf = async (id: string): Promise<{ font: string; text: string; d: string }> => {
  const { layout } = await getLayout(id);
  return layout.shapes.flatMap(({ form }) => (form.kind === 'text' ? [form] : []))[0]!;
};

describe('a font that somebody brings', () => {
  it('is added with its licence, sets words, goes into a PDF, and stays while words are set in it', async () => {
    const layout = await layoutWith([], { width: 600, height: 400 });
    await visit(page, layout.path);
    await press(page, 'Set text');
    const [x, y] = await page.$eval('.stage', (stage) => {
      const { left, top, width, height } = stage.getBoundingClientRect();
      return [left + width / 2 - 60, top + height / 2] as const;
    });
    await page.mouse.click(x, y);
    await (await page.waitForSelector('.stage textarea'))?.type('AVATAR');
    await page.keyboard.press('Escape');
    await until(async () =>
      expect(await textOf(layout.id)).toMatchObject({ text: 'AVATAR', font: 'schibsted-grotesk-700' }),
    );
    const before = await textOf(layout.id);

    const choice = await named(page, 'Font', 'select');
    await choice.evaluate((select) => {
      (select as unknown as HTMLSelectElement).value = '+';
      select.dispatchEvent(new Event('change', { bubbles: true }));
    });
    const input = await page.waitForSelector('input[aria-label="Font file"]');
    await (input as ElementHandle<HTMLInputElement>).uploadFile('photos/thrift.jpg');
    await enter(page, 'Licence, or who allows its use', 'SIL OFL 1.1');
    await until(async () =>
      expect(await page.$eval('dialog .problem', (one) => one.textContent)).toMatch(/is no font/),
    );
    await (input as ElementHandle<HTMLInputElement>).uploadFile(FONT);
    await press(page, 'Add it', 'button');
    await until(async () => expect((await textOf(layout.id)).font).toMatch(/^own-[0-9a-f]{24}$/));
    const after = await textOf(layout.id);
    expect(after.d).not.toBe(before.d);
    const [font] = await must<StudioFont[]>('GET', '/fonts');
    expect(font).toMatchObject({ id: after.font, licence: 'SIL OFL 1.1' });

    const answer = await fetch(`${inject('address')}/api/v1/layouts/${layout.id}/pdf?fonts=true`);
    const { text, fonts } = await wordsOf(new Uint8Array(await answer.arrayBuffer()));
    expect(text).toMatch(/AVATAR/);
    expect(fonts).toEqual([expect.stringMatching(/CID TrueType Identity-H yes yes yes/)]);

    const refused = await fetch(`${inject('address')}/api/v1/fonts/${after.font}`, { method: 'DELETE' });
    expect(refused.status).toBe(409);
    expect(((await refused.json()) as { message: string }).message).toMatch(
      /^Words are set in “.*” in “Layout/,
    );
    const lacking = await fetch(`${inject('address')}/api/v1/fonts/${after.font}/line?size=40&text=%D7%90`);
    expect(((await lacking.json()) as { message: string }).message).toMatch(/has no א; choose another font/);
    expect(session.faults.filter((fault) => !/422|400/.test(fault))).toEqual([]);
  });
});
