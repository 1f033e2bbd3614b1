import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { afterAll, describe, expect, it, vi } from 'vitest';
import type { FoundPatterns, PatternDetail } from '../../../src/lib/contract/data';
import { colourFill } from '../../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../../src/lib/core/recipe/layout';
import { getLayout, must, publishedPattern, unique } from '../../support/api';
import { openBrowser, saved, visit } from '../../support/browser';
import { layoutView } from '../../support/layout-view';
import { dot, place as placed, recipe } from '../../support/recipes';
import { filledShape } from '../../support/scenes';
import { Hand } from './hand';
import { TASKS, type Place, type Task } from './tasks';

/** How many actions each task takes: none may take more later. Written anew where the file is taken away. */
const KNOWN = 'tests/browser/tasks/actions.json';
type Known = Record<string, { pointer: number; keyboard: number }>;

const session = await openBrowser();
const { page } = session;
const patternName = unique('Task dots');
const otherName = unique('Task rings');
const counted: Known = {};
const art = recipe({ motifs: [dot('d', 60)], placings: [placed('d', 50, 50)] });
const pattern = await publishedPattern(art, patternName);
await publishedPattern(recipe({ motifs: [dot('d', 30)], placings: [placed('d', 50, 50)] }), otherName);
const { version } = await must<{ version: number }>('GET', `/patterns/${pattern}`);
await must('PUT', `/patterns/${pattern}/colourways`, {
  base: version,
  colourways: [{ id: 'night', name: 'Night', colours: { ink: { colour: '#27496d' } } }],
});
afterAll(async () => {
  await session.close();
  const rows = Object.entries(counted).map(
    ([name, { pointer, keyboard }]) => `${name}: ${pointer}, ${keyboard}`,
  );
  console.log(`Actions by pointer, by keyboard:\n${rows.join('\n')}`);
  if (!existsSync(KNOWN) && rows.length === TASKS.length)
    writeFileSync(KNOWN, `${JSON.stringify(counted, null, 2)}\n`);
});

const view = layoutView(() => page);
const panel = (): Shape => ({
  ...filledShape({ x: 60, y: 60, width: 300, height: 200 }, { pattern }),
  name: 'Panel',
});
const plain = (name: string, x: number, y: number): Shape =>
  freshShape({
    ...{ id: name, name, form: { kind: 'rectangle', radius: 0 }, x, y, width: 120, height: 90 },
    fills: [colourFill(`${name}-f`, { colour: '#2f8fab' })],
  });

const place: Place = {
  page,
  patternName,
  otherName,
  onWindow: async (x, y) => {
    const [left, top, zoom] = await page.$eval('[data-paper]', (paper) => {
      const box = paper.getBoundingClientRect();
      return [box.left, box.top, box.width / 560] as const;
    });
    return [left + x * zoom, top + y * zoom];
  },
  layout: async () => {
    await saved(page);
    return (await getLayout(view.layoutId())).layout;
  },
  pattern: async (name) => {
    const found = await must<FoundPatterns>(
      'GET',
      `/patterns?drafts=true&search=${encodeURIComponent(name)}`,
    );
    const one = found.patterns.find((summary) => summary.name === name);
    return one ? must<PatternDetail>('GET', `/patterns/${one.id}`) : null;
  },
};

async function begin({ start }: Task): Promise<void> {
  await page.evaluate(() => localStorage.clear()).catch(() => undefined);
  if (start === 'library') return visit(page, '/library');
  const shapes = { shape: [panel()], two: [plain('One', 60, 60), plain('Two', 260, 220)], empty: [] }[start];
  await view.open(shapes, { width: 560, height: 440 });
}

async function walk(task: Task, way: 'pointer' | 'keyboard'): Promise<number> {
  await begin(task);
  const before = new Hand(page);
  await task.before?.(before, place);
  const hand = new Hand(page);
  await task[way](hand, place);
  await vi.waitFor(async () => expect(await task.done(place), `${task.name} by ${way}`).toBe(true), {
    timeout: 15_000,
    interval: 100,
  });
  return hand.actions;
}

describe('the tasks of a designer, by pointer and by keyboard alone', () => {
  const known = existsSync(KNOWN) ? (JSON.parse(readFileSync(KNOWN, 'utf8')) as Known) : {};

  it('are twenty-five', () => expect(TASKS).toHaveLength(25));

  it.each(TASKS.map((task) => [task.name, task] as const))('%s', async (name, task) => {
    counted[name] = { pointer: await walk(task, 'pointer'), keyboard: await walk(task, 'keyboard') };
    const { pointer, keyboard } = counted[name];
    expect(pointer).toBeLessThanOrEqual(known[name]?.pointer ?? pointer);
    expect(keyboard).toBeLessThanOrEqual(known[name]?.keyboard ?? keyboard);
  });
});
