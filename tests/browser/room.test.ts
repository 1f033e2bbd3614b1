import { join } from 'node:path';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import type { PatternDetail } from '../../src/lib/contract/data';
import { startMeasured } from '../../src/lib/core/recipe/measured';
import { must, publishedPattern, unique } from '../support/api';
import {
  drag,
  enter,
  middle,
  named,
  openBrowser,
  press,
  saved,
  shown,
  still,
  visit,
} from '../support/browser';
import { layoutView, topOf } from '../support/layout-view';
import { pngOf } from '../support/pictures';
import { block, dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

const session = await openBrowser();
const { page } = session;
const folder = mkdtempSync(join(tmpdir(), 'isle-room-'));
const patternName = unique('Roomy Dots');
const pattern = await publishedPattern(
  recipe({ motifs: [dot('d', 60)], placings: [place('d', 50, 50)] }),
  patternName,
);
// Each test begins with the rooms as they are at first.
beforeEach(() => page.evaluate(() => localStorage.clear()).catch(() => undefined));
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  await session.close();
});

const { open, choose, shapeNow } = layoutView(() => page);
const panel = () => ({
  ...filledShape({ x: 60, y: 60, width: 300, height: 200 }, { pattern }),
  name: 'Panel',
});
const boxOf = (selector: string) =>
  page.$eval(selector, (one) => {
    const { left, top, right, bottom, width, height } = one.getBoundingClientRect();
    return { left, top, right, bottom, width, height };
  });
const noPart = (selector: string) => page.waitForSelector(selector, { hidden: true });
const stageKey = async (key: '2' | '3' | '4' | '5' | '0'): Promise<void> => {
  await page.focus('.stage');
  await page.keyboard.press(key);
};

describe('the room of the stage', () => {
  it('grows when the edges beside it are dragged or moved by keys, and is remembered', async () => {
    await open([panel()]);
    const before = await boxOf('.stage');
    const edge = await middle(page, '[aria-label="Size of the hangers"]');
    await drag(page, edge, [edge[0] + 100, edge[1]]);
    expect((await boxOf('.stage')).width).toBeCloseTo(before.width - 100, -1);
    await page.focus('[aria-label="Size of the ledger"]');
    for (let count = 0; count < 3; count += 1) await page.keyboard.press('ArrowDown');
    const after = await boxOf('.stage');
    expect(after.height).toBeCloseTo(before.height + 48, -1);
    await page.reload();
    await visit(page, page.url().replace(/^https?:\/\/[^/]+/, ''));
    await page.waitForFunction(
      (wide) => Math.abs((document.querySelector('.stage')?.clientWidth ?? 0) - wide) < 3,
      {},
      after.width,
    );
    expect((await boxOf('.stage')).height).toBeCloseTo(after.height, -1);
  });

  it('is all there is with one key, and the page fills it; another key has the rest back', async () => {
    await open([panel()]);
    await still(page);
    const window = page.viewport()!;
    const small = await boxOf('[data-paper]');
    await stageKey('5');
    await noPart('.ledger');
    await noPart('.hangers-box');
    await noPart('.fills-box');
    await still(page);
    const stage = await boxOf('.stage');
    expect((stage.width * stage.height) / (window.width * window.height)).toBeGreaterThan(0.88);
    const large = await boxOf('[data-paper]');
    expect(large.width).toBeGreaterThan(small.width * 1.25);
    expect([large.top, large.bottom - 1] as const).toSatisfy(
      ([top, bottom]: readonly [number, number]) => top > stage.top && bottom < stage.bottom,
    );
    await stageKey('5');
    await page.waitForSelector('.ledger', { visible: true });
    await still(page);
    expect((await boxOf('[data-paper]')).width).toBeCloseTo(small.width, 0);
    for (const [key, part] of [
      ['2', '.hangers-box'],
      ['3', '.fills-box'],
      ['4', '.ledger'],
    ] as const) {
      await stageKey(key);
      await noPart(part);
      await stageKey(key);
      await page.waitForSelector(part, { visible: true });
    }
  });

  it('keeps a view that was zoomed by hand, and the page’s end in sight when a shape is chosen', async () => {
    await open([panel()]);
    await still(page);
    await choose('Panel');
    await still(page);
    const [paper, stage] = [await boxOf('[data-paper]'), await boxOf('.stage')];
    expect(paper.bottom).toBeLessThan(stage.bottom);
    await page.focus('.stage');
    await page.keyboard.press('1');
    const zoomed = await boxOf('[data-paper]');
    await stageKey('4');
    await noPart('.ledger');
    expect((await boxOf('[data-paper]')).width).toBeCloseTo(zoomed.width, 3);
    await stageKey('4');
  });

  it('is not covered by the panels that steer what is chosen', async () => {
    await open([{ ...panel(), x: 40, y: 40, width: 200, height: 200 }]);
    await choose('Panel');
    for (const name of ['Transform by numbers', 'Arrange']) {
      await press(page, name);
      const shape = await boxOf('[data-shape]');
      const box = await boxOf('[role="dialog"].panel');
      const across = Math.min(shape.right, box.right) - Math.max(shape.left, box.left);
      const down = Math.min(shape.bottom, box.bottom) - Math.max(shape.top, box.top);
      expect(Math.min(across, down), name).toBeLessThanOrEqual(0);
      await page.keyboard.press('Escape');
    }
  });

  it('hangs what the project uses first, and narrows the hangers as the library does', async () => {
    await open([panel()]);
    await page.waitForSelector('.hangers-box h2');
    const heads = await page.$$eval('.hangers-box h2', (all) => all.map((one) => one.textContent));
    expect(heads[0]).toBe('In this project');
    const firstName = await page.$eval('.hangers-box .hanger strong', (one) => one.textContent);
    expect(firstName).toBe(patternName);
    await press(page, 'Narrow the hangers');
    await press(page, 'Repeat: any');
    await (await named(page, 'Half-drop', '.options button')).click();
    await noPart('.hangers-box h2');
    const found = await page.$$eval('.hangers-box .hanger strong', (all) =>
      all.map((one) => one.textContent),
    );
    expect(found).not.toContain(patternName);
    await press(page, 'Clear');
    await page.waitForSelector('.hangers-box h2');
  });
});

describe('the library', () => {
  it('does not reflow when a hanger is pressed', async () => {
    await visit(page, '/library');
    const before = await boxOf('.wall .hanger');
    await page.click('.wall .hanger');
    await page.waitForSelector('.wall .hanger.chosen');
    expect(await boxOf('.wall .hanger')).toEqual(before);
  });

  it('finds inside words and with one wrong letter, and says what it was taken for', async () => {
    const name = unique('Kittiwake');
    await publishedPattern(recipe({ motifs: [dot('d', 20)], placings: [place('d', 50, 50)] }), name);
    await visit(page, '/library');
    const names = () => page.$$eval('.wall .hanger strong', (all) => all.map((one) => one.textContent ?? ''));
    for (const [typed, note] of [
      ['ittiwak', ''],
      ['kitiwake', 'No pattern has “kitiwake”; shown is “kittiwake'],
    ] as const) {
      await visit(page, `/library?search=${typed}`);
      expect(await names(), typed).toEqual([name]);
      expect(await page.$eval('.wall [role="status"]', (one) => one.textContent?.trim())).toContain(note);
    }
  });
});

describe('from a pattern to a layout', () => {
  it('a first publishing asks where to use it; it comes along in the hand and fills what is drawn', async () => {
    await visit(page, '/library');
    await page.evaluate(() => localStorage.clear());
    let actions = 0;
    const act = async (what: Promise<unknown>): Promise<void> => {
      actions += 1;
      await what;
    };
    const name = unique('My own');
    await act(press(page, 'Measured'));
    await act(press(page, 'Publish revision 1'));
    await page.waitForSelector('dialog[open] input');
    await act(page.keyboard.type(name));
    await act(page.keyboard.press('Enter'));
    await page.waitForFunction(() =>
      document.querySelector('dialog[open]')?.textContent?.includes('in a layout'),
    );
    await act(press(page, 'New layout', 'dialog button'));
    await page.waitForSelector('.stage');
    await page.waitForFunction(() =>
      document.querySelector('.fills-box')?.textContent?.includes('in your hand'),
    );
    await still(page);
    const [x, y] = await middle(page, '[data-paper]');
    await act(drag(page, [x - 60, y - 60], [x + 60, y + 60]));
    await saved(page);
    const used = await page.waitForFunction(
      (wanted) => document.querySelector('.ledger .filled')?.textContent?.includes(wanted),
      {},
      name,
    );
    expect(used).toBeTruthy();
    console.log(`First minute: ${actions} actions`);
    expect(actions).toBeLessThanOrEqual(9);
  });

  it('pale art lies on dark until a surface is chosen, which is remembered for the pattern', async () => {
    const pale = await publishedPattern(
      recipe({
        slots: [{ id: 'ink', name: 'Ink', colour: '#f8f7f2' }],
        motifs: [block('b', 40, 40)],
        placings: [place('b', 50, 50)],
      }),
      unique('Pale'),
    );
    const bench = `/library/${pale}/bench`;
    await visit(page, bench);
    expect(
      await page.$eval('[role="radio"][aria-checked="true"][aria-label="Dark"]', (one) => one.tagName),
    ).toBe('BUTTON');
    expect(await page.$eval('.pale', (one) => one.textContent)).toContain('pale');
    await press(page, 'Checkered', '[role="radio"]');
    await visit(page, bench);
    await page.waitForSelector('[role="radio"][aria-checked="true"][aria-label="Checkered"]');
    expect(await page.$('.pale')).toBeNull();
  });
});

describe('the numbers of a measured pattern, changed where it is used', () => {
  const striped = async (): Promise<string> =>
    publishedPattern(
      {
        kind: 'measured',
        version: 2,
        measure: 'px',
        measured: startMeasured('stripes', ['ink', 'ink']),
        ground: { kind: 'clear' },
        slots: [{ id: 'ink', name: 'Ink', colour: '#102030' }],
      },
      unique('Striped'),
    );
  const stripe = ({ recipe: of }: PatternDetail): number =>
    of?.kind === 'measured' ? (of.measured.numbers.width ?? 0) : Number.NaN;
  const detailOf = (id: string) => must<PatternDetail>('GET', `/patterns/${id}`);
  async function change(id: string, to: string): Promise<void> {
    const other = filledShape({ x: 400, y: 60, width: 120, height: 200 }, { id: 'others', pattern });
    await open([
      { ...filledShape({ x: 60, y: 60, width: 300, height: 200 }, { pattern: id }), name: 'Panel' },
      { ...other, id: 'other', name: 'Other' },
    ]);
    await choose('Panel');
    await press(page, 'Numbers of the pattern');
    await enter(page, 'Width', to);
    // A press on another shape leaves the numbers; what becomes of them is still about the first one.
    await choose('Other');
  }

  it('show at once, and are published, given up, or kept as a pattern for this shape alone', async () => {
    const id = await striped();
    await change(id, '3');
    await press(page, 'Give them up', 'dialog button');
    await noPart('dialog[open]');
    expect((await detailOf(id)).newest).toBe(1);
    await change(id, '3');
    await press(page, 'Publish revision 2', 'dialog button');
    await noPart('dialog[open]');
    const published = await detailOf(id);
    expect([published.newest, stripe(published)]).toEqual([2, 3]);
    await change(id, '2');
    await press(page, 'As a new pattern, here alone', 'dialog button');
    await noPart('dialog[open]');
    expect((await detailOf(id)).newest).toBe(2);
    const fill = topOf(await shapeNow('Panel'));
    if (fill.kind !== 'pattern') throw new Error('no pattern');
    expect(fill.pattern).not.toBe(id);
    expect(stripe(await detailOf(fill.pattern))).toBe(2);
    expect(topOf(await shapeNow('Other'))).toMatchObject({ pattern });
  });
});

describe('a picture on the bench', () => {
  it('comes in whole at its true size, says its resolution, and the unit fits what is typed', async () => {
    const plain = join(folder, 'plain.png');
    writeFileSync(plain, await pngOf(360, 240, () => [200, 90, 40, 255]));
    await visit(page, '/library/new');
    const input = (await page.waitForSelector('input[type="file"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(plain);
    await page.waitForFunction(() => document.querySelectorAll('aside li.chosen').length === 1);
    expect([await shown(page, 'Unit width'), await shown(page, 'Unit height')]).toEqual(['360', '240']);
    expect(await shown(page, 'Width of the motif')).toBe('360');
    expect(await shown(page, 'Resolution of the picture')).toBe('96');
    await enter(page, 'Resolution of the picture', '72');
    expect(await shown(page, 'Width of the motif')).toBe('480');
    await enter(page, 'Width of the motif', '3 in');
    await press(page, 'Fit the unit to the art');
    expect(await shown(page, 'Unit width')).toBe('288');
    await saved(page);
    const id = page.url().split('/').at(-2)!;
    const { draft } = await must<PatternDetail>('GET', `/patterns/${id}`);
    expect(draft?.kind === 'composed' && draft.unit.width).toBe(288);
  });
});

describe('what was changed about a file', () => {
  it('stands at the fill bar while what was made from it is chosen, until it is understood', async () => {
    const soft = join(folder, 'Soft Buoy.svg');
    writeFileSync(
      soft,
      `<svg xmlns="http://www.w3.org/2000/svg" width="80" height="40">
        <filter id="f"><feGaussianBlur stdDeviation="2"/></filter>
        <path fill="#a43" d="M0 0h30v30H0z"/><path fill="#0a3d42" d="M40 0h30v30H40z"/>
        <path fill="#123" filter="url(#f)" d="M10 10h9v9h-9z"/></svg>`,
    );
    await open([panel()]);
    const input = (await page.waitForSelector(
      '.tools input[type="file"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(soft);
    const said = await page.waitForSelector('[role="note"]');
    expect(await said?.evaluate((one) => one.textContent)).toMatch(/How “Soft Buoy\.svg” came in.*filter/s);
    await (await page.$('.toast .close'))?.click();
    // The part with the filter is a picture, and lies where it was drawn.
    expect(topOf(await shapeNow('Soft Buoy 3'))).toMatchObject({ kind: 'picture', shown: true });
    await choose('Panel');
    await noPart('.fills-box [role="note"]');
    await choose('Soft Buoy 3');
    await page.waitForSelector('.fills-box [role="note"]');
    await press(page, 'Understood');
    await noPart('.fills-box [role="note"]');
  });
});

describe('is this line real?', () => {
  const ask = async (x: number, y: number): Promise<string> => {
    const before = await page.$eval('.card', (one) => one.textContent);
    await page.mouse.click(x, y);
    await page.waitForFunction((held) => document.querySelector('.card')?.textContent !== held, {}, before);
    return page.$eval('.card strong', (one) => one.textContent ?? '');
  };

  it('tells a line of the pattern from one colour and from an edge', async () => {
    const lined = await publishedPattern(
      recipe({
        slots: [
          { id: 'ink', name: 'Ink', colour: '#102030' },
          { id: 'paper', name: 'Paper', colour: '#e8e0d0' },
        ],
        ground: { kind: 'slot', slot: 'paper' },
        motifs: [block('b', 2, 100), block('w', 40, 100)],
        placings: [place('b', 20, 50), place('w', 70, 50)],
      }),
      unique('Lined'),
    );
    await open([filledShape({ x: 0, y: 0, width: 560, height: 440 }, { pattern: lined })]);
    await page.focus('.stage');
    await page.keyboard.press('1');
    await still(page);
    const { left, top } = await boxOf('[data-paper]');
    const [x, y] = [Math.round(left), Math.round(top)];
    await press(page, 'Is this line real?');
    expect(await ask(x + 220, y + 200)).toMatch(/^The line is in the pattern/);
    expect(await ask(x + 205, y + 200)).toMatch(/of one colour/);
    expect(await ask(x + 250, y + 200)).toMatch(/two colours meet/);
    await page.keyboard.press('Escape');
    expect(await page.$('.card')).toBeNull();
  });
});

it('and nothing went wrong on the way', () => expect(session.faults).toEqual([]));
