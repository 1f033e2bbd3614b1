import type { Page } from 'puppeteer-core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { colourFill, type PatternFill } from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { getLayout, must, publishedPattern, unique } from '../support/api';
import {
  again,
  drag,
  enter,
  middle,
  named,
  openBrowser,
  press,
  saved,
  shown,
  type Session,
} from '../support/browser';
import { layoutView, topOf } from '../support/layout-view';
import { dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

let session: Session;
let page: Page;
let pattern: string;
const patternName = unique('Gesture Dots');
const otherName = unique('Gesture Other');
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
  pattern = await publishedPattern(
    recipe({ motifs: [dot('d', 60)], placings: [place('d', 50, 50)] }), // a unit of 100 × 100 px
    patternName,
  );
  await publishedPattern(recipe({ motifs: [dot('d', 30)], placings: [place('d', 50, 50)] }), otherName);
});
afterAll(() => session.close());

const { open, shapeNow, choose, layoutId, rowShown } = layoutView(() => page);
const PAGE = { width: 560, height: 440 };
type Frame = { x: number; y: number; width: number; height: number };
const panel = (
  box: Frame = { x: 60, y: 60, width: 300, height: 200 },
  over: Partial<PatternFill> = {},
): Shape => ({
  ...filledShape(box, { pattern, ...over }),
  name: 'Panel',
});
const plain = (name: string, box: Frame, over: Partial<Shape> = {}): Shape =>
  freshShape({
    id: name,
    name,
    form: { kind: 'rectangle', radius: 0 },
    ...box,
    fills: [colourFill(`${name}-f`, { colour: '#2f8fab' })],
    ...over,
  });

async function layoutNow() {
  await saved(page);
  return (await getLayout(layoutId())).layout;
}
/** A place of the page on the window. */
async function onWindow(x: number, y: number): Promise<[number, number]> {
  const [left, top, zoom] = await page.$eval(
    '[data-paper]',
    (paper, wide) => {
      const box = paper.getBoundingClientRect();
      return [box.left, box.top, box.width / wide] as [number, number, number];
    },
    (await getLayout(layoutId())).layout.width,
  );
  return [left + x * zoom, top + y * zoom];
}
async function hold(key: 'Control' | 'Shift', then: () => Promise<unknown>): Promise<void> {
  await page.keyboard.down(key);
  await then();
  await page.keyboard.up(key);
}
/** Somebody else saves the layout. */
async function addGuide(id: string): Promise<void> {
  const { layout } = await getLayout(id);
  const changes = [{ do: 'page', guides: [{ axis: 'x', at: 10 }] }];
  await must('POST', `/layouts/${id}/changes`, { base: layout.version, changes });
}
const undo = (): Promise<void> => hold('Control', () => page.keyboard.press('z'));
const focused = (): Promise<string> =>
  page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');

describe('a drawing tool draws wherever the drag begins', () => {
  const starts = ['hub', 'ring', 'arm-across', '1,1', '0,-1', 'turn'];
  for (const [tool, label] of [
    ['rectangle', 'Draw a rectangle'],
    ['star', 'Draw a star'],
    ['path', 'Draw a line'],
    ['path', 'Draw an outline by hand'],
  ] as const)
    it(`${label}: no handle of the shape or of its pattern is pulled`, async () => {
      await open([panel()], PAGE);
      await choose('Panel');
      const places = await Promise.all(starts.map((handle) => middle(page, `[data-handle="${handle}"]`)));
      const before = await shapeNow('Panel');
      for (const [index, [x, y]] of places.entries()) {
        await choose('Panel');
        await press(page, label);
        // Towards the page's middle, so that what is drawn lies on it.
        const [toX, toY] = await onWindow(280, 220);
        await drag(page, [x, y], [toX + 3 * index, toY + 5]);
        await page.waitForFunction(
          (count) => document.querySelectorAll('tbody tr[data-row]').length === count,
          {},
          index + 2,
        );
      }
      const { shapes } = await layoutNow();
      expect(shapes.slice(1).map(({ form }) => form.kind)).toEqual(starts.map(() => tool));
      expect(shapes[0]).toEqual(before);
    });

  it('begins on a guide without moving it', async () => {
    await open([panel()], PAGE);
    await drag(page, await onWindow(280, -6), await onWindow(280, 400));
    const { guides } = await layoutNow();
    expect(guides).toHaveLength(1);
    await press(page, 'Draw an ellipse');
    await drag(page, await onWindow(430, 400), await onWindow(500, 330));
    await rowShown('Ellipse');
    expect((await layoutNow()).guides).toEqual(guides);
  });
});

describe('with Shape, a drag inside a shape moves the shape', () => {
  const cases: [string, Frame][] = [
    ['a panel', { x: 60, y: 60, width: 300, height: 200 }],
    ['a small one', { x: 260, y: 200, width: 40, height: 40 }],
    ['one that fills the page', { x: 0, y: 0, ...PAGE }],
  ];
  for (const [name, box] of cases)
    it(`${name}, wherever it is taken hold of`, async () => {
      await open([panel(box)], PAGE);
      await choose('Panel');
      const inset = Math.min(12, box.width / 4);
      const free = await page.evaluate(
        (points) =>
          points.filter(([x = 0, y = 0]) =>
            document.elementFromPoint(x, y)?.closest('[data-pattern-handle]'),
          ),
        await Promise.all(
          [0, 0.25, 0.5, 0.75, 1].flatMap((across) =>
            [0, 0.25, 0.5, 0.75, 1].map((down) =>
              onWindow(
                box.x + inset + across * (box.width - 2 * inset),
                box.y + inset + down * (box.height - 2 * inset),
              ),
            ),
          ),
        ),
      );
      expect(free).toEqual([]);
      const before = await shapeNow('Panel');
      const from = await onWindow(box.x + box.width / 2, box.y + box.height / 2);
      await drag(page, from, [from[0] + 40, from[1] + 30]);
      const after = await shapeNow('Panel');
      expect(after.x).toBeGreaterThan(before.x + 20);
      expect(topOf(after)).toEqual(topOf(before));
    });

  it('the dial beside it slides, turns and scales the pattern alone', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    const start = await shapeNow('Panel');
    const frame = ({ x, y, width, height, rotation }: Shape) => ({ x, y, width, height, rotation });
    const pattern = (shape: Shape) => topOf(shape) as PatternFill;
    const hub = await middle(page, '[data-handle="hub"]');
    const panelBox = await page.$eval('[data-shape]', (one) => {
      const { left, right, top, bottom } = one.getBoundingClientRect();
      return { left, right, top, bottom };
    });
    expect(hub[0] < panelBox.left || hub[0] > panelBox.right || hub[1] > panelBox.bottom).toBe(true);

    await drag(page, hub, [hub[0] + 30, hub[1] + 20]);
    const slid = await shapeNow('Panel');
    expect(pattern(slid).offset.x).toBeGreaterThan(pattern(start).offset.x + 5);
    const knob = await page.$eval('[data-pattern-handle] .knob', (one) => {
      const { x, y, width, height } = one.getBoundingClientRect();
      return [x + width / 2, y + height / 2] as [number, number];
    });
    const [hubX, hubY] = await middle(page, '[data-handle="hub"]');
    const out = [knob[0] - hubX, knob[1] - hubY] as const;
    await drag(page, knob, [hubX - out[1], hubY + out[0]]);
    const turned = await shapeNow('Panel');
    expect(pattern(turned).rotation).toBeCloseTo(90, 0);
    const arm = await middle(page, '[data-handle="arm-across"]');
    const [centreX, centreY] = await middle(page, '[data-handle="hub"]');
    await drag(page, arm, [arm[0] + 2 * (arm[0] - centreX), arm[1] + 2 * (arm[1] - centreY)]);
    const scaled = await shapeNow('Panel');
    expect(pattern(scaled).scaleX).toBeGreaterThan(1.3);
    for (const one of [slid, turned, scaled]) expect(frame(one)).toEqual(frame(start));
  });

  it('with Pattern the handle lies on the pattern’s lattice', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await page.focus('.stage');
    await page.keyboard.press('p');
    await page.waitForSelector('[data-pattern-handle="laid"]');
    const [x, y] = await middle(page, '[data-handle="hub"]');
    const [cornerX, cornerY] = await onWindow(160, 160);
    const [unit] = await onWindow(100, 0).then(async ([right]) => [right - (await onWindow(0, 0))[0]]);
    // The pattern's own corner lies at 60, 60 and its unit is 100 px wide.
    for (const off of [x - cornerX, y - cornerY]) {
      const units = off / (unit as number);
      expect(Math.abs(units - Math.round(units))).toBeLessThan(0.02);
    }
  });
});

describe('the wheel', () => {
  const wheel = async (label: string, by: number): Promise<void> => {
    const field = await named(page, label, 'input');
    const box = await field.boundingBox();
    await page.mouse.move((box?.x ?? 0) + 4, (box?.y ?? 0) + 4);
    await page.mouse.wheel({ deltaY: by });
  };

  it('over the ledger scrolls it and changes no number; in a field that was pressed it does, as one step', async () => {
    const rows = Array.from({ length: 30 }, (_, index) =>
      plain(`Row ${index}`, { x: 10 + index, y: 10, width: 50, height: 40 }),
    );
    await open(rows, PAGE);
    const before = (await layoutNow()).shapes;
    await wheel('Opacity of Row 29', 300);
    await page.waitForFunction(() => (document.querySelector('.ledger')?.scrollTop ?? 0) > 50);
    expect((await layoutNow()).shapes).toEqual(before);
    await choose('Row 12');
    await wheel('Opacity', 200);
    expect((await layoutNow()).shapes).toEqual(before);

    await (await named(page, 'Opacity', 'input')).click();
    await wheel('Opacity', 50);
    for (let notch = 1; notch < 4; notch += 1) await page.mouse.wheel({ deltaY: 50 });
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('.bar [aria-label="Opacity"]')?.value === '96',
    );
    await undo();
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('.bar [aria-label="Opacity"]')?.value === '100',
    );
    expect((await layoutNow()).shapes).toEqual(before);
    expect(await (await named(page, 'Opacity', 'input')).evaluate((one) => one.title)).toContain('press it');
  });
});

describe('undo belongs to the document', () => {
  it('after Enter in a field it takes the last change back, and the field shows what is stored', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await enter(page, 'Rotation', '30');
    await enter(page, 'Rotation', '45');
    expect(await focused()).toBe('Rotation');
    for (const [rotation, text] of [
      [30, '30'],
      [0, '0'],
    ] as const) {
      await undo();
      expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(rotation);
      expect(await shown(page, 'Rotation')).toBe(text);
    }
    await hold('Control', () => hold('Shift', () => page.keyboard.press('z')));
    expect(await shown(page, 'Rotation')).toBe('30');
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(30);
  });

  it('while something is typed it takes the letters back, then the document’s', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await enter(page, 'Rotation', '30');
    await page.keyboard.type('77');
    await undo();
    await page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('.bar [aria-label="Rotation"]')?.value !== '77',
    );
    await page.keyboard.press('Escape');
    expect(await shown(page, 'Rotation')).toBe('30');
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(30);
  });

  it('gives up numbers that are not applied yet, and no step before them', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await enter(page, 'Rotation', '30');
    await press(page, 'Transform by numbers');
    await enter(page, 'Turn by', '12');
    await undo();
    expect(await shown(page, 'Turn by')).toBe('0');
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(30);
  });

  it('a run of arrow presses or of nudges is one step, a name another', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await (await named(page, 'Rotation', 'input')).focus();
    for (let press = 0; press < 6; press += 1) await page.keyboard.press('ArrowUp');
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(6);
    await page.focus('.stage');
    for (let press = 0; press < 5; press += 1) await page.keyboard.press('ArrowRight');
    expect((await shapeNow('Panel')).x).toBe(65);
    await enter(page, 'The name of the shape', 'Curtain');
    expect((await shapeNow('Curtain')).x).toBe(65);
    await undo();
    expect((await shapeNow('Panel')).x).toBe(65);
    await undo();
    expect((await shapeNow('Panel')).x).toBe(60);
    await undo();
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(0);
    expect(
      await (await named(page, 'Undo', 'button')).evaluate((one) => (one as HTMLButtonElement).disabled),
    ).toBe(true);
  });
});

describe('undo after a reload', () => {
  it('goes back and forward as before, as long as nobody else has saved', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await enter(page, 'Rotation', '30');
    await enter(page, 'Rotation', '45');
    await enter(page, 'The name of the shape', 'Curtain');
    await undo();
    await saved(page);
    await again(page);
    await page.focus('.stage');
    await hold('Control', () => page.keyboard.press('y'));
    await rowShown('Curtain');
    await undo();
    await undo();
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(30);
    await undo();
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(0);
    await again(page);
    await addGuide(layoutId());
    await again(page);
    expect(
      await (await named(page, 'Redo', 'button')).evaluate((one) => (one as HTMLButtonElement).disabled),
    ).toBe(true);
  });

  it('takes back one’s own change and leaves what another tab did meanwhile', async () => {
    await open([panel(), plain('Other', { x: 400, y: 300, width: 60, height: 60 })], PAGE);
    await choose('Panel');
    await enter(page, 'Rotation', '30');
    await saved(page);
    const { layout } = await getLayout(layoutId());
    const other = layout.shapes.find(({ name }) => name === 'Other');
    await must('POST', `/layouts/${layoutId()}/changes`, {
      base: layout.version,
      changes: [{ do: 'put-shape', shape: { ...other, x: 444 } }],
    });
    await page.waitForFunction(() =>
      [...document.querySelectorAll<HTMLInputElement>('tbody input')].some(({ value }) => value === '444'),
    );
    await page.focus('.stage');
    await undo();
    expect((topOf(await shapeNow('Panel')) as PatternFill).rotation).toBe(0);
    expect((await shapeNow('Other')).x).toBe(444);
  });
});

describe('what fills a shape', () => {
  it('is found by typing, and taken by arrows and Enter', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await press(page, 'Choose what fills it');
    await page.waitForSelector('.choices input[type="search"]');
    expect(await focused()).toBe('Find what fills it');
    await page.keyboard.type(otherName.slice(0, 12));
    await page.waitForFunction(
      (name) => {
        const rows = [...document.querySelectorAll('.choices [data-list] button')];
        return rows.length > 0 && rows.every((row) => row.textContent?.includes(name.slice(0, 12)));
      },
      {},
      otherName,
    );
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (name) => document.querySelector('.bar .pattern-name')?.textContent === name,
      {},
      otherName,
    );
    expect((topOf(await shapeNow('Panel')) as PatternFill).pattern).not.toBe(pattern);
  });

  it('is what was typed, however soon Enter follows', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    await page.type('aside input[type="search"]', otherName);
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      (name) => document.querySelector('.bar .pattern-name')?.textContent === name,
      {},
      otherName,
    );
  });

  it('is edited in one press, and publishing leads back to the shape', async () => {
    await open([panel()], PAGE);
    await choose('Panel');
    const path = new URL(page.url()).pathname;
    await press(page, 'Edit this pattern', 'a');
    await page.waitForFunction(() => location.pathname.endsWith('/bench'));
    await enter(page, 'Unit width', '130');
    await press(page, 'Publish revision 2');
    await page.waitForSelector('dialog[open]');
    await page.keyboard.press('Enter');
    await page.waitForFunction((wanted) => location.pathname === wanted, {}, path);
    await page.waitForSelector('[data-handle="1,1"]');
    expect(
      await page.$eval('tbody tr[aria-selected="true"] input', (one) => (one as HTMLInputElement).value),
    ).toBe('Panel');
  });
});

describe('text', () => {
  it('is written where one presses, and again where one presses it twice', async () => {
    await open([panel()], PAGE);
    await page.focus('.stage');
    await page.keyboard.press('t');
    await page.mouse.click(...(await onWindow(100, 330)));
    await page.waitForSelector('.stage textarea');
    await page.keyboard.type('Pier kiosk');
    await page.keyboard.press('Enter');
    await page.keyboard.type('open');
    await page.keyboard.press('Escape');
    await rowShown('Pier kiosk open');
    const set = await shapeNow('Pier kiosk open');
    expect(set.form).toMatchObject({ kind: 'text', text: 'Pier kiosk\nopen' });
    expect(await page.$('dialog[open]')).toBeNull();
    expect(
      await (await named(page, 'Select and move')).evaluate((one) => one.getAttribute('aria-pressed')),
    ).toBe('true');

    // A letter's own place stays: the first line is written over, the second one's baseline does not move.
    await page.mouse.click(...(await onWindow(set.x + set.width / 2, set.y + set.height / 2)), { count: 2 });
    await page.waitForSelector('.stage textarea');
    await page.keyboard.type('Pier kiosk now');
    await page.mouse.click(...(await onWindow(520, 420)));
    await rowShown('Pier kiosk open');
    const changed = await shapeNow('Pier kiosk open');
    expect(changed.form).toMatchObject({ text: 'Pier kiosk now' });
    // Only the o below reached further left than the P.
    expect(Math.abs(changed.x - set.x)).toBeLessThan(1.5);
    expect(changed.width).toBeGreaterThan(set.width);
    await undo();
    expect((await shapeNow('Pier kiosk open')).form).toEqual(set.form);
  });

  it('keeps every letter that a font has, and says which it lacks', async () => {
    await open([panel()], PAGE);
    await press(page, 'Set text');
    await page.mouse.click(...(await onWindow(100, 330)));
    await page.waitForSelector('.stage textarea');
    await page.keyboard.type('Sea');
    await page.keyboard.type('泳');
    await page.waitForFunction(() =>
      document.querySelector('.stage [role="alert"]')?.textContent?.includes('泳'),
    );
    await page.keyboard.press('Backspace');
    await page.keyboard.type('side');
    await page.keyboard.press('Escape');
    await rowShown('Seaside');
    expect((await shapeNow('Seaside')).form).toMatchObject({ text: 'Seaside' });
  });
});

describe('a locked shape', () => {
  beforeEach(async () => {
    await open([panel(), plain('Free', { x: 400, y: 300, width: 60, height: 60 })], PAGE);
    await press(page, 'Lock Panel');
    await choose('Panel');
  });
  const says = (): Promise<unknown> =>
    page.waitForFunction(() =>
      [...document.querySelectorAll('.toast')].some(({ textContent }) =>
        textContent?.includes('“Panel” is locked'),
      ),
    );

  it('changes by no number, arrow, fill, key or name, and says so', async () => {
    const before = await shapeNow('Panel');
    expect(before.locked).toBe(true);
    expect(await page.$('[data-handle]')).toBeNull();
    const tries: [string, () => Promise<unknown>][] = [
      ['number', () => enter(page, 'Rotation', '33')],
      ['arrow', async () => (await page.focus('.stage'), page.keyboard.press('ArrowLeft'))],
      ['delete', async () => (await page.focus('.stage'), page.keyboard.press('Delete'))],
      ['stack', async () => (await page.focus('.stage'), page.keyboard.press(']'))],
      ['fill', () => page.click(`button[title="Fill what is selected with ${otherName}"]`)],
      [
        'name',
        async () => {
          await page.focus('tbody tr[aria-selected="true"] input');
          await page.keyboard.type('Other');
          await page.keyboard.press('Enter');
        },
      ],
    ];
    for (const [name, act] of tries) {
      await act();
      await says();
      expect(await shapeNow('Panel'), name).toEqual(before);
      for (const close of await page.$$('.toast .close')) await close.click();
    }
    expect((await layoutNow()).shapes.map(({ name }) => name)).toEqual(['Panel', 'Free']);
  });

  it('stays while others that are selected with it change; unlocking lets it, and the word about it goes', async () => {
    const before = await shapeNow('Panel');
    await choose('Free', true);
    await page.focus('.stage');
    await page.keyboard.press('ArrowRight');
    await says();
    expect(await shapeNow('Panel')).toEqual(before);
    expect((await shapeNow('Free')).x).toBe(401);
    await press(page, 'Unlock Panel');
    await page.waitForFunction(() => document.querySelector('.toast') === null);
    expect((await shapeNow('Panel')).locked).toBe(false);
  });
});

describe('a tool', () => {
  const pressed = async (label: string): Promise<boolean> =>
    (await named(page, label)).evaluate((one) => one.getAttribute('aria-pressed') === 'true');

  it('goes back to choosing after it was used, unless it was taken twice', async () => {
    await open([panel()], PAGE);
    await press(page, 'Draw a rectangle');
    await drag(page, await onWindow(400, 300), await onWindow(450, 350));
    await rowShown('Rectangle');
    expect(await pressed('Select and move')).toBe(true);
    await press(page, 'Draw a rectangle');
    await press(page, 'Draw a rectangle');
    for (const x of [400, 470]) {
      await drag(page, await onWindow(x, 300), await onWindow(x + 50, 350));
    }
    await rowShown('Rectangle 3');
    expect(await pressed('Draw a rectangle')).toBe(true);
    await press(page, 'Draw a rectangle');
    expect(await pressed('Select and move')).toBe(true);
  });

  it('lays nothing down beside the page', async () => {
    await open([panel()], PAGE);
    const beside = async (): Promise<[number, number]> => onWindow(-60, 380);
    for (const label of [
      'Draw a rectangle',
      'Draw a line',
      'Draw an outline by hand',
      'Brush a stroke of pattern',
    ]) {
      await press(page, label);
      const [x, y] = await beside();
      await drag(page, [x, y], [x + 20, y + 25]);
      await page.keyboard.press('Escape');
      await press(page, 'Select and move');
    }
    await press(page, 'Set text');
    await page.mouse.click(...(await beside()));
    expect(await page.$('.stage textarea')).toBeNull();
    expect((await layoutNow()).shapes).toHaveLength(1);
  });

  it('is taken by a key, and a new stroke starts plain, not with the blend, mask and opacity of the last fill', async () => {
    await open([panel(undefined, { blend: 'multiply', opacity: 0.4 })], PAGE);
    await choose('Panel');
    await page.focus('.stage');
    await page.keyboard.press('u');
    expect(await pressed('Brush a stroke of pattern: kept')).toBe(true);
    await drag(page, await onWindow(100, 330), await onWindow(300, 380));
    await rowShown('Brush stroke');
    expect(topOf(await shapeNow('Brush stroke'))).toMatchObject({
      kind: 'pattern',
      pattern,
      blend: 'normal',
      opacity: 1,
    });
  });
});

it('the width of an export counts the bleed that is in it', async () => {
  await open([panel()], PAGE);
  const { version } = await layoutNow();
  await must('POST', `/layouts/${layoutId()}/changes`, {
    base: version,
    changes: [{ do: 'page', bleed: 20 }],
  });
  await again(page);
  await press(page, 'Export');
  await (await page.waitForSelector('dialog input[type="checkbox"]'))?.click();
  await enter(page, 'Width in pixels', '1200');
  // 560 + 2 × 20 px across and 440 + 2 × 20 down, at twice their size.
  expect(await shown(page, 'Width in pixels')).toBe('1200');
  expect(await page.$eval('dialog', (one) => one.textContent)).toContain('× 960 px');
  expect(session.faults).toEqual([]);
});
