import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import type { LayoutNotes, ProjectDetail } from '../../src/lib/contract/data';
import { toPx } from '../../src/lib/core/num/length';
import { colourFill, coveringPicture, freshFill, type Fill } from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { getLayout, layoutWith, must, publishedPattern, unique } from '../support/api';
import { enter, named, openBrowser, press, saved, visit, type Session } from '../support/browser';
import { pictureAsset } from '../support/pictures';
import { block, dot, place, recipe } from '../support/recipes';
import { until } from '../support/until';

let session: Session;
let page: Session['page'];
beforeAll(async () => {
  session = await openBrowser();
  ({ page } = session);
});
afterAll(() => session.close());

const mm = (length: number): number => toPx(length, 'mm');
const project = (path: string): string => path.split('/')[2]!;
const box = (id: string, x: number, y: number, fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id, name: id, form: { kind: 'rectangle', radius: 0 }, x, y, width: 120, height: 100, fills },
    ...over,
  });
const plain = (colour: string): Fill => colourFill('c', { colour });

/** A layout of ten faults, and the sentences that a proof finds for them. */
async function planted(): Promise<{ id: string; path: string }> {
  const slots = [
    { id: 'ink', name: 'Ink', colour: '#102030' as const },
    { id: 'paper', name: 'Paper', colour: '#ffffff' as const },
  ];
  const ground = { kind: 'slot', slot: 'paper' } as const;
  const lines = await publishedPattern(
    recipe({ slots, ground, motifs: [block('b', 80, 0.4)], placings: [place('b', 50, 50)] }),
    unique('Fine lines'),
  );
  const dots = await publishedPattern(
    recipe({ slots, ground, motifs: [dot('d', 60)], placings: [place('d', 50, 50)] }),
    unique('Dots'),
  );
  const second = await must<{ version: number }>('GET', `/patterns/${dots}`);
  await must('PUT', `/patterns/${dots}/draft`, {
    base: second.version,
    recipe: recipe({ slots, ground, motifs: [dot('d', 64)], placings: [place('d', 50, 50)] }),
  });
  const third = await must<{ version: number }>('GET', `/patterns/${dots}`);
  await must('POST', `/patterns/${dots}/revisions`, { base: third.version });
  const credited = await must<{ version: number }>('GET', `/patterns/${lines}`);
  await must('PATCH', `/patterns/${lines}`, {
    ...{ base: credited.version },
    credit: { author: 'Oona Pell', source: '', licence: 'CC-BY-4.0', attribution: true },
  });
  const photo = await pictureAsset(60, 50, (x, y) => [x * 4, y * 4, 90, 255]);
  const use = (over: Partial<ReturnType<typeof freshFill>> = {}): Fill => ({
    ...freshFill('f', dots),
    ...over,
  });
  const made = await layoutWith(
    [
      box('At the cut', 0, 50, [plain('#204060')]),
      box('In the margin', mm(1), 300, [plain('#204060')]),
      box('Coarse', 200, 50, [coveringPicture('p', photo, { width: 120, height: 100 })]),
      box('Fine', 400, 50, [{ ...freshFill('f', lines), scaleX: 0.5, scaleY: 0.5 }]),
      box('Held', 600, 50, [use({ held: 1 })]),
      box('Faint', 200, 300, [use({ colours: { ink: { colour: '#cccccc' } } })]),
      box('Empty', 400, 300, []),
      box('Hidden', 600, 300, [plain('#204060')], { hidden: true }),
      box('Words', 400, 450, [plain('#999999')], {
        form: {
          ...{ kind: 'text', d: 'M0 0H120V100H0Z', width: 120, height: 100, text: 'Open' },
          ...{ font: 'bitter-700', size: 40, align: 'start' },
        },
      }),
    ],
    { width: 800, height: 600, background: '#ffffff' },
  );
  const { layout } = await getLayout(made.id);
  await must('POST', `/layouts/${made.id}/changes`, {
    ...{ base: layout.version, changes: [{ do: 'page', margin: mm(5) }] },
  });
  return made;
}

/** What the panel says: each note's sentence, figure and mend. */
const notes = (): Promise<{ says: string; figure: string; mend: string }[]> =>
  page.$$eval('aside[aria-label="Proof"] li', (rows) =>
    rows.map((row) => {
      const part = (name: string): string =>
        (row.querySelector(name)?.textContent ?? '').replaceAll('\u00a0', ' ').replace(/ {2,}/g, ' ').trim();
      return { says: part('.says'), figure: part('.figure'), mend: part('.mend') };
    }),
  );
const sentences = async (): Promise<string> => (await notes()).map(({ says }) => says).join('\n');

/** What is planted, as it is said: its sentence, its figure, and what mends it. Names of patterns are told from others by a number. */
const PLANTED = [
  ['A picture is coarse at this size: it has fewer than 150 ppi.', '48 ppi', ''],
  ['“Fine lines” has parts thinner than 0.25 pt at this scale.', '0.15 pt', 'Enlarge by 66.7 %'],
  [
    'The page has no bleed, and one shape reaches its edge: a cut that is a little off shows paper.',
    '0 of 3 mm',
    'Give it 3 mm',
  ],
  ['Reaches the edge of the page, but not 3 mm beyond it.', '3 mm short', 'Carry it on'],
  ['Text is hard to read on what lies below.', '2.85 : 1', 'Make it black'],
  ['“Dots” is held at revision 1; the newest is 2.', '1 behind', 'Follow the newest'],
  ['Lies beyond the safe margin: it may come too near to the cut.', '1 of 5 mm', 'Move it in'],
  ['Ink of “Dots” hardly stands off its ground.', '1.61 : 1', ''],
  ['A credit is due and not on the page: Fine lines: Oona Pell, CC-BY-4.0.', '', 'Write it on the page'],
  ['Hidden shapes have fills: they are neither drawn nor handed over.', '', 'Take them away'],
  ['Shapes without a fill draw nothing.', '', 'Take them away'],
];
const numberless = (says: string): string => says.replace(/(Fine lines|Dots) [a-z0-9]+/g, '$1');

describe('a proof beside the layout', () => {
  it('finds the planted faults; each is mended in a step or reached by its link', async () => {
    const { id, path } = await planted();
    await visit(page, path);
    await until(async () =>
      expect(await page.$eval('button .notes', (one) => one.textContent)).toBe(
        `${PLANTED.length}\u00a0notes`,
      ),
    );
    await (await page.waitForSelector('header button:has(.notes)'))!.click();
    await page.waitForSelector('aside[aria-label="Proof"] li');
    const found = (await notes()).map(({ says, figure, mend }) => [numberless(says), figure, mend]);
    expect([...found].sort()).toEqual([...PLANTED].sort());

    // Pressed, a note takes one to its shape and its fill.
    await page.$$eval('aside[aria-label="Proof"] .go', (rows) =>
      (rows.find((row) => row.textContent?.includes('picture is coarse')) as HTMLElement).click(),
    );
    await until(async () =>
      expect(
        await page.$$eval('.ledger tr[aria-selected="true"]', (rows) => rows.map((row) => row.textContent)),
      ).toEqual([expect.stringContaining('Coarse') as string]),
    );

    const mends = PLANTED.filter(([, , mend]) => mend !== '').length;
    for (let left = PLANTED.length; left > PLANTED.length - mends; left -= 1) {
      await page.click('aside[aria-label="Proof"] .mend');
      await until(async () => expect(await notes()).toHaveLength(left - 1));
    }
    expect(numberless(await sentences())).toBe([PLANTED[0]![0], PLANTED[7]![0]].join('\n'));
    await saved(page);
    const { layout } = await getLayout(id);
    expect(layout.bleed).toBeCloseTo(mm(3), 6);
    expect(layout.shapes.map(({ name }) => name)).not.toContain('Hidden');
    expect(
      layout.shapes.find(({ form }) => form.kind === 'text' && form.text.includes('Oona Pell')),
    ).toBeDefined();
    // Each was one step: all of them are taken back.
    for (let step = 0; step < mends; step += 1) await press(page, 'Undo');
    await until(async () => expect(await notes()).toHaveLength(PLANTED.length));
  });

  it('goes by limits that belong to the project: they are kept, and followed where the layout is open elsewhere', async () => {
    const { path } = await planted();
    await visit(page, `${path}?proof`);
    await until(async () => expect(await sentences()).toContain('Text is hard to read'));
    const other = await session.browser.newPage();
    await visit(other, `${path}?proof`);
    await page.bringToFront();
    await press(page, 'Limits of the proof');
    await enter(page, 'Contrast of text', 'none');
    await until(async () =>
      expect(await page.$eval('.problem[role="alert"]', (one) => one.textContent)).toContain('not a number'),
    );
    await enter(page, 'Contrast of text', '2.5');
    await until(async () => expect(await sentences()).not.toContain('Text is hard to read'));
    await until(async () => {
      const { proof } = await must<ProjectDetail>('GET', `/projects/${project(path)}`);
      expect([proof.medium, proof.print.text, proof.screen.text]).toEqual(['print', 2.5, 4.5]);
    });
    await other.bringToFront();
    await until(async () =>
      expect(await other.$eval('aside[aria-label="Proof"]', (one) => one.textContent)).not.toContain(
        'hard to read',
      ),
    );
    await (
      await named(other, 'What the layouts of the project are for')
    ).evaluate((select) => {
      (select as HTMLSelectElement).value = 'screen';
      select.dispatchEvent(new Event('change', { bubbles: true }));
    });
    // A screen needs no bleed, and shows thin lines and text by its own limits.
    await until(async () => {
      const said = await other.$eval('aside[aria-label="Proof"]', (one) => one.textContent);
      expect(said).not.toContain('bleed');
      expect(said).toContain('hard to read');
    });
    await other.close();
  });

  it('is said for all layouts of a project, each note a link to where it is', async () => {
    const { path } = await planted();
    const { layouts } = await must<{ layouts: LayoutNotes[] }>('GET', `/projects/${project(path)}/proof`);
    expect(layouts.map(({ notes: all }) => all.length)).toEqual([PLANTED.length]);
    await visit(page, `/projects/${project(path)}`);
    await press(page, 'Proof …');
    const link = await page.waitForSelector('dialog li a');
    await link!.click();
    await page.waitForFunction(() => location.search.includes('proof'));
    await until(async () => expect(await notes()).toHaveLength(PLANTED.length));
    await until(async () => expect(await page.$$('.ledger tr[aria-selected="true"]')).toHaveLength(1));
  });

  it('refuses limits beyond their range with a sentence, and keeps what was', async () => {
    const { path } = await planted();
    const { version, proof } = await must<ProjectDetail>('GET', `/projects/${project(path)}`);
    const answer = await fetch(`${inject('address')}/api/v1/projects/${project(path)}`, {
      ...{ method: 'PATCH', headers: { 'content-type': 'application/json' } },
      body: JSON.stringify({ base: version, proof: { ...proof, print: { ...proof.print, bleed: 5000 } } }),
    });
    expect(answer.status).toBe(400);
    expect(JSON.stringify(await answer.json())).toContain('bleed');
    expect((await must<ProjectDetail>('GET', `/projects/${project(path)}`)).proof).toEqual(proof);
  });
});
