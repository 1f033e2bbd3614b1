import { patternFills } from '../../src/lib/core/recipe/layout';
import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PatternFill } from '../../src/lib/core/recipe/fill';
import { getLayout, layoutWith, publishedPattern } from '../support/api';
import { enter, openBrowser, press, saved, shown, visit, type Session } from '../support/browser';
import { layoutView } from '../support/layout-view';
import { dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

/** Numbers of fills through the fill bar, as a designer sets them. */
let session: Session;
let page: Page;
let layout = { id: '', path: '' };

beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  const pattern = await publishedPattern(
    recipe({ motifs: [dot('d', 60)], placings: [place('d', 50, 50)] }), // a unit of 100 × 100 px, laid straight
  );
  layout = await layoutWith(
    [
      {
        ...filledShape({ x: 20, y: 20, width: 500, height: 330 }, { pattern, scaleX: 0.7, scaleY: 0.7 }),
        name: 'Band',
      },
      { ...filledShape({ x: 20, y: 360, width: 500, height: 60 }), name: 'Foot', fills: [] },
    ],
    { width: 560, height: 440 },
  );
});
afterAll(() => session.close());

async function fillNow(name = 'Band'): Promise<PatternFill> {
  await saved(page);
  const shape = (await getLayout(layout.id)).layout.shapes.find((one) => one.name === name);
  const fill = shape && patternFills(shape).at(-1);
  if (!fill) throw new Error('no pattern fill');
  return fill;
}
const { choose } = layoutView(() => page);
const offers = (): Promise<string[]> =>
  page.$$eval('.offers button', (found) =>
    found.map((one) => one.textContent?.replace(/\s+/g, ' ').trim() ?? ''),
  );

describe('whole repeats', () => {
  it('are offered with what they change, and span the width once taken; undo brings the old scale back', async () => {
    await visit(page, layout.path);
    await choose('Band');
    await press(page, 'Fit whole repeats');
    await page.waitForSelector('.offers button');
    expect(await offers()).toEqual([
      'Across7 repeats 71.43 % (+2 %)',
      'Down5 repeats 66 % (−5.7 %)',
      'Across and down7 × 5 repeats 71.43 · 66 % (+2 % · −5.7 %)',
    ]);
    await page.click('.offers button');
    const { scaleX, scaleY } = await fillNow();
    expect(scaleX * 100 * 7).toBeCloseTo(500, 9);
    expect(scaleY).toBe(scaleX);
    await press(page, 'Undo');
    expect(await fillNow()).toMatchObject({ scaleX: 0.7, scaleY: 0.7 });
  });

  it('of a turned pattern come by the nearest angle at which it closes', async () => {
    await enter(page, 'Rotation', '30');
    await press(page, 'Fit whole repeats');
    await page.waitForSelector('.offers button');
    expect((await offers()).map((offer) => offer.slice(0, 23))).toEqual([
      'Turned, to close across',
      'Turned, to close down 7',
    ]);
    await page.click('.offers button');
    const { scaleX, rotation } = await fillNow();
    // The shape's far end, 500 px on, in units of the lattice: both of its coordinates are whole.
    const along = 500 / (scaleX * 100);
    const radians = (-rotation * Math.PI) / 180;
    for (const steps of [along * Math.cos(radians), along * Math.sin(radians)])
      expect(steps).toBeCloseTo(Math.round(steps), 6);
    expect(await shown(page, 'Rotation')).toBe(String(Number(rotation.toFixed(2))));
  });
});

describe('a fill like another shape’s', () => {
  it('is taken whole, and then a single property of it, each as one step', async () => {
    const band = await fillNow();
    await choose('Foot');
    await press(page, 'Fill like another shape');
    await page.waitForSelector('.shapes button');
    await page.click('.shapes button');
    expect(await fillNow('Foot')).toEqual({ ...band, id: (await fillNow('Foot')).id });

    await choose('Band');
    await enter(page, 'Rotation', '45');
    await enter(page, 'Scale', '25');
    await choose('Foot');
    await press(page, 'Fill like another shape');
    await page.waitForSelector('.shapes button');
    for (const tick of await page.$$('.ticks label'))
      if ((await tick.evaluate((one) => one.textContent?.trim())) !== 'Rotation') await tick.click();
    await page.click('.shapes button');
    expect(await fillNow('Foot')).toMatchObject({ rotation: 45, scaleX: band.scaleX });
    await press(page, 'Undo');
    expect(await fillNow('Foot')).toMatchObject({ rotation: band.rotation, scaleX: band.scaleX });
  });

  it('goes back to plain numbers one by one', async () => {
    const { rotation } = await fillNow('Foot');
    await press(page, 'Set the scale back to 100 %');
    expect(await fillNow('Foot')).toMatchObject({ scaleX: 1, scaleY: 1, rotation });
    await press(page, 'Set the rotation back to 0°');
    expect(await fillNow('Foot')).toMatchObject({ scaleX: 1, rotation: 0 });
    expect(await page.$('[aria-label="Set the rotation back to 0°"]')).toBeNull();
  });
});
