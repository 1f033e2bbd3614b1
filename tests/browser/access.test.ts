import { afterAll, describe, expect, it } from 'vitest';
import type { FoundPatterns, ProjectDetail, ProjectSummary } from '../../src/lib/contract/data';
import { layoutWith, must, publishedPattern } from '../support/api';
import { named, openBrowser, press, visit } from '../support/browser';
import { dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

const session = await openBrowser();
const { page } = session;
afterAll(() => session.close());
const { patterns } = await must<FoundPatterns>('GET', '/patterns?search=ring%20toss');
const pictured = await must<FoundPatterns>('GET', '/patterns?search=slipway%20pebbles');
const projects = await must<ProjectSummary[]>('GET', '/projects');
const lido = projects.find(({ name }) => name.includes('Lido')) ?? projects[0]!;
const project = await must<ProjectDetail>('GET', `/projects/${lido.id}`);
const views: Record<string, string> = {
  library: '/library',
  'a pattern': `/library/${patterns[0]!.id}`,
  'the bench': `/library/${patterns[0]!.id}/bench`,
  'a picture': `/library/${pictured.patterns[0]!.id}/bench`,
  projects: '/projects',
  'a project': `/projects/${lido.id}`,
  'a layout': `/projects/${lido.id}/layouts/${project.layoutList[0]!.id}`,
  palettes: '/palettes',
};
const NAMES = Object.keys(views);

/** Brings a layout to where all of its controls are: a shape with a pattern is selected. */
async function ready(name: string): Promise<void> {
  await visit(page, views[name]!);
  if (name !== 'a layout') return;
  await page.$$eval('tbody tr[tabindex]', (rows) =>
    rows
      .find((row) => row.textContent?.includes('Awning'))
      ?.querySelector<HTMLElement>('.filled')
      ?.click(),
  );
  await page.waitForSelector('[data-handle="hub"]');
}

/**
 * WCAG 2.2, 2.5.8: a target is 24 × 24 px or more, or a circle of that diameter about its middle meets no other target nor the
 * circle of another small one. Links within sentences are excepted, and edges that are dragged: numbers of *Room* do the same.
 */
const crowded = (): Promise<string[]> =>
  page.evaluate(() => {
    const all = [
      ...document.querySelectorAll<Element>(
        'button, a[href], input:not([type="file"]), select, textarea, summary, [role="radio"], [data-handle]',
      ),
    ].filter((one) => {
      const style = getComputedStyle(one);
      return (
        !one.closest('p, [hidden], [inert]') &&
        !(one as HTMLButtonElement).disabled &&
        style.visibility !== 'hidden' &&
        !one.classList.contains('visually-hidden') &&
        !one.classList.contains('skip')
      );
    });
    const targets = all.flatMap((one) => {
      // A tick or a radio is pressed anywhere on its label.
      const holder = one.matches('[type="checkbox"], [type="radio"]') ? (one.closest('label') ?? one) : one;
      const box = holder.getBoundingClientRect();
      if (box.width === 0 || box.height === 0) return [];
      const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
      const top = document.elementFromPoint(x, y);
      // What is scrolled away or lies below something else is no target now.
      if (!top || !(holder.contains(top) || top.contains(holder))) return [];
      const said = one.getAttribute('aria-label') ?? one.getAttribute('data-handle') ?? one.textContent ?? '';
      const small = box.width < 23.5 || box.height < 23.5;
      return [{ one: holder, x, y, box, small, said: said.replace(/\s+/g, ' ').trim().slice(0, 50) }];
    });
    return targets
      .filter((target) => target.small)
      .flatMap((target) => {
        const other = targets.find((held) => {
          if (held.one === target.one || held.one.contains(target.one) || target.one.contains(held.one))
            return false;
          if (held.small) return Math.hypot(held.x - target.x, held.y - target.y) < 23.5;
          // Round handles are caught within their circle.
          if (held.one.matches('.caught[rx]:not([rx="0"])'))
            return Math.hypot(held.x - target.x, held.y - target.y) < 11.75 + held.box.width / 2;
          const across = Math.max(held.box.left - target.x, 0, target.x - held.box.right);
          const down = Math.max(held.box.top - target.y, 0, target.y - held.box.bottom);
          return Math.hypot(across, down) < 11.75;
        });
        const { width, height } = target.box;
        return other ? [`${target.said} (${width.toFixed(0)} × ${height.toFixed(0)}) by ${other.said}`] : [];
      });
  });

describe('targets', () => {
  it.each(NAMES)('are large enough or far enough apart: %s', async (name) => {
    await ready(name);
    expect(await crowded()).toEqual([]);
  });
});

/** WCAG 2.2, 2.4.11: what has the keyboard is never wholly hidden by something else. */
describe('what has the keyboard', () => {
  it.each(NAMES)('is in sight: %s', async (name) => {
    await ready(name);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    const hidden: string[] = [];
    for (let count = 0; count < 90; count += 1) {
      await page.keyboard.press('Tab');
      const found = await page.evaluate(() => {
        const held = document.activeElement;
        if (!held || held === document.body) return 'end';
        const { left, top, right, bottom } = held.getBoundingClientRect();
        const seen = [0.1, 0.5, 0.9].some((across) =>
          [0.1, 0.5, 0.9].some((down) => {
            const there = document.elementFromPoint(
              left + (right - left) * across,
              top + (bottom - top) * down,
            );
            return there !== null && (held.contains(there) || there.contains(held));
          }),
        );
        return seen ? null : (held.getAttribute('aria-label') ?? held.textContent ?? held.tagName).trim();
      });
      if (found === 'end') break;
      if (found !== null) hidden.push(found);
    }
    expect(hidden).toEqual([]);
  });

  it('comes to the drawing tools of a layout within a few presses', async () => {
    await visit(page, views['a layout']!);
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    const said = await page.evaluate(() =>
      document.activeElement?.closest('[role="toolbar"]')?.getAttribute('aria-label'),
    );
    expect(said).toBe('Shapes');
  });

  it('has a bar of tools as one stop, and goes along it with the arrows', async () => {
    await visit(page, views['a layout']!);
    await page.keyboard.press('Tab');
    await page.keyboard.press('Enter');
    const held = () =>
      page.evaluate(() => {
        const { activeElement } = document;
        const bar = activeElement?.closest('[role="toolbar"]');
        const stops = [...(bar?.querySelectorAll<HTMLElement>(':scope > button') ?? [])];
        return {
          label: activeElement?.getAttribute('aria-label') ?? '',
          bar: bar?.getAttribute('aria-label') ?? null,
          stops: stops.filter(({ tabIndex }) => tabIndex === 0).length,
        };
      });
    expect(await held()).toEqual({ label: 'Select and move', bar: 'Shapes', stops: 1 });
    await page.keyboard.press('ArrowRight');
    expect(await held()).toEqual({ label: 'Draw a rectangle', bar: 'Shapes', stops: 1 });
    await page.keyboard.press('End');
    await page.keyboard.press('ArrowRight');
    expect((await held()).label).toBe('Select and move');
    await page.keyboard.press('Tab');
    expect((await held()).bar).not.toBe('Shapes');
  });
});

/** WCAG 2.2, 4.1.3: what happens without a change of focus is told by a role. */
it('tells what is saved and what went wrong without taking the focus', async () => {
  await ready('a layout');
  await page.focus('.stage');
  const told = (role: string) =>
    page.evaluate(
      (wanted) => [...document.querySelectorAll(`[role="${wanted}"]`)].map((one) => one.textContent ?? ''),
      role,
    );
  await page.keyboard.press('ArrowRight');
  await page.waitForFunction(() =>
    [...document.querySelectorAll('[role="status"]')].some((one) => one.textContent === 'Saved'),
  );
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.click('.hangers-box .hanger');
  await page.waitForSelector('.toasts [role="alert"]');
  expect((await told('alert')).join()).toContain('Select a shape first');
  expect(await page.evaluate(() => document.activeElement?.className)).toContain('hanger');
});

describe('at 1024 × 700', () => {
  it.each(NAMES)('bars do not wrap and nothing is wider than the window: %s', async (name) => {
    await page.setViewport({ width: 1024, height: 700 });
    await ready(name);
    const wide = await page.evaluate(() => ({
      scrolls: document.documentElement.scrollWidth > window.innerWidth,
      top: document.querySelector('header')?.getBoundingClientRect().height ?? 0,
      out: [...document.querySelectorAll('header button, header a')]
        .filter((one) => one.getBoundingClientRect().right > window.innerWidth + 1)
        .map((one) => one.textContent),
      // A part that begins below the end of the first one stands in a second row.
      wrapped: [...document.querySelectorAll('.tools, .bar, .add, .filters, header')].flatMap((bar) => {
        const parts = [...bar.children]
          .map((one) => one.getBoundingClientRect())
          .filter(({ width }) => width > 1);
        const end = parts[0]?.bottom ?? 0;
        return parts.some(({ top }) => top >= end) ? [bar.className || bar.tagName] : [];
      }),
    }));
    expect(wide.wrapped).toEqual([]);
    expect(wide.scrolls).toBe(false);
    expect(wide.top).toBeLessThan(60);
    expect(wide.out).toEqual([]);
    await page.setViewport({ width: 1280, height: 800 });
  });

  it('the bar of a fill with many colours and two scales stays in one row and can be scrolled to its end', async () => {
    await page.setViewport({ width: 1024, height: 700 });
    const slots = Array.from({ length: 10 }, (_, index) => ({
      id: `c${index}`,
      name: `Colour ${index}`,
      colour: `#10${index}0${index}0`,
    }));
    const motifs = slots.map(({ id }) => dot(`d-${id}`, 8, id));
    const placings = motifs.map(({ id }, index) => place(id, 5 + index * 10, 50));
    const pattern = await publishedPattern(recipe({ slots, motifs, placings, ground: { kind: 'clear' } }));
    const shape = filledShape(
      { x: 20, y: 20, width: 200, height: 120 },
      { pattern, scaleX: 1.5, scaleY: 0.7 },
    );
    const { path } = await layoutWith([shape], { width: 600, height: 300 });
    await visit(page, path);
    await page.click('tbody tr[tabindex] .filled');
    await page.waitForSelector('.fills-box .bar .edit');
    const bar = await page.$eval('.fills-box .bar', (one) => {
      one.scrollLeft = 1e6;
      const rows = new Set([...one.children].map((cell) => Math.round(cell.getBoundingClientRect().top)));
      const last = one.lastElementChild!.getBoundingClientRect();
      return { rows: rows.size, end: last.right <= one.getBoundingClientRect().right + 1 };
    });
    expect(bar).toEqual({ rows: 1, end: true });
    await page.setViewport({ width: 1280, height: 800 });
  });

  it.each([
    [1024, 700],
    [1280, 800],
  ])('the tools with the numbers of a text stay in one row: %i × %i', async (width, height) => {
    await page.setViewport({ width, height });
    const { path } = await layoutWith([], { width: 600, height: 300 });
    await visit(page, path);
    await press(page, 'Set text');
    await page.click('.sheet');
    await page.keyboard.type('Towels');
    await page.keyboard.press('Escape');
    await named(page, 'Words …');
    const heights = await page.$$eval('.tools[role="toolbar"]', (all) => all.map((one) => one.clientHeight));
    expect(heights.every((one) => one < 40)).toBe(true);
    await page.setViewport({ width: 1280, height: 800 });
  });
});
