import type { Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { LayoutData } from '../../src/lib/contract/data';
import { freshMockup } from '../../src/lib/core/mockup/mockup';
import { freshSheet } from '../../src/lib/core/sheet/client-sheet';
import { enter, named, openBrowser, press, saved, shown, type Session } from '../support/browser';
import { OwnStudio } from '../support/own-studio';
import { block, place, recipe } from '../support/recipes';
import { until } from '../support/until';

/** Two people at one layout, each in a browser of their own. */
let studio: OwnStudio;
let session: Session;
let project = '';

beforeAll(async () => {
  studio = await OwnStudio.open();
  for (const role of ['designer', 'viewer'] as const) await studio.comeIn(role);
  project = String((await studio.must('owner', 'POST', '/projects', { name: 'Pier signs' })).body.id);
  session = await openBrowser();
}, 90_000);
afterEach(() => studio.closeWindows());
afterAll(async () => {
  await session.close();
  await studio.close();
});

let count = 0;
const layout = async (): Promise<string> => {
  count += 1;
  return (await studio.twoShapes(project, `Sign ${count}`, String(count))).id;
};
const addressOf = (id: string): string => (id.startsWith('/') ? id : `/projects/${project}/layouts/${id}`);
/** A window of somebody, on a layout or at an address. */
const windowOf = (who: string, id: string): Promise<Page> =>
  studio.windowOf(session.browser, who, addressOf(id));
const stored = async (id: string): Promise<LayoutData> =>
  ((await studio.must('owner', 'GET', `/layouts/${id}`)).body as unknown as { layout: LayoutData }).layout;
const x = (name: string, { shapes }: LayoutData): number | undefined =>
  shapes.find((one) => one.name === name)?.x;
async function undo(page: Page): Promise<void> {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.down('Control');
  await page.keyboard.press('z');
  await page.keyboard.up('Control');
}
/** Something else than a layout: its address, how it is changed in a window, and whether that is stored. */
async function open(what: 'mock-up' | 'client sheet' | 'palette'): Promise<{
  path: string;
  change: (page: Page) => Promise<unknown>;
  kept: () => Promise<boolean>;
}> {
  const name = `One ${(count += 1)}`;
  if (what === 'palette') {
    const made = (await studio.must('owner', 'POST', '/palettes', { name })).body;
    const all = async (): Promise<{ id: string; projectId: string | null }[]> =>
      (await studio.must('owner', 'GET', '/palettes')).body as never;
    return {
      path: `/palettes?palette=${String(made.id)}`,
      change: (page) => page.select('[aria-label="Belongs to"]', project),
      kept: async () => (await all()).some(({ id, projectId }) => id === made.id && projectId === project),
    };
  }
  const [part, body] =
    what === 'mock-up' ? ['mock-ups', freshMockup()] : ['client-sheets', freshSheet('A line')];
  const made = (await studio.must('owner', 'POST', `/projects/${project}/${part}`, { name, body })).body;
  return {
    path: `/projects/${project}/${part}/${String(made.id)}`,
    change: (page) => enter(page, `The name of the ${what}`, `${name}, changed`),
    kept: async () =>
      (await studio.must('owner', 'GET', `/${part}/${String(made.id)}`)).body.name === `${name}, changed`,
  };
}
/** Changes something while the server cannot be reached; then the window breaks down. Answers a fresh one beside it. */
async function brokenDown(page: Page, change: () => Promise<unknown>): Promise<Page> {
  await page.setOfflineMode(true);
  await change();
  await page.waitForFunction(() => document.body.textContent?.includes('cannot be reached'));
  // Longer than it takes to keep work in the browser.
  await new Promise((resolve) => setTimeout(resolve, 900));
  const fresh = await page.browserContext().newPage();
  await page.close({ runBeforeUnload: false });
  await fresh.setViewport({ width: 1280, height: 800 });
  return fresh;
}
const isBack = (page: Page): Promise<unknown> =>
  page.waitForFunction(() => document.body.textContent?.includes('not saved when this was closed is back'));
const X = (name: string): string => `Place across of ${name}`;

describe('two people at one layout', () => {
  it('see what the other does at once, undo apart, and no save reads the layout again', async () => {
    const id = await layout();
    const [mine, theirs] = [await windowOf('owner', id), await windowOf('designer', id)];
    const read: string[] = [];
    for (const page of [mine, theirs])
      page.on('request', (request) => {
        const { pathname } = new URL(request.url());
        if (request.method() === 'GET' && pathname === `/api/v1/layouts/${id}`) read.push(pathname);
      });
    await enter(mine, X('Left'), '60');
    await saved(mine);
    await until(async () => expect(await shown(theirs, X('Left'))).toBe('60'));
    await enter(theirs, X('Right'), '250');
    await saved(theirs);
    await until(async () => expect(await shown(mine, X('Right'))).toBe('250'));
    await undo(mine);
    await saved(mine);
    await until(async () =>
      expect([x('Left', await stored(id)), x('Right', await stored(id))]).toEqual([40, 250]),
    );
    await until(async () => expect(await shown(theirs, X('Left'))).toBe('40'));
    expect(read).toEqual([]);
  });

  it('clash only where both give the same field a value: both values are shown, with whose, and either can stand', async () => {
    const id = await layout();
    const [mine, theirs] = [await windowOf('owner', id), await windowOf('designer', id)];
    // The line of one of them is down while both work.
    await mine.setOfflineMode(true);
    await enter(mine, X('Left'), '70');
    await enter(mine, 'Place down of Left', '90');
    await enter(theirs, X('Left'), '55');
    await enter(theirs, 'Width of Left', '120');
    await saved(theirs);
    await mine.waitForFunction(() =>
      [...document.querySelectorAll('[role="status"]')].some((one) =>
        one.textContent?.includes('Kept in this browser: the studio cannot be reached'),
      ),
    );
    await mine.setOfflineMode(false);
    await saved(mine);
    const panel = await mine.waitForSelector('section[aria-label="Changed by two at once"]');
    expect(await panel?.evaluate((one) => one.textContent?.replace(/\s+/g, ' '))).toMatch(
      /The place across, “Left”: A designer has set 55 px, you 70 px\./,
    );
    const both = (await stored(id)).shapes.find(({ name }) => name === 'Left');
    expect([both?.x, both?.y, both?.width]).toEqual([55, 90, 120]);
    await press(mine, 'Take mine');
    await saved(mine);
    await until(async () => expect(await shown(theirs, X('Left'))).toBe('70'));
  });

  it('see who is there and what they have selected; one follows what another sees', async () => {
    const id = await layout();
    const [mine, theirs] = [await windowOf('owner', id), await windowOf('designer', id)];
    await named(mine, 'Follow what A designer sees');
    await theirs.click('tbody tr[data-row]');
    await until(async () => {
      const frames = await mine.$$eval('.other text', (all) => all.map((one) => one.textContent));
      expect(frames).toEqual(['AD']);
    });
    await press(mine, 'Follow what A designer sees');
    const zoom = (page: Page) =>
      page.$$eval('button', (all) =>
        all.map((one) => one.textContent?.trim()).find((text) => /^\d+ %$/.test(text ?? '')),
      );
    const before = await zoom(mine);
    await theirs.mouse.move(600, 350);
    await theirs.keyboard.down('Control');
    await theirs.mouse.wheel({ deltaY: -300 });
    await theirs.keyboard.up('Control');
    await until(async () => expect(await zoom(mine)).toBe(await zoom(theirs)));
    expect(await zoom(mine)).not.toBe(before);
    await theirs.goto('about:blank');
    await until(async () => expect(await mine.$$('.others button')).toHaveLength(0));
  });

  it('see on the bench who works on the same pattern; of two drafts one is asked which to keep', async () => {
    const art = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });
    const made = await studio.must('owner', 'POST', '/patterns', { name: 'Both at once', recipe: art });
    const path = `/library/${String(made.body.id)}/bench`;
    const [mine, theirs] = [await windowOf('owner', path), await windowOf('designer', path)];
    await mine.waitForSelector('[aria-label="Also here: A designer"]');
    await enter(theirs, 'Unit width', '50 mm');
    await saved(theirs);
    await enter(mine, 'Unit height', '40 mm');
    await mine.waitForFunction(() => document.querySelector('dialog[open]') !== null);
    const { body } = await studio.must('owner', 'GET', `/patterns/${String(made.body.id)}`);
    const draft = (body as unknown as { draft: { unit: { width: number; height: number } } }).draft;
    expect(Math.round((draft.unit.width * 25.4) / 96)).toBe(50);
    expect(draft.unit.height).toBe(100);
  });

  it('a draft that was not saved when the bench broke down goes over no other one unasked', async () => {
    const art = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });
    const made = await studio.must('owner', 'POST', '/patterns', { name: 'Broken off', recipe: art });
    const id = String(made.body.id);
    const heights = async (): Promise<number> =>
      (
        (await studio.must('owner', 'GET', `/patterns/${id}`)).body as never as {
          draft: { unit: { height: number } };
        }
      ).draft.unit.height;
    for (const theirs of [null, 77]) {
      const before = await heights();
      const mine = await windowOf('owner', `/library/${id}/bench`);
      const fresh = await brokenDown(mine, () => enter(mine, 'Unit height', theirs ? '40 mm' : '30 mm'));
      const { body } = await studio.must('owner', 'GET', `/patterns/${id}`);
      if (theirs)
        await studio.must('designer', 'PUT', `/patterns/${id}/draft`, {
          base: body.version,
          recipe: { ...art, unit: { width: 100, height: theirs } },
        });
      expect(await heights()).toBe(theirs ?? before);
      await studio.visit(fresh, `/library/${id}/bench`);
      await isBack(fresh);
      if (theirs === null) {
        await until(async () => expect(await heights()).toBeCloseTo((30 * 96) / 25.4, 6));
        continue;
      }
      await fresh.waitForFunction(() => document.querySelector('dialog[open]') !== null);
      expect(await heights()).toBe(theirs);
    }
  });

  it('work goes on while the server is away or the window breaks down, and is there again', async () => {
    const id = await layout();
    const mine = await windowOf('owner', id);
    const fresh = await brokenDown(mine, () => enter(mine, X('Right'), '222'));
    // Meanwhile somebody else changes another field of the same shape.
    await studio.must('designer', 'POST', `/layouts/${id}/changes`, {
      base: 2,
      changes: [{ do: 'patch-shape', id: `Right${count}`, fields: { y: 11 } }],
    });
    await studio.visit(fresh, addressOf(id));
    await isBack(fresh);
    await saved(fresh);
    const right = (await stored(id)).shapes.find(({ name }) => name === 'Right');
    expect([right?.x, right?.y]).toEqual([222, 11]);
    await undo(fresh);
    await saved(fresh);
    const back = (await stored(id)).shapes.find(({ name }) => name === 'Right');
    expect([back?.x, back?.y]).toEqual([240, 11]);
  });

  it.each(['mock-up', 'client sheet', 'palette'] as const)(
    'see who else has a %s open; what is not saved of it when a window breaks down is there again',
    async (what) => {
      const { path, change, kept } = await open(what);
      const [mine, theirs] = [
        await studio.windowOf(session.browser, 'owner', path),
        await studio.windowOf(session.browser, 'designer', path),
      ];
      for (const page of [mine, theirs])
        await page.waitForSelector('[role="status"][aria-label^="Also here"]');
      await theirs.close();
      const fresh = await brokenDown(mine, () => change(mine));
      expect(await kept()).toBe(false);
      await studio.visit(fresh, path);
      await isBack(fresh);
      await until(async () => expect(await kept()).toBe(true));
      await undo(fresh);
      await until(async () => expect(await kept()).toBe(false));
    },
  );

  it('a viewer sees what happens and changes nothing', async () => {
    const id = await layout();
    const looking = await windowOf('viewer', id);
    await enter(looking, X('Left'), '99');
    await looking.waitForFunction(() => document.body.textContent?.includes('You look on here'));
    expect(await shown(looking, X('Left'))).toBe('40');
    await studio.must('owner', 'POST', `/layouts/${id}/changes`, {
      base: 2,
      changes: [{ do: 'patch-shape', id: `Left${count}`, fields: { x: 44 } }],
    });
    await until(async () => expect(await shown(looking, X('Left'))).toBe('44'));
    expect((await stored(id)).version).toBe(3);
  });

  it('a viewer has no tools that would be refused, and changes nothing that is open', async () => {
    const { path, kept } = await open('palette');
    const looking = await studio.windowOf(session.browser, 'viewer', path);
    await enter(looking, 'The name of the palette', 'Mine now');
    await looking.waitForFunction(() => document.body.textContent?.includes('does not change this palette'));
    expect(
      await looking.$eval('[aria-label="Belongs to"]', (one) => (one as HTMLSelectElement).disabled),
    ).toBe(true);
    const asked: string[] = [];
    looking.on('request', (request) => request.method() !== 'GET' && asked.push(request.url()));
    const words = (): Promise<string[]> =>
      looking.$$eval('button, a', (found) => found.map((one) => one.textContent?.trim() ?? ''));
    for (const [at, tools] of [
      [`/projects/${project}`, ['New layout', 'New mock-up', 'New client sheet', 'Archive', 'Hand over …']],
      ['/projects', ['New project']],
      ['/palettes', ['New palette', 'Open files']],
      ['/library', ['New pattern', 'From a picture', 'Open files', 'Hand out all …']],
    ] as const) {
      await studio.visit(looking, at);
      const there = await words();
      expect({ at, tools: tools.filter((tool) => there.includes(tool)) }).toEqual({ at, tools: [] });
    }
    const mockup = await open('mock-up');
    await studio.visit(looking, mockup.path);
    await enter(looking, 'The name of the mock-up', 'Mine now');
    await looking.waitForFunction(() => document.body.textContent?.includes('does not change this mock-up'));
    expect(asked.filter((url) => !/presence|comments/.test(url))).toEqual([]);
    expect([await kept(), await mockup.kept()]).toEqual([false, false]);
  });
});
