import { patternFills } from '../../src/lib/core/recipe/layout';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type {
  FoundPatterns,
  PaletteData,
  ProjectSummary,
  ProjectDetail,
  SheetData,
} from '../../src/lib/contract/data';
import { getLayout, must } from '../support/api';
import type { HTTPRequest, Page } from 'puppeteer-core';
import {
  again,
  enter,
  named,
  openBrowser,
  press,
  saved,
  shown,
  still,
  visit,
  type Session,
} from '../support/browser';
import { seriousFaults } from '../support/axe';

let session: Session;
const paths: Record<string, string> = {};

beforeAll(async () => {
  session = await openBrowser();
  const {
    patterns: [pattern],
  } = await must<FoundPatterns>('GET', '/patterns?search=ring');
  const pictured = await must<FoundPatterns>('GET', '/patterns?search=pebble%20rosette');
  const projects = await must<ProjectSummary[]>('GET', '/projects');
  const project = await must<ProjectDetail>(
    'GET',
    `/projects/${projects.find((one) => one.name === 'Marrowby Lido')?.id}`,
  );
  const layout = project.layoutList.find((one) => one.name === 'Kiosk front');
  const mockups = await must<{ id: string; name: string }[]>('GET', `/projects/${project.id}/mock-ups`);
  const mockupNamed = (name: string): string => mockups.find((one) => one.name === name)!.id;
  const sheets = await must<SheetData[]>('GET', `/projects/${project.id}/client-sheets`);
  const { body } = await must<SheetData>('GET', `/client-sheets/${sheets[0]!.id}`);
  await must('PUT', `/client-sheets/${sheets[0]!.id}/shown`, {
    ...{ line: body.line, words: body.words },
    items: body.items.map(({ id, kind, width, caption }) => ({
      ...{ id, kind, width, caption, title: 'Something', facts: '', colours: [] },
    })),
  });
  const link = await must<{ token: string }>('POST', `/client-sheets/${sheets[0]!.id}/links`, {
    ...{ to: 'axe', days: 1 },
  });
  Object.assign(paths, {
    library: '/library',
    pattern: `/library/${pattern?.id}`,
    bench: `/library/${pattern?.id}/bench`,
    'from a picture': `/library/${pictured.patterns[0]?.id}/bench`,
    'new from a picture': '/library/new?start=picture',
    'new pattern': '/library/new',
    'measured pattern': '/library/new?start=measured',
    projects: '/projects',
    project: `/projects/${project.id}`,
    layout: `/projects/${project.id}/layouts/${layout?.id}`,
    'cut sheet': `/projects/${project.id}/layouts/${project.layoutList.find((one) => one.name === 'Kiosk cup')?.id}`,
    'mock-up': `/projects/${project.id}/mock-ups/${mockupNamed('Kiosk set')}`,
    'mock-up on a photograph': `/projects/${project.id}/mock-ups/${mockupNamed('Mug on a table')}`,
    'client sheet': `/projects/${project.id}/client-sheets/${sheets[0]?.id}`,
    'sheet at its link': `/s/${link.token}`,
    palettes: '/palettes',
    'library as a list': '/library?as=list&columns=kind.tags.collections.uses.licence',
    'pattern, colours': `/library/${pattern?.id}?tab=colours`,
    'pattern, uses': `/library/${pattern?.id}?tab=uses`,
    'pattern, code': `/library/${pattern?.id}?tab=code`,
    'pattern, revisions': `/library/${pattern?.id}?tab=revisions`,
    'pattern, comments': `/library/${pattern?.id}?tab=comments`,
    studio: '/studio',
    you: '/me',
    'not found': '/library/nothing',
  });
});
afterAll(() => session.close());

/** Chooses a row of the ledger, the first one where no number says which, and presses what is named so, one after the other. */
async function opened(page: Page, ...steps: (string | number)[]): Promise<void> {
  const row = steps.find((step) => typeof step === 'number') ?? 1;
  await page.click(`tbody tr:nth-child(${row}) .filled`);
  for (const step of steps) if (typeof step === 'string') await press(page, step);
}

/** Brings a picture to the bench as a motif: one of the demo's photographs. */
async function bringPicture(page: Page): Promise<void> {
  const input = await page.waitForSelector('input[aria-label="SVG file or picture for a motif"]');
  await (input as unknown as { uploadFile: (path: string) => Promise<void> }).uploadFile('photos/thrift.jpg');
}

describe('every view', () => {
  it.each([
    'from a picture',
    'new from a picture',
    'library',
    'pattern',
    'bench',
    'new pattern',
    'measured pattern',
    'projects',
    'project',
    'layout',
    'palettes',
    'not found',
    'library as a list',
    'pattern, colours',
    'pattern, uses',
    'pattern, revisions',
    'pattern, code',
    'pattern, comments',
    'studio',
    'you',
    'mock-up',
    'mock-up on a photograph',
    'client sheet',
    'sheet at its link',
  ])('%s has no serious fault for axe, and no error on the page', async (view) => {
    const { page, faults } = session;
    await visit(page, paths[view] ?? '');
    if (view === 'layout') await page.click('tbody tr:nth-child(2) .filled');
    expect(await seriousFaults(page)).toEqual([]);
    expect(faults).toEqual([]);
  });

  it.each<[string, (page: Page) => Promise<void>]>([
    [
      'the drawing board with a form chosen',
      async (page) => {
        await press(page, 'Draw on Ring');
        await page.waitForSelector('.board svg');
        await page.focus('.board');
        await page.keyboard.down('Control');
        await page.keyboard.press('a');
        await page.keyboard.up('Control');
        await named(page, 'Unite');
      },
    ],
    ['the scatter dialog', (page) => press(page, 'Scatter …')],
    ['the card that measures the screen', (page) => press(page, 'Measure this screen …')],
    [
      'a plane group with its symmetry',
      async (page) => {
        await press(page, 'Group');
        await page.evaluate(() =>
          [...document.querySelectorAll('label')]
            .find((label) => label.textContent?.trim() === 'Show its symmetry')
            ?.querySelector('input')
            ?.click(),
        );
        await page.waitForSelector('.centre');
        await press(page, 'Undo');
      },
    ],
    ['a chosen motif with its relief', (page) => press(page, 'Choose Ring')],
  ])('has no serious fault with %s', async (_what, prepare) => {
    const { page, faults } = session;
    await visit(page, paths.bench ?? '');
    await prepare(page);
    await still(page);
    expect(await seriousFaults(page)).toEqual([]);
    expect(faults).toEqual([]);
    await page.keyboard.press('Escape');
    await still(page);
  });

  it.each<[string, string, (page: Page) => Promise<void>]>([
    ['a chosen pattern', 'library', (page) => page.keyboard.press('ArrowRight')],
    [
      'many chosen patterns',
      'library',
      async (page) => {
        await page.keyboard.press('ArrowRight');
        await page.keyboard.down('Shift');
        await page.keyboard.press('ArrowDown');
        await page.keyboard.up('Shift');
      },
    ],
    ['the filter by colour', 'library', (page) => press(page, 'Like: any')],
    [
      'the collections',
      'library',
      async (page) => {
        await press(page, 'Collection: any');
        await press(page, 'Keep collections …');
      },
    ],
    ['the dialog that opens files', 'library', (page) => press(page, 'Open files')],
    ['the dialog that hands out', 'library', (page) => press(page, 'Hand out all …')],
    [
      'an area of a pattern as a picture',
      'pattern',
      async (page) => {
        await press(page, 'Hand out …');
        await press(page, 'Picture', 'label');
        await page.waitForFunction(() => document.querySelector('dialog')?.textContent?.includes('Comes to'));
      },
    ],
    [
      'a subject that is cut out',
      'new pattern',
      async (page) => {
        await bringPicture(page);
        await press(page, 'Cut out …');
        await page.waitForSelector('.channels [aria-checked="true"]');
      },
    ],
    [
      'a picture that is traced',
      'new pattern',
      async (page) => {
        await bringPicture(page);
        await press(page, 'Trace …');
        await page.waitForSelector('[data-differs] strong');
      },
    ],
    [
      'a new layout for an object',
      'project',
      async (page) => {
        await press(page, 'New layout');
        await page.select('#preset', 'object box');
        await page.waitForSelector('dialog figure path');
      },
    ],
    ['a new mock-up', 'project', (page) => press(page, 'New mock-up')],
    ['layouts as PDF', 'project', (page) => press(page, 'Save as PDF …')],
    ['what else stands in a mock-up', 'mock-up', (page) => press(page, 'Put an object there')],
    ['views of a mock-up', 'mock-up', (page) => press(page, 'Kept views')],
    [
      'a picture of a mock-up',
      'mock-up',
      async (page) => {
        await page.waitForSelector('canvas[data-drawn]');
        await press(page, 'Picture');
      },
    ],
    ['what lies in front on a photograph', 'mock-up on a photograph', (page) => press(page, 'in front')],
    ['showing a client sheet', 'client sheet', (page) => press(page, 'Show to a client')],
    [
      'an export as PDF',
      'layout',
      async (page) => {
        await press(page, 'Export');
        await press(page, 'PDF for print');
      },
    ],
    ['pages of a client sheet', 'client sheet', (page) => press(page, 'Save pages')],
    [
      'a layout on its object',
      'cut sheet',
      async (page) => {
        await press(page, 'On the cup');
        await page.waitForSelector('canvas[data-drawn]');
      },
    ],
    ['what was said', 'library', (page) => press(page, 'What was said')],
    ['a new colourway', 'pattern, colours', (page) => press(page, 'New', 'button')],
    ['replacing everywhere', 'pattern, uses', (page) => press(page, 'Replace everywhere …')],
    [
      'a gradient over the motifs',
      'layout',
      (page) => opened(page, 'Gradient over motifs: none', 'Add a gradient'),
    ],
    ['a soft mask by gradient', 'layout', (page) => opened(page, 'Soft mask: none', 'Gradient')],
    ['the mask brush', 'layout', (page) => opened(page, 'Soft mask: none', 'Paint', 2)],
    [
      'the points of an outline',
      'layout',
      async (page) => {
        await opened(page, 2);
        await page.focus('.stage');
        await page.keyboard.press('Enter');
        await page.waitForSelector('[data-node]');
      },
    ],
    ['the fills of a shape as rows', 'layout', (page) => page.click('.ledger [aria-expanded="false"].more')],
    ['another fill laid over', 'layout', (page) => opened(page, 'Lay another fill over it')],
    ['a transformation by numbers', 'layout', (page) => opened(page, 'Transform by numbers')],
    ['arranging', 'layout', (page) => opened(page, 'Arrange')],
    ['a strike-off', 'layout', (page) => opened(page, 'try out …')],
    ['the anchor of a pattern', 'layout', (page) => opened(page, 'Offset from the shape')],
    ['the page’s settings', 'layout', (page) => press(page, 'Page settings')],
    ['two states side by side', 'layout', (page) => press(page, 'Compare side by side')],
    [
      'text to be set',
      'layout',
      async (page) => {
        await press(page, 'Set text');
        await page.mouse.click(760, 300);
      },
    ],
    [
      'the limits of a proof',
      'layout',
      async (page) => {
        await (await page.waitForSelector('header button:has(.notes)'))!.click();
        await press(page, 'Limits of the proof');
      },
    ],
    [
      'the plates of a layout, and its press',
      'layout',
      async (page) => {
        await press(page, 'Plates');
        await page.waitForSelector('.panel [role="status"]');
        await press(page, 'The press');
      },
    ],
    ['what is said about it', 'layout', (page) => press(page, 'Comments')],
    ['its history', 'layout', (page) => press(page, 'History')],
    ['the proof of a project', 'project', (page) => press(page, 'Proof …')],
    ['a project to be handed over', 'project', (page) => press(page, 'Hand over …')],
    ['palettes exchanged', 'layout', (page) => press(page, 'Exchange palettes …')],
    ['a colour of the palette chosen', 'palettes', (page) => page.click('.entry')],
    ['colours from a scheme', 'palettes', (page) => press(page, 'Scheme …')],
    ['colours from a picture', 'palettes', (page) => press(page, 'Picture …')],
    ['colours from patterns in use', 'palettes', (page) => press(page, 'Patterns in use …')],
  ])('has no serious fault with %s', async (_what, view, prepare) => {
    const { page, faults } = session;
    await visit(page, paths[view] ?? '');
    await prepare(page);
    await still(page);
    expect(await seriousFaults(page)).toEqual([]);
    expect(faults).toEqual([]);
    await page.keyboard.press('Escape');
  });

  it.each([
    [1024, 700],
    [1920, 1080],
  ])('fits a window of %d × %d without scrolling sideways', async (width, height) => {
    const { page } = session;
    await page.setViewport({ width, height });
    for (const view of ['library', 'pattern', 'bench', 'projects', 'layout', 'palettes']) {
      await visit(page, paths[view] ?? '');
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth), view).toBe(
        true,
      );
    }
    await page.setViewport({ width: 1280, height: 800 });
  });
});

describe('a designer who types nonsense', () => {
  it('reads a sentence under the field, and the value stays', async () => {
    const { page } = session;
    await visit(page, paths.layout ?? '');
    await page.click('tbody tr:nth-child(1) .filled');
    const before = await shown(page, 'Scale');
    for (const [text, sentence] of [
      ['wide', /not a number/],
      ['0', /at least 0.1 %; 0 % was given/],
      ['1e9', /at most 100000 %|not a number/],
    ] as const) {
      await enter(page, 'Scale', text);
      const alert = await page.waitForSelector('.field [role="alert"]');
      expect(await alert?.evaluate((element) => element.textContent)).toMatch(sentence);
      await page.keyboard.press('Escape');
      expect(await shown(page, 'Scale')).toBe(before);
    }
  });

  it('loses nothing when the server is away, and is told', async () => {
    const { page } = session;
    await visit(page, paths.layout ?? '');
    await page.click('tbody tr:nth-child(1) .filled');
    const before = await shown(page, 'Rotation');
    await page.setOfflineMode(true);
    await enter(page, 'Rotation', '33');
    await page.waitForFunction(() =>
      document.querySelector('[role="status"]')?.textContent?.startsWith('Kept in this browser'),
    );
    expect(await shown(page, 'Rotation')).toBe('33');
    await page.setOfflineMode(false);
    await saved(page);
    await again(page);
    expect(await shown(page, 'Rotation')).toBe('33');
    await enter(page, 'Rotation', before);
    await saved(page);
  });

  it('brings its own work together with what somebody else saved first', async () => {
    const { page } = session;
    await visit(page, paths.layout ?? '');
    const id = (paths.layout ?? '').split('/')[4] ?? '';
    const { layout } = await getLayout(id);
    await must('POST', `/layouts/${id}/changes`, {
      base: layout.version,
      changes: [{ do: 'page', ppi: 123 }],
    });
    await page.click('tbody tr:nth-child(1) .filled');
    await enter(page, 'Rotation', '-31');
    await saved(page);
    expect(await shown(page, 'Rotation')).toBe('-31');
    const after = (await getLayout(id)).layout;
    expect(after.ppi).toBe(123);
    const turned = after.shapes.find((shape) => shape.name === 'Counter skirt');
    expect(turned && patternFills(turned)[0]?.rotation).toBe(-31);
  });
});

describe('live changes', () => {
  it('do not drop a link that was pressed while one comes in', async () => {
    const { page } = session;
    await visit(page, '/palettes');
    const [palette] = await must<PaletteData[]>('GET', '/palettes');
    // The page that was asked for takes its time; meanwhile somebody else changes a palette.
    await page.setRequestInterception(true);
    const slowly = (request: HTTPRequest): void => {
      const wait = request.url().includes('/projects/__data.json') ? 1500 : 0;
      setTimeout(() => void request.continue(), wait);
    };
    page.on('request', slowly);
    await press(page, 'Projects', 'nav a');
    await must('PUT', `/palettes/${palette?.id}`, {
      base: palette?.version,
      name: palette?.name,
      colours: palette?.colours,
    });
    await page.waitForFunction(() => location.pathname === '/projects', { timeout: 8000 });
    page.off('request', slowly);
    await page.setRequestInterception(false);
  });
});

describe('archiving', () => {
  it('takes a pattern off the wall and undo brings it back', async () => {
    const { page } = session;
    await visit(page, paths.pattern ?? '');
    await press(page, 'Archive');
    await page.waitForFunction(() => location.pathname === '/library');
    await page.waitForFunction(
      () =>
        ![...document.querySelectorAll('.hanger strong')].some((name) => name.textContent === 'Ring Toss'),
    );
    await press(page, 'Undo');
    await page.waitForFunction((path) => location.pathname === path, {}, paths.pattern ?? '');
    await visit(page, '/library?search=ring%20t');
    await page.waitForFunction(() =>
      [...document.querySelectorAll('.hanger strong')].some((name) => name.textContent === 'Ring Toss'),
    );
  });
});
