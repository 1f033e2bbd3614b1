import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PatternDetail } from '../../src/lib/contract/data';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { freshFill } from '../../src/lib/core/recipe/fill';
import { layoutWith, must, publishedPattern, unique } from '../support/api';
import {
  again,
  drag,
  enter,
  middle,
  named,
  openBrowser,
  press,
  saved,
  visit,
  type Session,
} from '../support/browser';
import { dot, place, recipe } from '../support/recipes';

let session: Session;
let page: Page;
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
});
afterAll(() => session.close());

const dots = () => recipe({ motifs: [dot('d', 60)], placings: [place('d', 50, 50)] });
const patternAt = async (): Promise<PatternDetail> =>
  must('GET', `/patterns/${new URL(page.url()).pathname.split('/')[2]}`);
async function openBoard(): Promise<void> {
  await press(page, 'Add a motif');
  await press(page, 'Draw one …', '.choices button');
  await page.waitForSelector('.board svg');
}
const gone = (selector: string): Promise<unknown> =>
  page.waitForFunction((wanted) => document.querySelector(wanted) === null, {}, selector);
async function disabled(name: string): Promise<boolean> {
  return (await named(page, name, 'button')).evaluate((one) => (one as HTMLButtonElement).disabled);
}

describe('the drawing board', () => {
  it('draws from the corner of the last piece, and lets go of a tool that was used', async () => {
    await visit(page, '/library/new');
    await openBoard();
    await page.focus('.board');
    await page.keyboard.press('r');
    const [x, y] = await middle(page, '.board');
    await drag(page, [x - 60, y - 40], [x, y]);
    await page.waitForSelector('[data-element="0"]');
    await page.focus('.board');
    await page.keyboard.press('r');
    await drag(page, [x, y], [x + 80, y + 60]);
    await page.waitForSelector('[data-element="1"]');
    const boxes = await page.$$eval('[data-element]', (all) =>
      all.map((one) => {
        const { left, top, right } = one.getBoundingClientRect();
        return { left, top, right };
      }),
    );
    // The first one keeps its corner where the second begins.
    expect(boxes[0]?.right).toBeCloseTo(boxes[1]?.left ?? 0, 0);
    expect(
      await (await named(page, 'Choose and move')).evaluate((one) => one.getAttribute('aria-pressed')),
    ).toBe('true');
  });

  it('is left by Back for the bench, and so are dialogs and panels; nothing is lost', async () => {
    const id = await publishedPattern(dots(), unique('Back Dots'));
    await visit(page, `/library/${id}`);
    await page.evaluate((path) => {
      const link = [...document.querySelectorAll('a')].find((one) => one.getAttribute('href') === path);
      link?.click();
    }, `/library/${id}/bench`);
    await page.waitForFunction(() => location.pathname.endsWith('/bench'));
    await openBoard();
    await page.focus('.board');
    await page.keyboard.press('?');
    await page.waitForSelector('dialog[open]');
    await page.evaluate(() => history.back());
    await gone('dialog[open]');
    expect(await page.$('.board')).not.toBeNull();
    await page.evaluate(() => history.back());
    await gone('.board');
    expect(new URL(page.url()).pathname).toBe(`/library/${id}/bench`);
    await saved(page);
    await page.evaluate(() => history.back());
    await page.waitForFunction(() => !location.pathname.endsWith('/bench'));
    expect((await must<PatternDetail>('GET', `/patterns/${id}`)).draft).toMatchObject({ motifs: [{}, {}] });
  });
});

describe('publishing', () => {
  it('is offered only while something differs from what is published', async () => {
    const id = await publishedPattern(dots(), unique('Same Dots'));
    await visit(page, `/library/${id}/bench`);
    const button = 'Publish revision 2';
    expect(await disabled(button)).toBe(true);
    await enter(page, 'Unit width', '120');
    expect(await disabled(button)).toBe(false);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await page.waitForFunction(
      (name) =>
        [...document.querySelectorAll('button')].some(
          (one) => one.textContent?.trim() === name && one.disabled,
        ),
      {},
      button,
    );
    await saved(page);
    await again(page);
    expect(await disabled(button)).toBe(true);
  });

  it('by Enter in its dialog changes every use: none is held', async () => {
    const name = unique('Enter Dots');
    const id = await publishedPattern(dots(), name);
    const use = freshShape({
      ...{ id: 'one', name: 'One', form: { kind: 'rectangle', radius: 0 } as const },
      ...{ x: 0, y: 0, width: 200, height: 200, fills: [freshFill('use', id)] },
    });
    const { id: layout } = await layoutWith([use], { width: 200, height: 200 });
    await visit(page, `/library/${id}/bench`);
    await enter(page, 'Unit width', '120');
    await press(page, 'Publish revision 2');
    await page.waitForSelector('dialog[open]');
    await page.keyboard.press('Enter');
    await gone('dialog[open]');
    await page.waitForFunction(() => document.body.textContent?.includes('Revision 2 of'));
    const { layout: after } = await must<{ layout: { shapes: { fills: { held: number | null }[] }[] } }>(
      'GET',
      `/layouts/${layout}`,
    );
    expect(after.shapes[0]?.fills[0]?.held).toBeNull();
  });

  it('asks for the name of a measured pattern, which follows its numbers until a person types one', async () => {
    await visit(page, '/library/new?start=measured');
    await press(page, 'Stripes', '[role="radio"]');
    const pitch = String((2000 + Math.floor(Math.random() * 1e5)) / 100);
    await enter(page, 'Every', `${pitch} pt`);
    const called = () =>
      page.$eval('[aria-label="The name of the pattern"]', (one) => (one as HTMLInputElement).value);
    await page.waitForFunction(
      (text) =>
        document
          .querySelector<HTMLInputElement>('[aria-label="The name of the pattern"]')
          ?.value.includes(`every ${text}`),
      {},
      pitch,
    );
    await press(page, 'Publish revision 1');
    const field = await page.waitForSelector('dialog input');
    expect(await field?.evaluate((one) => (one as HTMLInputElement).value)).toBe(await called());
    const mine = unique('Pinstripe');
    await page.keyboard.type(mine);
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (text) => document.body.textContent?.includes(`Revision 1 of “${text}”`),
      {},
      mine,
    );
    await press(page, 'Not now');
    await enter(page, 'Every', '31 pt');
    await saved(page);
    expect((await patternAt()).name).toBe(mine);
  });

  it('the second set of a hatch starts as the first one is', async () => {
    await visit(page, '/library/new?start=measured');
    await press(page, 'Hatch', '[role="radio"]');
    await enter(page, 'Line width', '2 pt');
    await enter(page, 'Every', '9 pt');
    await page.select('[aria-label="Second set"]', 'yes');
    const value = (label: string) =>
      page.$eval(`[aria-label="${label}"]`, (one) => (one as HTMLInputElement | HTMLSelectElement).value);
    await page.waitForSelector('[aria-label="Second width"]');
    expect(await value('Second width')).toBe('2');
    expect(await value('Second every')).toBe('9');
    expect(await value('Second line colour')).toBe(await value('Line colour'));
  });
});

it('a strike-off begins with its values, and Enter tries what was typed', async () => {
  const id = await publishedPattern(dots(), unique('Strike Dots'));
  const shape = freshShape({
    ...{ id: 'one', name: 'One', form: { kind: 'rectangle', radius: 0 } as const },
    ...{ x: 20, y: 20, width: 160, height: 160, fills: [freshFill('use', id)] },
  });
  const layout = await layoutWith([shape], { width: 200, height: 200 });
  await visit(page, layout.path);
  await page.click('tbody tr[data-row] .filled');
  await press(page, 'try out …');
  await page.waitForSelector('dialog[open]');
  expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))).toMatch(/^Values of/);
  await page.keyboard.type('20, 60');
  await page.keyboard.press('Enter');
  await page.waitForFunction(() => document.querySelectorAll('dialog .try').length === 2);
  expect(await page.$('dialog[open]')).not.toBeNull();
  expect(session.faults).toEqual([]);
});
