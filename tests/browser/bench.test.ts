import { patternFills } from '../../src/lib/core/recipe/layout';
import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PatternDetail, PublishPreview } from '../../src/lib/contract/data';
import type { ComposedRecipe, MeasuredRecipe, Recipe } from '../../src/lib/core/recipe/recipe';
import { drawing, dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';
import { getLayout, layoutWith, must, publishedPattern, unique } from '../support/api';
import {
  drag,
  enter,
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

/** The bench as practitioners use it: every pattern is made through the interface and read back from the server. */
let session: Session;
let page: Page;

beforeAll(async () => {
  session = await openBrowser();
  page = session.page;
});
afterAll(() => session.close());

const patternId = (): Promise<string> => page.evaluate(() => location.pathname.split('/')[2] ?? '');
const detail = async (id?: string): Promise<PatternDetail> =>
  must('GET', `/patterns/${id ?? (await patternId())}`);

async function draft(): Promise<ComposedRecipe> {
  await still(page);
  await saved(page);
  const { draft: kept, recipe: published } = await detail();
  const found = kept ?? published;
  if (found?.kind !== 'composed') throw new Error('no placed motifs');
  return found;
}

async function tick(label: string): Promise<void> {
  await page.waitForFunction(
    (text) => [...document.querySelectorAll('label')].some((one) => one.textContent?.trim() === text),
    {},
    label,
  );
  await page.evaluate((text) => {
    const found = [...document.querySelectorAll('label')].find((one) => one.textContent?.trim() === text);
    found?.querySelector('input')?.click();
  }, label);
}
const choose = (label: string, value: string): Promise<string[]> =>
  page.select(`select[aria-label="${label}"]`, value);

/** Starts a new pattern and opens the drawing board on its first motif. */
async function newDrawing(): Promise<void> {
  await visit(page, '/library/new');
  await press(page, 'Add a motif');
  await press(page, 'Draw one …', '.choices button');
  await page.waitForSelector('.board svg');
}

/** A point of the board, from motif px, through the axes that are drawn on it. */
async function onBoard(x: number, y: number): Promise<[number, number]> {
  const { origin, zoom } = await page.evaluate(() => {
    const board = document.querySelector('.board');
    const axis = board?.querySelector('.axis')?.getAttribute('d') ?? '';
    const [, left = '0', top = '0'] = /^M([-\d.]+) 0V[\d.]+M0 ([-\d.]+)H/.exec(axis) ?? [];
    const scale = /scale\(([\d.]+)\)/.exec(
      board?.querySelector('g[transform]')?.getAttribute('transform') ?? '',
    );
    const box = board?.getBoundingClientRect();
    return {
      origin: { x: Number(left) + (box?.x ?? 0), y: Number(top) + (box?.y ?? 0) },
      zoom: Number(scale?.[1]),
    };
  });
  return [origin.x + x * zoom, origin.y + y * zoom];
}

async function draw(tool: string, from: [number, number], to: [number, number]): Promise<void> {
  await press(page, tool, '.tools button');
  await drag(page, await onBoard(...from), await onBoard(...to));
}

async function publishAs(name: string): Promise<string> {
  await saved(page);
  await press(page, 'Publish revision 1');
  await enter(page, 'The name of the pattern', name);
  await page.waitForFunction(() => document.body.textContent?.includes('is in the library'));
  // The first time it is asked where the pattern is used.
  await press(page, 'Not now');
  return patternId();
}

describe('the drawing board', () => {
  it('makes a monogram on a grid of 20 px, united into one piece, laid in brick with 20 px more width and height', async () => {
    await newDrawing();
    await choose('Unit of length', 'px');
    await tick('Grid');
    await enter(page, 'Pitch of the grid', '20');
    await still(page);
    // An L and a bar through it, drawn a little off the grid lines: the grid makes the numbers exact.
    await draw('Rectangle', [-61, -79], [-19, 82]);
    await draw('Rectangle', [-58, 41], [63, 78]);
    await draw('Rectangle', [-98, -22], [18, 17]);
    await page.keyboard.down('Control');
    await page.keyboard.press('a');
    await page.keyboard.up('Control');
    await press(page, 'Unite');
    await page.waitForFunction(() => document.querySelectorAll('[data-element]').length === 1);
    await press(page, 'Back to the unit');
    await press(page, 'Brick');
    await enter(page, 'Margin round the art', '10');
    await press(page, 'Fit the unit to the art');
    const made = await draft();
    const content = made.motifs[0]?.content;
    expect(content?.kind === 'drawing' && content.elements).toHaveLength(1);
    // The art is 160 × 160 px, every corner on a multiple of 20.
    expect(content).toMatchObject({ width: 160, height: 160 });
    const d = content?.kind === 'drawing' ? (content.elements[0]?.d ?? '') : '';
    const numbers = [...d.matchAll(/-?\d+(\.\d+)?/g)].map(([text]) => Number(text));
    expect(numbers.length).toBeGreaterThanOrEqual(24);
    expect(numbers.filter((value) => value % 20 !== 0)).toEqual([]);
    expect(made.unit).toEqual({ width: 180, height: 180 });
    expect(made.repeat).toMatchObject({ kind: 'brick', step: 0.5 });
    await publishAs(unique('Monogram'));
  });

  it('draws lines, paths, freehand strokes and text, edits points, and undoes it all', async () => {
    await newDrawing();
    await tick('Grid');
    await draw('Straight line', [-80, -60], [80, -60]);
    await draw('Freehand stroke', [-60, 40], [60, 60]);
    await press(page, 'Path of lines and curves');
    for (const [x, y] of [
      [-40, 0],
      [0, -40],
      [40, 0],
    ] as const)
      await page.mouse.click(...(await onBoard(x, y)));
    await page.keyboard.press('Enter');
    await press(page, 'Text', '.tools button');
    await page.mouse.click(...(await onBoard(-40, 80)));
    await enter(page, 'Text', 'Lido');
    await page.waitForFunction(() => document.querySelectorAll('[data-element]').length === 4);
    // Letters that the font lacks are refused in a sentence and nothing is lost.
    await press(page, 'Text', '.tools button');
    await page.mouse.click(...(await onBoard(-40, 100)));
    await enter(page, 'Text', '泳ぐ');
    await page.waitForFunction(() => document.body.textContent?.includes('has no 泳'));
    await press(page, 'Cancel');
    await press(page, 'Choose and move');
    await page.mouse.click(...(await onBoard(-20, -20)));
    await press(page, 'Points of a path');
    await page.waitForSelector('[data-node="0,1"]');
    await page.$eval('[data-node="0,1"]', (node) => (node as SVGElement).focus());
    await page.keyboard.press('Enter');
    const smooth = await draft();
    const element = smooth.motifs[0]?.content;
    expect(element?.kind === 'drawing' && element.elements[2]?.d).toMatch(/C/);
    // A point is dragged to a crossing of the grid.
    const node = await (await page.waitForSelector('[data-node="0,2"]'))?.boundingBox();
    const pitch = (5 * 96) / 25.4;
    await drag(page, [(node?.x ?? 0) + 4, (node?.y ?? 0) + 4], await onBoard(4 * pitch + 3, 2 * pitch - 3));
    const dragged = (await draft()).motifs[0]?.content;
    const d = dragged?.kind === 'drawing' ? (dragged.elements[2]?.d ?? '') : '';
    expect(d.trim().split(/[ CL]/).slice(-2).map(Number)).toEqual([
      expect.closeTo(4 * pitch, 4),
      expect.closeTo(2 * pitch, 4),
    ]);
    for (let step = 0; step < 7; step += 1) {
      await page.keyboard.down('Control');
      await page.keyboard.press('z');
      await page.keyboard.up('Control');
    }
    await draft();
    expect(await page.$$eval('[data-element]', (found) => found.length)).toBeLessThan(3);
  });

  it('is worked by the keyboard alone: a form, its numbers, a stroke turned into a shape', async () => {
    await visit(page, '/library/new');
    for (const name of ['Add a motif', 'Draw one …', 'Ellipse']) {
      await (await named(page, name)).focus();
      await page.keyboard.press('Enter');
      await still(page);
    }
    await enter(page, 'Width of the element', '30mm');
    await page.focus('select[aria-label="Stroke"]');
    await page.keyboard.press('ArrowUp');
    await choose(
      'Stroke',
      await page.$eval('select[aria-label="Fill"]', (field) => (field as HTMLSelectElement).value),
    );
    await enter(page, 'Stroke width', '2mm');
    await (await named(page, 'Turn strokes into shapes')).focus();
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelectorAll('[data-element]').length === 2);
    await page.focus('.board');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => !document.querySelector('.board'));
    const content = (await draft()).motifs[0]?.content;
    expect(content?.kind === 'drawing' && content.elements.map((one) => one.stroke)).toEqual([null, null]);
    // 30 mm and a stroke of 2 mm half outside.
    expect(content?.kind === 'drawing' && content.width).toBeCloseTo((32 * 96) / 25.4, 1);
  });
});

describe('patterns from one motif and from numbers', () => {
  it('makes two named dot variants from one edited motif; all its placings follow', async () => {
    await visit(page, '/library/new');
    await press(page, 'Add a motif');
    await press(page, 'Ellipse', '.choices button');
    await press(page, 'Place Ellipse once more');
    await enter(page, 'Width of the motif', '8mm');
    await enter(page, 'Height of the motif', '8mm');
    const small = unique('Dots small');
    const first = await publishAs(small);
    await enter(page, 'Width of the motif', '14mm');
    await enter(page, 'Height of the motif', '14mm');
    await saved(page);
    const large = unique('Dots large');
    await press(page, 'Keep as new');
    await enter(page, 'The name of the new pattern', large);
    await page.waitForFunction((id) => !location.pathname.includes(id), {}, first);
    const second = await patternId();
    const widths = await Promise.all(
      [first, second].map(async (id) => {
        const { recipe: made, hasDraft, name } = await detail(id);
        const content = made?.kind === 'composed' ? made.motifs[0]?.content : null;
        const count = made?.kind === 'composed' ? made.placings.length : 0;
        return [
          name,
          hasDraft,
          Math.round(((content?.kind === 'form' ? content.width : 0) * 25.4) / 96),
          count,
        ];
      }),
    );
    expect(widths).toEqual([
      [small, false, 8, 2],
      [large, false, 14, 2],
    ]);
  });

  it('makes a hatch of 1 pt every 3 pt turned 45° from numbers, and has it on a shape in one more step', async () => {
    const { id, path } = await layoutWith(
      [filledShape({ x: 20, y: 20, width: 200, height: 100 })].map((shape) => ({ ...shape, fills: [] })),
      { width: 400, height: 300 },
    );
    await visit(page, path);
    await page.waitForSelector('tbody tr');
    await page.click('tbody tr');
    await visit(page, '/library');
    await press(page, 'Measured');
    await press(page, 'Hatch');
    await enter(page, 'Line width', '1pt');
    await enter(page, 'Every', '3pt');
    await enter(page, 'Angle', '45');
    await page.waitForFunction(() =>
      /33\.3\d %/.test(document.querySelector('.coverage')?.textContent ?? ''),
    );
    // Its numbers have named it; Enter takes that.
    await press(page, 'Publish revision 1');
    await page.waitForSelector('dialog[open] input');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.body.textContent?.includes('is in the library'));
    const made = await detail();
    expect(made.name).toMatch(/^Hatch 1 pt every 3 pt, 45°/);
    const hatch = made.recipe as MeasuredRecipe;
    expect(hatch.measured.numbers).toMatchObject({ angle: 45 });
    expect(hatch.measured.numbers.width).toBeCloseTo(96 / 72, 9);
    await press(page, 'Fill “Shape”');
    await page.waitForFunction(() => location.pathname.includes('/layouts/'));
    await page.waitForFunction(() => document.querySelector('.bar input[aria-label="Scale"]'));
    await still(page);
    await saved(page);
    const { layout } = await getLayout(id);
    expect(layout.shapes[0]?.fills[0]).toMatchObject({ kind: 'pattern', pattern: made.id });
    // The last values are remembered for the next one.
    await visit(page, '/library/new?start=measured');
    expect(await shown(page, 'Every')).toBe('3');
  });

  it('turns a measured pattern into placings to go on by hand', async () => {
    await visit(page, '/library/new?start=measured');
    await press(page, 'Dots');
    await press(page, 'Go on by hand, as motifs');
    await named(page, 'Choose Dots');
    const made = await draft();
    expect(made.placings).toHaveLength(1);
    expect(made.unit.width).toBeGreaterThan(1);
  });

  it('scatters a drawn motif, fills its widest gap from the button, and turns the overlap order round', async () => {
    await visit(page, '/library/new');
    await press(page, 'Add a motif');
    await press(page, 'Star', '.choices button');
    await enter(page, 'Width of the motif', '9mm');
    await enter(page, 'Height of the motif', '9mm');
    await press(page, 'Scatter …');
    await enter(page, 'Number of pieces', '12');
    // Enter does what the main button says.
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => !document.querySelector('dialog[open]'));
    const scattered = await draft();
    expect(scattered.placings.length).toBe(13);
    await page.waitForFunction(() => document.body.textContent?.includes('into the widest gap'));
    const before = await page.$eval(
      'aside',
      (aside) => /Widest gap\s*⌀ ([\d.]+)/.exec(aside.textContent ?? '')?.[1],
    );
    await press(page, 'Put Star into the widest gap');
    await page.waitForFunction(
      (held) => {
        const now = /Widest gap\s*⌀ ([\d.]+)/.exec(document.querySelector('aside')?.textContent ?? '')?.[1];
        return now !== undefined && Number(now) < Number(held);
      },
      {},
      before,
    );
    await choose('In front, down', 'upper');
    await choose('In front, across', 'left');
    const made = await draft();
    expect(made.placings).toHaveLength(14);
    expect(made.front).toEqual({ across: 'left', down: 'upper' });
    await publishAs(unique('Scatter'));
  });

  it('makes a p4m kaleidoscope from one motif', async () => {
    await visit(page, '/library/new');
    await press(page, 'Add a motif');
    await press(page, 'Star', '.choices button');
    await press(page, 'Group');
    expect(
      await page.$eval('select[aria-label="Plane group"]', (field) => (field as HTMLSelectElement).value),
    ).toBe('p4mm');
    await enter(page, 'Place across', '8mm');
    await enter(page, 'Place down', '20mm');
    await tick('Show its symmetry');
    await page.waitForFunction(() => document.querySelectorAll('.centre').length >= 9);
    const made = await draft();
    expect(made.repeat).toMatchObject({ kind: 'group', group: 'p4mm', cut: true });
    expect(made.placings).toHaveLength(1);
    // The star is wider than its part of the cell: it ends at the mirror lines, until it is let over them.
    const inked = () =>
      page.$eval('.unit-view path[fill^="#"]', (path) => path.getAttribute('d')?.length ?? 0);
    const ending = await inked();
    await tick('Art ends at the mirror lines');
    await page.waitForFunction(
      (held) =>
        (document.querySelector('.unit-view path[fill^="#"]')?.getAttribute('d')?.length ?? 0) !== held,
      {},
      ending,
    );
    expect((await draft()).repeat).toMatchObject({ cut: false });
    await tick('Art ends at the mirror lines');
    // One placing, eight images: the kaleidoscope is the same left and right of its mirror in the picture itself.
    await tick('Show its symmetry');
    await press(page, '10 × 10');
    await page.keyboard.press('Escape');
    await still(page);
    await publishAs(unique('Kaleidoscope'));
  });

  it('makes a pattern with ground and the same without', async () => {
    await visit(page, '/library/new');
    await press(page, 'Add a motif');
    await press(page, 'Polygon', '.choices button');
    await choose('Kind of ground', 'slot');
    const first = await publishAs(unique('With ground'));
    await choose('Kind of ground', 'clear');
    await saved(page);
    await press(page, 'Keep as new');
    await enter(page, 'The name of the new pattern', unique('Without ground'));
    await page.waitForFunction((id) => !location.pathname.includes(id), {}, first);
    const [one, other] = [await detail(first), await detail()];
    expect(one.recipe?.ground.kind).toBe('slot');
    expect(other.recipe?.ground.kind).toBe('clear');
    expect(other.facts?.clear).toBe(true);
  });
});

describe('the unit', () => {
  it('answers nonsense in a sentence that no panel cuts off, and keeps its number', async () => {
    await visit(page, '/library/new');
    await enter(page, 'Unit width', 'abc');
    const sentence = await page.waitForSelector('.problem[role="alert"]');
    const box = await sentence?.boundingBox();
    const whole = await sentence?.evaluate((one) => {
      const { left, right, top, bottom } = one.getBoundingClientRect();
      const at = (x: number, y: number): boolean => one.contains(document.elementFromPoint(x, y));
      return at(left + 3, top + 3) && at(right - 3, bottom - 3);
    });
    expect([whole, (box?.x ?? 0) + (box?.width ?? 9999) <= 1280]).toEqual([true, true]);
    await page.keyboard.press('Escape');
    expect(await shown(page, 'Unit width')).toBe('60');
  });

  it('is pulled smaller by its edge than the art, which then overlaps; the art stays where it is', async () => {
    const id = await publishedPattern(
      recipe({
        unit: { width: 120, height: 120 },
        motifs: [dot('Disc', 110)],
        placings: [place('Disc', 60, 60)],
      }),
    );
    await visit(page, `/library/${id}/bench`);
    const edge = await page.waitForSelector('[data-edge="right"]');
    const box = await edge?.boundingBox();
    if (!box) throw new Error('no edge');
    const at: [number, number] = [box.x + box.width / 2, box.y + 20];
    await drag(page, at, [at[0] - 60, at[1]]);
    const made = await draft();
    expect(made.unit.width).toBeLessThan(110);
    expect(made.unit.height).toBe(120);
    expect(made.placings[0]).toMatchObject({ x: 60, y: 60 });
  });

  it('keeps work in progress as a draft through a reload, and shows the published state on request', async () => {
    const of: Recipe = recipe({
      unit: { width: 120, height: 120 },
      ground: { kind: 'slot', slot: 'paper' },
      motifs: [drawing('Bar', 'M-60 -60H60V60H-60Z')],
      placings: [place('Bar', 60, 60)],
    });
    const id = await publishedPattern(of);
    await visit(page, `/library/${id}/bench`);
    await press(page, 'Choose Bar');
    await enter(page, 'Opacity of the piece', '0');
    await saved(page);
    await visit(page, `/library/${id}/bench`);
    const view = await (await page.waitForSelector('.unit-view'))?.boundingBox();
    if (!view) throw new Error('no unit view');
    const middle: [number, number] = [view.width / 2, view.height / 2];
    const clip = { x: view.x, y: view.y, width: view.width, height: view.height };
    expect(pixelAt(await pixelsOf(page, clip), ...middle)).toEqual([255, 255, 255]);
    await page.focus('.unit-view');
    await page.keyboard.press('v');
    await page.waitForFunction(() => document.body.textContent?.includes('Looking back at revision 1'));
    expect(pixelAt(await pixelsOf(page, clip), ...middle)).toEqual([16, 32, 48]);
    await page.keyboard.press('v');
  });
});

describe('publishing over uses', () => {
  it('shows before and after, holds what is chosen, and lets everything else follow', async () => {
    const id = await publishedPattern(
      recipe({ motifs: [dot('Disc', 60)], placings: [place('Disc', 50, 50)] }),
    );
    const shape = (x: number) => ({
      ...filledShape({ x, y: 10, width: 100, height: 100 }),
      name: `Use ${x}`,
    });
    const use = (x: number) => {
      const made = shape(x);
      return { ...made, fills: patternFills(made).map((fill) => ({ ...fill, pattern: id })) };
    };
    const { id: layoutId, path } = await layoutWith([use(10), use(120), use(230)], {
      width: 400,
      height: 200,
    });
    await visit(page, `/library/${id}/bench`);
    await press(page, 'Choose Disc');
    await enter(page, 'Width of the motif', '90px');
    await saved(page);
    await press(page, 'Publish revision 2');
    await page.waitForSelector('dialog[open] img[alt="Use 120 after"]');
    expect(await page.$$eval('dialog[open] li img', (found) => found.length)).toBe(6);
    expect(await page.$eval('dialog[open]', (found) => found.textContent)).toContain('3 uses change');
    const [before, after] = await page.$$eval('dialog[open] li:first-child img', (found) =>
      found.map((image) => (image as HTMLImageElement).src),
    );
    expect(before).not.toBe(after);
    await page.click('dialog[open] li:nth-child(2) input');
    await page.waitForFunction(() =>
      document.querySelector('dialog[open]')?.textContent?.includes('2 uses change, 1 stays at revision 1'),
    );
    await press(page, 'Publish revision 2', 'dialog button');
    await page.waitForFunction(() => document.body.textContent?.includes('Revision 2 of'));
    const { layout } = await getLayout(layoutId);
    expect(layout.shapes.map((one) => patternFills(one)[0]?.held)).toEqual([null, 1, null]);
    // In the layout, the held use is still as it was: 15 px beside its middle there is ground where the others have ink.
    await visit(page, path);
    const { newest } = await must<PublishPreview>('GET', `/patterns/${id}/uses`);
    expect(newest).toBe(2);
  });

  it('restores an older revision as the newest', async () => {
    const { newest, id } = await (async () => {
      const made = await publishedPattern(recipe({ motifs: [dot('d', 20)], placings: [place('d', 50, 50)] }));
      const { version } = await detail(made);
      const wide = recipe({ motifs: [dot('d', 80)], placings: [place('d', 50, 50)] });
      const kept = await must<{ version: number }>('PUT', `/patterns/${made}/draft`, {
        base: version,
        recipe: wide,
      });
      await must('POST', `/patterns/${made}/revisions`, { base: kept.version });
      return { newest: 2, id: made };
    })();
    expect((await detail(id)).newest).toBe(newest);
    await visit(page, `/library/${id}?tab=revisions`);
    await press(page, 'Restore');
    await page.waitForFunction(() => document.body.textContent?.includes('published again, as revision 3'));
    const now = await detail(id);
    const content = now.recipe?.kind === 'composed' ? now.recipe.motifs[0]?.content : null;
    expect([now.newest, content?.kind === 'form' && content.width]).toEqual([3, 20]);
  });
});

it('no error was thrown on any of these pages', () => {
  expect(session.faults).toEqual([]);
});
