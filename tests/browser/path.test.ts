import { patternFills } from '../../src/lib/core/recipe/layout';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import sharp from 'sharp';
import type { ElementHandle, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PatternFill } from '../../src/lib/core/recipe/fill';
import { exportPng, getLayout, unique } from '../support/api';
import {
  again,
  downloaded,
  drag,
  enter,
  middle,
  named,
  openBrowser,
  pixelAt,
  pixelsOf,
  press,
  saved,
  shown,
  still,
  visit,
  type Session,
} from '../support/browser';

/** The main job as a designer does it, through the real interface with pointer and keyboard. */
const MOTIF = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40" width="40" height="40">
  <title>Float</title><circle cx="20" cy="20" r="18" fill="#e5572e"/><rect x="2" y="17" width="36" height="6" fill="#ffffff"/></svg>`;

let session: Session;
let page: Page;
const folder = mkdtempSync(join(tmpdir(), 'isle-path-'));
const names = {
  pattern: unique('Float Field'),
  renamed: unique('Float Row'),
  project: unique('Pool job'),
  second: unique('Boat job'),
};
let patternPath = '';
let layoutPath = '';
let secondPath = '';
const layoutId = (path: string): string => path.split('/')[4]?.split('?')[0] ?? '';

beforeAll(async () => {
  session = await openBrowser();
  page = session.page;
  writeFileSync(join(folder, 'float.svg'), MOTIF);
  const client = await page.createCDPSession();
  await client.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder });
});
afterAll(async () => {
  await session.close();
  rmSync(folder, { recursive: true, force: true });
});

async function fillsOf(path: string): Promise<Map<string, PatternFill>> {
  const { layout } = await getLayout(layoutId(path));
  return new Map(
    layout.shapes.flatMap((shape) => patternFills(shape).map((fill) => [shape.name, fill] as const)),
  );
}

/** Draws a shape on the stage with a tool, between shares of the stage. */
async function drawShape(tool: string, from: [number, number], to: [number, number]): Promise<void> {
  await press(page, tool);
  const stage = await (await page.waitForSelector('.stage'))?.boundingBox();
  if (!stage) throw new Error('there is no stage');
  const point = ([x, y]: [number, number]): [number, number] => [
    stage.x + stage.width * x,
    stage.y + stage.height * y,
  ];
  await drag(page, point(from), point(to));
}

async function makeProject(name: string): Promise<string> {
  await visit(page, '/projects');
  await press(page, 'New project');
  await enter(page, 'The name of the project', name);
  await page.waitForFunction(() => /^\/projects\/[\w-]+$/.test(location.pathname));
  await press(page, 'New layout');
  await page.select('select[aria-label="Unit of length"]', 'px');
  await enter(page, 'Width of the page', '1000');
  await enter(page, 'Height of the page', '500');
  await press(page, 'Make layout');
  await page.waitForFunction(() => location.pathname.includes('/layouts/'));
  await page.waitForSelector('.stage');
  return page.evaluate(() => location.pathname);
}

describe('from a motif to a reused fill', () => {
  it('makes a pattern from an SVG motif: placed twice, brick, ground, named, published', async () => {
    await visit(page, '/library/new');
    const chooser = await page.waitForSelector('input[type="file"]');
    await (chooser as ElementHandle<HTMLInputElement>).uploadFile(join(folder, 'float.svg'));
    await named(page, 'Choose Float');
    await page.waitForFunction(() => location.pathname.endsWith('/bench'));
    await enter(page, 'Unit width', '80px');
    await enter(page, 'Unit height', '60px');
    await press(page, 'Brick');
    await enter(page, 'Step', '1/2');
    await page.select('select[aria-label="Kind of ground"]', 'slot');
    await press(page, 'Place Float once more');
    // One piece goes over the left edge by dragging, and comes back at the right: its place stays inside the unit.
    const view = await (await page.waitForSelector('.unit-view'))?.boundingBox();
    const chosen = await middle(page, '.handles polygon.line');
    await drag(page, chosen, [chosen[0] - (view?.width ?? 0) * 0.3, chosen[1]]);
    await saved(page);
    const across = Number(await shown(page, 'Place across'));
    expect(across).toBeGreaterThanOrEqual(0);
    expect(across).toBeLessThan(80);
    await enter(page, 'Place across', '60px');
    await enter(page, 'Place down', '45px');
    await enter(page, 'Width of the piece', '20px');
    await enter(page, 'Rotation of the piece', '90');
    const other = await page.$$eval('.list option', (found) => (found[2] as HTMLOptionElement).value);
    await page.select('.list select', other);
    await enter(page, 'Place across', '20px');
    await enter(page, 'Place down', '20px');
    await saved(page);
    await press(page, 'Publish revision 1');
    await enter(page, 'The name of the pattern', names.pattern);
    await page.waitForFunction(() => document.body.textContent?.includes('is in the library'));
    patternPath = (await page.evaluate(() => location.pathname)).replace('/bench', '');
    await visit(page, `/library?search=${encodeURIComponent(names.pattern)}`);
    await page.waitForFunction(
      (name) => [...document.querySelectorAll('strong')].some((strong) => strong.textContent === name),
      {},
      names.pattern,
    );
  });

  it('fills two shapes of a new layout at different scale, angle, opacity, ground and colours', async () => {
    layoutPath = await makeProject(names.project);
    await drawShape('Draw a rectangle', [0.2, 0.3], [0.5, 0.8]);
    await page.type('aside input[type="search"]', names.pattern);
    const hanger = await named(
      page,
      `${names.pattern}21.17 × 15.88 mm`.replace('21.17 × 15.88 mm', '21.2 × 15.9 mm'),
      'aside button',
    );
    // The tray gathers what was typed.
    await still(page);
    await hanger.click();
    await page.waitForFunction(
      (name) => document.querySelector('.pattern-name')?.textContent === name,
      {},
      names.pattern,
    );
    await enter(page, 'Scale', '150');
    await enter(page, 'Rotation', '30');
    await enter(page, 'Offset across', '12');
    await saved(page);
    // The second shape: dropped on, then its own numbers.
    await drawShape('Draw an ellipse', [0.6, 0.3], [0.85, 0.8]);
    await (await named(page, 'Choose what fills it')).click();
    await (await named(page, names.pattern, '.choices button')).click();
    await page.waitForFunction(
      () =>
        document.querySelectorAll('tbody tr').length === 2 &&
        !document.querySelector('tbody')?.textContent?.includes('nothing'),
    );
    await enter(page, 'Scale', '60');
    await enter(page, 'Opacity', '50');
    await press(page, 'Choose the ground');
    await press(page, 'Another colour', '.choices button');
    await press(page, 'Ground colour');
    await enter(page, 'Ground colour as hex or CSS colour', '#10394d');
    await page.keyboard.press('Escape');
    await press(page, 'Colour 1');
    await enter(page, 'Colour 1 as hex or CSS colour', 'gold');
    await page.keyboard.press('Escape');
    await saved(page);
    const fills = await fillsOf(layoutPath);
    expect(fills.get('Rectangle')).toMatchObject({
      scaleX: 1.5,
      scaleY: 1.5,
      rotation: 30,
      offset: { x: 12, y: 0 },
      opacity: 1,
      ground: { kind: 'own' },
    });
    expect(fills.get('Ellipse')).toMatchObject({
      scaleX: 0.6,
      rotation: 0,
      opacity: 0.5,
      ground: { kind: 'colour', colour: '#10394d' },
    });
    expect(Object.values(fills.get('Ellipse')?.colours ?? {})).toEqual([{ colour: '#ffd700' }]);
  });

  it('sizes the shape without stretching the pattern, then turns pattern only and both by their handles', async () => {
    await page.click('tbody tr:nth-child(2) .filled');
    const before = (await getLayout(layoutId(layoutPath))).layout.shapes[0];
    const grip = await middle(page, '[data-handle="1,1"]');
    await drag(page, grip, [grip[0] + 60, grip[1] + 20]);
    await saved(page);
    const sized = (await getLayout(layoutId(layoutPath))).layout.shapes[0];
    expect(sized?.width).toBeGreaterThan((before?.width ?? 0) + 20);
    expect(sized?.fills).toEqual(before?.fills);
    await page.focus('.stage');
    await page.keyboard.press('p');
    const hub = await middle(page, '[data-handle="hub"]');
    await drag(page, hub, [hub[0] + 25, hub[1] - 10]);
    await saved(page);
    const slid = (await getLayout(layoutId(layoutPath))).layout.shapes[0];
    expect({ ...slid, fills: [] }).toEqual({ ...sized, fills: [] });
    expect((slid?.fills[0] as PatternFill).offset.x).toBeGreaterThan(12);
    const arm = await middle(page, '[data-handle="arm-across"]');
    const centre = await middle(page, '[data-handle="hub"]');
    await drag(page, arm, [centre[0] + (arm[0] - centre[0]) * 1.5, centre[1] + (arm[1] - centre[1]) * 1.5]);
    await saved(page);
    const scaled = (await fillsOf(layoutPath)).get('Rectangle');
    expect(scaled?.scaleX).toBeCloseTo(2.25, 1);
    expect(scaled?.rotation).toBeCloseTo(30, 6);
    for (let times = 0; times < 3; times += 1) await press(page, 'Undo');
    await saved(page);
    const undone = (await getLayout(layoutId(layoutPath))).layout.shapes[0];
    expect(undone).toEqual(before);
  });

  it('is where it was after a reload', async () => {
    await again(page);
    expect(await page.evaluate(() => document.querySelectorAll('tbody tr').length)).toBe(2);
    expect(await shown(page, 'Scale')).toBe('150');
    expect(await shown(page, 'Rotation')).toBe('30');
  });

  it('is reused in a second project', async () => {
    secondPath = await makeProject(names.second);
    // By keyboard alone: a shape in the middle of the page, filled from the hangers.
    await (await named(page, 'Draw a star')).focus();
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => document.querySelectorAll('tbody tr[aria-selected="true"]').length === 1,
    );
    await page.focus('aside input[type="search"]');
    await page.keyboard.type(names.pattern);
    await page.waitForFunction(() => document.querySelectorAll('aside ul button').length === 1);
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (name) => document.querySelector('.pattern-name')?.textContent === name,
      {},
      names.pattern,
    );
    await enter(page, 'Scale', '700');
    await saved(page);
    expect((await fillsOf(secondPath)).get('Star')).toMatchObject({ scaleX: 7 });
  });

  it('changes the pattern once: both layouts follow and keep their own settings', async () => {
    await visit(page, `${patternPath}/bench`);
    await press(page, 'Colour 1');
    await enter(page, 'Colour 1 as hex or CSS colour', '#5d7a52');
    await page.keyboard.press('Escape');
    await saved(page);
    const before = { first: await fillsOf(layoutPath), second: await fillsOf(secondPath) };
    // A draft shows in no use.
    expect((await getLayout(layoutId(layoutPath))).patterns[0]?.newest).toBe(1);
    await press(page, 'Publish revision 2');
    await press(page, 'Publish revision 2', 'dialog button');
    await page.waitForFunction(() => document.body.textContent?.includes('is in the library'));
    const { patterns } = await getLayout(layoutId(layoutPath));
    expect(patterns[0]).toMatchObject({ newest: 2 });
    expect(await fillsOf(layoutPath)).toEqual(before.first);
    expect(await fillsOf(secondPath)).toEqual(before.second);
    await visit(page, secondPath);
    const picture = await pixelsOf(page);
    const greens = countNear(picture, [0x5d, 0x7a, 0x52]);
    const oranges = countNear(picture, [0xe5, 0x57, 0x2e], { left: 240, top: 140, right: 1270, bottom: 500 });
    expect(greens).toBeGreaterThan(200);
    expect(oranges).toBe(0);
  });

  it('renames the pattern and no use changes', async () => {
    const before = await fillsOf(layoutPath);
    await visit(page, patternPath);
    await enter(page, 'The name of the pattern', names.renamed);
    await page.waitForFunction((name) => document.title.startsWith(name), {}, names.renamed);
    expect(await fillsOf(layoutPath)).toEqual(before);
    await press(page, 'Uses 3');
    await page.waitForSelector('section li a');
    const links = await page.$$eval('section li a', (found) =>
      found.map((link) => link.getAttribute('href') ?? ''),
    );
    expect(links).toHaveLength(3);
    await visit(page, links.find((link) => link.startsWith(layoutPath)) ?? '');
    await page.waitForFunction(
      (name) => document.querySelector('.pattern-name')?.textContent === name,
      {},
      names.renamed,
    );
  });

  it('hands over PNG and SVG whose pixels are the stage’s', async () => {
    await visit(page, layoutPath);
    await press(page, 'Export');
    await enter(page, 'Resolution', '300');
    await press(page, 'Export PNG');
    const png = readFileSync(await downloaded(folder, (name) => name.endsWith('.png')));
    const picture = PNG.sync.read(png);
    expect([picture.width, picture.height]).toEqual([3125, 1563]);
    expect((await sharp(png).metadata()).density).toBe(300);
    await press(page, 'SVG drawing');
    await press(page, 'Export SVG');
    const svg = readFileSync(
      await downloaded(folder, (name) => name.endsWith('.svg') && name !== 'float.svg'),
    ).toString();
    expect(svg).toContain('patternTransform');
    const { layout } = await getLayout(layoutId(layoutPath));
    const small = PNG.sync.read(await exportPng(layout.id, 96));
    // The corner of the page is its white ground; the rectangle's own ground and its motifs are inside.
    expect(pixelAt(small, 3, 3)).toEqual([255, 255, 255]);
    const box = layout.shapes[0];
    if (!box) throw new Error('the rectangle is gone');
    const inside = new Set<string>();
    for (let step = 2; step < box.width - 2; step += 3)
      inside.add(pixelAt(small, box.x + step, box.y + box.height / 2).join());
    expect(inside).toContain('224,240,236');
    expect(inside).toContain('93,122,82');
    expect(session.faults).toEqual([]);
  });
});

type Area = { left: number; top: number; right: number; bottom: number };

function countNear(
  picture: PNG,
  colour: number[],
  area: Area = { left: 0, top: 0, right: picture.width, bottom: picture.height },
): number {
  let count = 0;
  for (let y = area.top; y < area.bottom; y += 1)
    for (let x = area.left; x < area.right; x += 1)
      if (pixelAt(picture, x, y).every((value, channel) => Math.abs(value - (colour[channel] ?? 0)) <= 3))
        count += 1;
  return count;
}
