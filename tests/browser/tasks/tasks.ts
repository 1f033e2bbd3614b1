import type { Page } from 'puppeteer-core';
import type { Fill, PatternFill } from '../../../src/lib/core/recipe/fill';
import type { Shape } from '../../../src/lib/core/recipe/layout';
import type { LayoutData, PatternDetail } from '../../../src/lib/contract/data';
import type { Hand } from './hand';

/** What a task finds before it: shapes on a page of 560 × 440 px, and where the page lies on the window. */
export type Place = {
  page: Page;
  onWindow: (x: number, y: number) => Promise<[number, number]>;
  patternName: string;
  otherName: string;
  layout: () => Promise<LayoutData>;
  pattern: (name: string) => Promise<PatternDetail | null>;
};

export type Task = {
  name: string;
  /** What is there: one shape with a pattern, two shapes side by side, nothing, or the library. */
  start: 'shape' | 'two' | 'empty' | 'library';
  /** What was done before, not counted. */
  before?: (hand: Hand, place: Place) => Promise<void>;
  pointer: (hand: Hand, place: Place) => Promise<void>;
  keyboard: (hand: Hand, place: Place) => Promise<void>;
  done: (place: Place) => Promise<boolean>;
};

const MIDDLE = [200, 160] as const;

const pick = async (hand: Hand, { onWindow }: Place): Promise<void> =>
  hand.pressAt(await onWindow(...MIDDLE));
/** By keyboard: to the stage, and all that is on it. */
const all = async (hand: Hand): Promise<void> => {
  await hand.key('F6');
  await hand.key('Control', 'a');
};
/** By keyboard: to the first number of the fill bar. */
const toBar = (hand: Hand): Promise<void> => hand.keys('F6', 'F6');
const toRow = async (hand: Hand): Promise<void> => {
  await hand.keys('F6', 'F6', 'F6', 'F6');
};
const write = async (hand: Hand, text: string): Promise<void> => {
  await hand.type(text);
  await hand.key('Enter');
};

const shapes = async ({ layout }: Place): Promise<readonly Shape[]> => (await layout()).shapes;
const first = async (place: Place): Promise<Shape> => (await shapes(place))[0]!;
const top = async (place: Place): Promise<Fill | undefined> => (await first(place)).fills.at(-1);
const filled = async (place: Place): Promise<PatternFill> => (await top(place)) as PatternFill;
const near = (one: number, other: number): boolean => Math.abs(one - other) < 1e-6;

/** A number of the fill bar: pressed and typed, or reached by Tab from its first number. */
const inBar = (name: string, label: string, text: string, holds: (fill: PatternFill) => boolean): Task => ({
  name,
  start: 'shape',
  pointer: async (hand, place) => {
    await pick(hand, place);
    await hand.press(label, '.bar input');
    await write(hand, text);
  },
  keyboard: async (hand) => {
    await all(hand);
    await toBar(hand);
    if (label !== 'Scale') await hand.tabTo(label);
    await write(hand, text);
  },
  done: async (place) => holds(await filled(place)),
});

const inRow = (
  name: string,
  label: string,
  text: string,
  pull: (hand: Hand) => Promise<void>,
  holds: (shape: Shape) => boolean,
): Task => ({
  name,
  start: 'shape',
  pointer: async (hand, place) => {
    await pick(hand, place);
    await pull(hand);
  },
  keyboard: async (hand) => {
    await toRow(hand);
    await hand.tabTo(label);
    await write(hand, text);
  },
  done: async (place) => holds(await first(place)),
});

export const TASKS: readonly Task[] = [
  {
    name: 'draw a rectangle',
    start: 'empty',
    pointer: async (hand, { onWindow }) => {
      await hand.press('Draw a rectangle');
      await hand.drag(await onWindow(100, 100), await onWindow(300, 250));
    },
    keyboard: async (hand) => {
      await hand.keys('F6', 'F6');
      await hand.tabTo('Draw a rectangle');
      await hand.key('Enter');
    },
    done: async (place) => (await shapes(place)).length === 1,
  },
  {
    name: 'fill a shape with a pattern found by name',
    start: 'shape',
    pointer: async (hand, place) => {
      await pick(hand, place);
      await hand.press('Find a pattern');
      await hand.type(place.otherName);
      await hand.pressOf('.hanger', place.otherName);
    },
    keyboard: async (hand, { otherName }) => {
      await all(hand);
      await hand.key('Shift', 'F6');
      await hand.type(otherName);
      await hand.key('Enter');
    },
    done: async (place) => {
      const other = await place.pattern(place.otherName);
      return (await filled(place)).pattern === other?.id;
    },
  },
  inBar('scale the pattern to a half', 'Scale', '50', ({ scaleX }) => near(scaleX, 0.5)),
  inBar('turn the pattern by 30°', 'Rotation', '30', ({ rotation }) => near(rotation, 30)),
  inBar('see through the pattern', 'Opacity', '40', ({ opacity }) => near(opacity, 0.4)),
  {
    name: 'slide the pattern in its shape',
    start: 'shape',
    pointer: async (hand, place) => {
      await pick(hand, place);
      await hand.dragBy('[data-handle="hub"]', 24, 12);
    },
    keyboard: async (hand) => {
      await all(hand);
      await hand.keys('p', 'ArrowRight');
    },
    done: async (place) => (await filled(place)).offset.x > 0.5 && (await first(place)).x === 60,
  },
  {
    name: 'move a shape',
    start: 'shape',
    pointer: async (hand, { onWindow }) => hand.drag(await onWindow(...MIDDLE), await onWindow(240, 180)),
    keyboard: async (hand) => {
      await all(hand);
      await hand.key('ArrowRight');
    },
    done: async (place) => (await first(place)).x > 60.5,
  },
  inRow(
    'make a shape wider',
    'Width of',
    '340',
    (hand) => hand.dragBy('[data-handle="1,0"]', 40, 0),
    ({ width }) => width > 310,
  ),
  inRow(
    'turn a shape',
    'Turn of',
    '20',
    (hand) => hand.dragBy('[data-handle="turn"]', 0, 60),
    ({ rotation }) => Math.abs(rotation) > 3,
  ),
  {
    name: 'copy a shape in a row of three',
    start: 'shape',
    pointer: async (hand, place) => {
      await pick(hand, place);
      await hand.press('Arrange');
      await hand.press('Copy');
    },
    keyboard: async (hand) => {
      await all(hand);
      await hand.key('F6');
      await hand.tabTo('Arrange');
      await hand.key('Enter');
      await hand.tabTo('Copy');
      await hand.key('Enter');
    },
    done: async (place) => (await shapes(place)).length === 3,
  },
  {
    name: 'line two shapes up',
    start: 'two',
    pointer: async (hand, { onWindow }) => {
      await hand.drag(await onWindow(20, 20), await onWindow(540, 420));
      await hand.press('Arrange');
      await hand.press('Line up left edges');
    },
    keyboard: async (hand) => {
      await all(hand);
      await hand.key('F6');
      await hand.tabTo('Arrange');
      await hand.key('Enter');
      await hand.tabTo('Line up left edges');
      await hand.key('Enter');
    },
    done: async (place) => new Set((await shapes(place)).map(({ x }) => x)).size === 1,
  },
  {
    name: 'group two shapes',
    start: 'two',
    pointer: async (hand, { onWindow }) => {
      await hand.drag(await onWindow(20, 20), await onWindow(540, 420));
      await hand.press('Arrange');
      await hand.press('Group');
    },
    keyboard: async (hand) => {
      await all(hand);
      await hand.key('Control', 'g');
    },
    done: async ({ layout }) => (await layout()).groups.length === 1,
  },
  {
    name: 'lock a shape',
    start: 'shape',
    before: async (hand) => (await hand.page.waitForSelector('tbody tr[tabindex]'))!.hover(),
    pointer: (hand) => hand.press('Lock Panel'),
    keyboard: async (hand) => {
      await toRow(hand);
      await hand.tabTo('Lock Panel');
      await hand.key('Enter');
    },
    done: async (place) => (await first(place)).locked,
  },
  {
    name: 'hide a shape',
    start: 'shape',
    before: async (hand) => (await hand.page.waitForSelector('tbody tr[tabindex]'))!.hover(),
    pointer: (hand) => hand.press('Hide Panel'),
    keyboard: async (hand) => {
      await toRow(hand);
      await hand.tabTo('Hide Panel');
      await hand.key('Enter');
    },
    done: async (place) => (await first(place)).hidden,
  },
  {
    name: 'fill a shape with a plain colour',
    start: 'shape',
    pointer: async (hand, place) => {
      await pick(hand, place);
      await hand.pressOf('.bar button', 'Choose what fills it');
      await hand.pressOf('.choices button', 'A plain colour');
    },
    keyboard: async (hand) => {
      await all(hand);
      await toBar(hand);
      await hand.tabTo('Choose what fills it', true);
      await hand.key('Enter');
      await hand.type('plain');
      await hand.key('Enter');
    },
    done: async (place) => (await top(place))?.kind === 'colour',
  },
  {
    name: 'lay another pattern over the fill',
    start: 'shape',
    pointer: async (hand, place) => {
      await pick(hand, place);
      await hand.press('Lay another fill over it');
      await hand.press('Find what fills it');
      await write(hand, place.otherName);
    },
    keyboard: async (hand, { otherName }) => {
      await all(hand);
      await toBar(hand);
      await hand.tabTo('Lay another fill over it', true);
      await hand.key('Enter');
      await hand.tabTo('Find what fills it');
      await write(hand, otherName);
    },
    done: async (place) => (await first(place)).fills.length === 2,
  },
  {
    name: 'choose a colourway',
    start: 'shape',
    pointer: async (hand, place) => {
      await pick(hand, place);
      await hand.pressOf('.bar button', 'Choose the colourway');
      await hand.pressOf('.choices button', 'Night');
    },
    keyboard: async (hand) => {
      await all(hand);
      await toBar(hand);
      await hand.tabTo('Choose the colourway');
      await hand.key('Enter');
      await hand.tabTo('Night');
      await hand.key('Enter');
    },
    done: async (place) => (await filled(place)).colourway !== null,
  },
  {
    name: 'give a shape another name',
    start: 'shape',
    pointer: async (hand) => {
      await hand.pressOf('tbody input', 'The name of the shape', 3);
      await write(hand, 'Door');
    },
    keyboard: async (hand) => {
      await toRow(hand);
      await hand.tabTo('The name of the shape');
      await hand.key('Control', 'a');
      await write(hand, 'Door');
    },
    done: async (place) => (await first(place)).name === 'Door',
  },
  {
    name: 'take the last step back',
    start: 'shape',
    before: async (hand) => {
      await hand.page.keyboard.press('F6');
      await hand.page.keyboard.down('Control');
      await hand.page.keyboard.press('a');
      await hand.page.keyboard.up('Control');
      await hand.page.keyboard.press('Delete');
    },
    pointer: (hand) => hand.press('Undo'),
    keyboard: (hand) => hand.key('Control', 'z'),
    done: async (place) => (await shapes(place)).length === 1,
  },
  {
    name: 'leave only the stage, and have all back',
    start: 'shape',
    pointer: async (hand) => {
      await hand.press('Room');
      await hand.pressOf('label', 'Only the stage');
      await hand.page.waitForSelector('.ledger', { hidden: true });
      await hand.pressOf('label', 'Only the stage');
    },
    keyboard: async (hand) => {
      await hand.keys('F6', '5');
      await hand.page.waitForSelector('.ledger', { hidden: true });
      await hand.key('5');
    },
    done: async ({ page }) =>
      page.evaluate(() =>
        ['.ledger', '.fills-box', '.hangers-box'].every((part) =>
          document.querySelector(part)?.checkVisibility(),
        ),
      ),
  },
  {
    name: 'give the page another width',
    start: 'shape',
    pointer: async (hand) => {
      await hand.pressOf('button', 'Page settings');
      await write(hand, '600');
    },
    keyboard: async (hand) => {
      await hand.tabTo('Page settings');
      await hand.key('Enter');
      await write(hand, '600');
    },
    done: async ({ layout }) => near((await layout()).width, 600),
  },
  {
    name: 'export the page',
    start: 'shape',
    pointer: async (hand) => {
      await hand.press('Export');
      await hand.press('Export PNG');
    },
    keyboard: async (hand) => {
      await hand.tabTo('Export');
      await hand.keys('Enter', 'Enter');
    },
    done: async ({ page }) =>
      page.evaluate(() =>
        [...document.querySelectorAll('dialog[open] [role="status"]')].some((one) =>
          one.textContent?.startsWith('Done:'),
        ),
      ),
  },
  {
    name: 'find a pattern in the library and open it',
    start: 'library',
    pointer: async (hand, { otherName }) => {
      await hand.pressOf('input[type="search"]', '');
      await hand.type(otherName);
      await hand.pressOf('.hanger', otherName, 2);
    },
    keyboard: async (hand, { otherName }) => {
      await hand.key('/');
      await hand.type(otherName);
      await hand.page.waitForFunction(
        (name) => {
          const shown = [...document.querySelectorAll('.hanger strong')];
          return shown.length === 1 && shown[0]?.textContent === name;
        },
        {},
        otherName,
      );
      await hand.keys('ArrowDown', 'Enter');
    },
    done: async ({ page, pattern, otherName }) =>
      new URL(page.url()).pathname === `/library/${(await pattern(otherName))?.id}`,
  },
  {
    name: 'make a pattern from numbers and publish it under a name',
    start: 'library',
    pointer: async (hand) => {
      await hand.pressOf('a', 'Measured');
      await hand.press('Publish revision 1');
      await hand.type(MADE.pointer);
      await hand.press('Name and publish');
    },
    keyboard: async (hand) => {
      await hand.tabTo('Measured');
      await hand.key('Enter');
      await hand.page.waitForSelector('.unit-view');
      await hand.tabTo('Publish revision 1');
      await hand.key('Enter');
      await write(hand, MADE.keyboard);
    },
    done: async ({ pattern }) =>
      (await pattern(MADE.pointer)) !== null || (await pattern(MADE.keyboard)) !== null,
  },
  {
    name: 'go from a fill to its pattern and back',
    start: 'shape',
    pointer: async (hand, place) => {
      await pick(hand, place);
      await hand.press('Edit this pattern');
      await hand.pressOf('header a', '←');
    },
    keyboard: async (hand) => {
      await all(hand);
      await toBar(hand);
      await hand.tabTo('Edit this pattern', true);
      await hand.key('Enter');
      await hand.page.waitForSelector('.unit-view');
      await hand.tabTo('←');
      await hand.key('Enter');
    },
    done: async ({ page, layout }) => {
      const { id, shapes } = await layout();
      const { pathname, searchParams } = new URL(page.url());
      return pathname.endsWith(`/layouts/${id}`) && searchParams.get('shape') === shapes[0]?.id;
    },
  },
];

const stamp = Date.now().toString(36);
/** Names of patterns that are made on the way. */
export const MADE = { pointer: `Walked ${stamp} p`, keyboard: `Walked ${stamp} k` };
