import type { Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import type { LayoutData, LayoutState } from '../../src/lib/contract/data';
import { freshSheet } from '../../src/lib/core/sheet/client-sheet';
import { enter, named, openBrowser, press, saved, shown, type Session } from '../support/browser';
import { seriousFaults } from '../support/axe';
import { PLAIN } from '../support/studio';
import { OwnStudio } from '../support/own-studio';
import { until } from '../support/until';

/** Talking about a layout, approving it, and going back in its history. */
let studio: OwnStudio;
let session: Session;
let project = '';
let layout = '';
let path = '';

beforeAll(async () => {
  studio = await OwnStudio.open();
  await studio.comeIn('designer', [], 'Tove');
  await studio.comeIn('viewer', [], 'Pim');
  project = String((await studio.must('owner', 'POST', '/projects', { name: 'Pier signs' })).body.id);
  ({ id: layout, path } = await studio.twoShapes(project, 'Sign', 'talk'));
  session = await openBrowser();
}, 90_000);
afterEach(() => studio.closeWindows());
afterAll(async () => {
  await session.close();
  await studio.close();
});

const windowOf = (who: string): Promise<Page> => studio.windowOf(session.browser, who, path);
const stored = async (): Promise<LayoutData> =>
  ((await studio.must('owner', 'GET', `/layouts/${layout}`)).body as unknown as { layout: LayoutData })
    .layout;
const texts = (page: Page, selector: string): Promise<string[]> =>
  page.$$eval(selector, (all) => all.map((one) => one.textContent?.replace(/\s+/g, ' ').trim() ?? ''));

describe('talking', () => {
  it('a viewer says something about a place and names a colleague, who answers and is done with it', async () => {
    const looking = await windowOf('Pim');
    await press(looking, 'Comments');
    await press(looking, 'At a place …');
    const stage = (await (await looking.waitForSelector('.stage .over .catch'))?.boundingBox())!;
    await looking.mouse.click(stage.x + stage.width / 2, stage.y + stage.height / 2);
    await looking.waitForSelector('.over .next');
    await looking.keyboard.type('Too dark, @a to');
    await press(looking, '@A Tove');
    await looking.keyboard.type('<b>please</b>');
    await looking.keyboard.down('Control');
    await looking.keyboard.press('Enter');
    await looking.keyboard.up('Control');
    await until(async () =>
      expect(await texts(looking, '.words')).toEqual(['Too dark, @A Tove <b>please</b>']),
    );
    expect(await texts(looking, '.over .pin text')).toEqual(['1']);
    expect(await texts(looking, '.words b')).toEqual(['@A Tove']);

    const tove = await windowOf('Tove');
    await press(tove, 'You and the studio, named once');
    await until(async () =>
      expect(await texts(tove, 'ul[aria-label="Where you are named"] a')).toEqual(['A Pim, Sign']),
    );
    await tove.keyboard.press('Escape');
    await press(tove, 'Comments, 1 new');
    await named(tove, 'You and the studio');
    await until(async () => expect(await texts(tove, '.new')).toEqual(['new']));
    await press(tove, 'Answer');
    await tove.keyboard.type('Lighter now');
    await tove.keyboard.down('Control');
    await tove.keyboard.press('Enter');
    await tove.keyboard.up('Control');
    await until(async () => expect(await texts(looking, '.words')).toHaveLength(2));
    await press(tove, 'Done');
    await until(async () => expect(await texts(looking, '.words')).toEqual([]));
    const { body } = await studio.must('Tove', 'GET', `/comments?kind=layout&id=${layout}`);
    const [first, second] = body as unknown as { x: number; y: number; mentions: string[]; doneBy: string }[];
    // The middle of the stage is about that of the page.
    expect(Math.hypot(first!.x - 200, first!.y - 150)).toBeLessThan(12);
    expect([first!.mentions.length, first!.doneBy, second!.x]).toEqual([1, 'A Tove', null]);
  });

  it('comments of 100 kB, of nothing and about what is not there are refused with a sentence', async () => {
    const say = (more: object) =>
      studio.ask('Pim', 'POST', '/comments', {
        ...{
          kind: 'layout',
          id: layout,
          words: 'x',
          parentId: null,
          shapeId: null,
          x: null,
          y: null,
          ...more,
        },
      });
    expect((await say({ words: 'x'.repeat(100_000) })).status).toBe(413);
    expect((await say({ words: 'x'.repeat(4001) })).body.message).toMatch(/at most 4000 characters/);
    expect((await say({ words: '  ' })).status).toBe(400);
    expect((await say({ id: 'nothing' })).status).toBe(404);
    expect((await say({ parentId: 'nothing' })).status).toBe(404);
  });
});

describe('approval', () => {
  it('is asked for, given by designers alone, ends with the next change, and a project can demand it', async () => {
    const approve = (as: string, state: string) =>
      studio.ask(as, 'PUT', '/approvals', { kind: 'layout', id: layout, state });
    expect((await approve('Pim', 'asked')).status).toBe(403);
    const page = await windowOf('Tove');
    await press(page, 'Comments');
    await page.waitForSelector('select[aria-label="How far it is"]');
    await page.select('select[aria-label="How far it is"]', 'approved');
    await until(async () =>
      expect((await studio.must('Pim', 'GET', `/approvals?kind=layout&id=${layout}`)).body).toMatchObject({
        ...{ state: 'approved', by: 'A Tove' },
      }),
    );
    await studio.must('owner', 'PUT', `/projects/${project}/approval`, { demands: true });
    const wish = {
      ...{
        layouts: [layout],
        pdf: false,
        png: false,
        svg: true,
        ppi: 96,
        bleed: false,
        marks: false,
        register: false,
      },
      ...{ patterns: false, palettes: false, spec: false },
    };
    const parcel = () => studio.ask('owner', 'POST', `/projects/${project}/parcels`, wish);
    expect((await parcel()).status).toBe(200);
    const { version } = await stored();
    await studio.must('owner', 'POST', `/layouts/${layout}/changes`, {
      base: version,
      changes: [{ do: 'patch-shape', id: 'Lefttalk', fields: { rotation: 5 } }],
    });
    expect((await parcel()).body.message).toMatch(
      /only what is approved\. Not approved as it is now: “Sign”/,
    );
    await until(async () =>
      expect(
        await page.$eval('select[aria-label="How far it is"]', (one) => (one as HTMLSelectElement).value),
      ).toBe('working'),
    );
    const { body } = await studio.must('owner', 'GET', '/activity');
    const kinds = (body as unknown as { kind: string; what: string }[]).map(
      ({ kind, what }) => `${kind} ${what}`,
    );
    expect(kinds).toContain('approval.approved Sign');
    await studio.must('owner', 'PUT', `/projects/${project}/approval`, { demands: false });
  });
});

describe('history', () => {
  it('shows earlier states beside or under a slider, takes single shapes back, and restores all as a step', async () => {
    const page = await windowOf('owner');
    await press(page, 'History');
    await press(page, 'Name this state …');
    await page.waitForSelector('dialog[open]');
    await page.keyboard.type('Before the client came');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.body.textContent?.includes('Before the client came'));
    await enter(page, 'Place across of Left', '10');
    await saved(page);
    await enter(page, 'Place across of Right', '200');
    await saved(page);
    const states = async () =>
      (await studio.must('owner', 'GET', `/layouts/${layout}/states`)).body as unknown as LayoutState[];
    const named = (await states()).find(({ name }) => name === 'Before the client came');
    expect(named).toMatchObject({ by: 'Mara Quill' });
    await until(async () =>
      expect((await texts(page, 'ol[aria-label="States"] > li')).length).toBeGreaterThan(3),
    );
    await (await page.waitForSelector('xpath///button[contains(., "Before the client came")]'))?.click();
    await page.waitForSelector('.still');
    expect(await texts(page, 'ul[aria-label="What differs"] li')).toEqual([
      expect.stringMatching(/^“Left” one thing is another/),
      expect.stringMatching(/^“Right” one thing is another/),
    ]);
    await press(page, 'Slider', '[role="radio"]');
    await page.waitForSelector('input[aria-label="How much of the earlier state is seen"]');
    await press(page, 'Take “Left” back');
    await saved(page);
    expect((await stored()).shapes.map(({ x }) => x)).toEqual([40, 200]);
    await press(page, 'Restore all of it');
    await saved(page);
    expect((await stored()).shapes.map(({ x }) => x)).toEqual([40, 240]);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await saved(page);
    expect(await shown(page, 'Place across of Right')).toBe('200');
    // As it began there was nothing.
    const began = (await studio.must('owner', 'GET', `/layouts/${layout}/states/0`)).body as unknown as {
      layout: LayoutData;
    };
    expect(began.layout.shapes).toEqual([]);
  });
});

describe('what happened', () => {
  it('is listed with a project and with the library, and is taken back from there', async () => {
    const body = { name: 'Front', body: freshSheet('Sign') };
    const sheet = String(
      (await studio.must('owner', 'POST', `/projects/${project}/client-sheets`, body)).body.id,
    );
    await studio.must('owner', 'PUT', `/client-sheets/${sheet}/archived`, { archived: true });
    const page = await studio.windowOf(session.browser, 'Tove', `/projects/${project}`);
    await press(page, 'What happened …');
    const entries = () => texts(page, 'dialog ol.lines > li');
    await until(async () =>
      expect((await entries())[0]).toMatch(/^Mara Quill archived the client sheet Front Undo/),
    );
    expect(await seriousFaults(page)).toEqual([]);
    await press(page, 'Undo: archived the client sheet Front');
    await until(async () =>
      expect((await entries())[0]).toMatch(/A Tove brought back the client sheet Front Undo/),
    );
    expect((await entries())[1]).not.toContain('Undo');
    await page.keyboard.press('Escape');
    await until(async () =>
      expect((await texts(page, 'section[aria-labelledby="sheets"]'))[0]).toContain('Front'),
    );

    const made = await studio.must('owner', 'POST', '/patterns', { name: 'Kelp', recipe: PLAIN });
    const { id, version } = made.body as { id: string; version: number };
    await studio.must('owner', 'PATCH', `/patterns/${id}`, { base: version, name: 'Weed' });
    await studio.visit(page, '/library');
    await press(page, 'What happened …');
    await press(page, 'Undo: renamed “Kelp” to Weed');
    await until(async () => expect((await entries())[0]).toMatch(/renamed “Weed” to Kelp Undo/));
    expect((await studio.must('owner', 'GET', `/patterns/${id}`)).body.name).toBe('Kelp');
    // Somebody who looks only has the list and no Undo.
    const looking = await studio.windowOf(session.browser, 'Pim', `/projects/${project}`);
    await press(looking, 'What happened …');
    await until(async () =>
      expect((await texts(looking, 'dialog ol.lines > li'))[0]).toContain('brought back the client sheet'),
    );
    expect(await looking.$$('dialog ol.lines button')).toEqual([]);
  });
});
