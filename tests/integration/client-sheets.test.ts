import { describe, expect, it, vi } from 'vitest';
import type { Failure, Outcome } from '../../src/lib/contract/failure';
import { freshMockup, freshStanding, type Mockup } from '../../src/lib/core/mockup/mockup';
import { freshSheet, SHEET_LIMITS, type ShownSheet } from '../../src/lib/core/sheet/client-sheet';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import {
  createSheet,
  getSheet,
  keepSheetPicture,
  listSheets,
  readAnswers,
  saveSheet,
  setSheetArchived,
  showSheet,
} from '../../src/lib/server/repo/client-sheets';
import { createLayout } from '../../src/lib/server/repo/layouts';
import {
  copyMockup,
  createMockup,
  getMockup,
  getStill,
  keepStill,
  listMockups,
  saveMockup,
  setMockupArchived,
} from '../../src/lib/server/repo/mockups';
import { createProject } from '../../src/lib/server/repo/projects';
import {
  answerShared,
  endLink,
  getShared,
  makeLink,
  sharedPicture,
} from '../../src/lib/server/repo/shared-sheets';
import { inColourway } from '../../src/lib/core/mockup/colourway';
import { freshFill } from '../../src/lib/core/recipe/fill';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { lookOver } from '../../src/lib/server/work/look-over';
import { StepOrder } from '../../src/lib/ui/mockup/step-order';

function need<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.failure.message);
  return outcome.value;
}
function refused(outcome: Outcome<unknown>): Failure {
  if (outcome.ok) throw new Error('It was taken.');
  return outcome.failure;
}
const cups = (layout: string | null, over: Partial<Mockup> = {}): Mockup => ({
  ...freshMockup([{ ...freshStanding('a', 'cup'), layout }]),
  ...over,
});

describe('mock-ups', () => {
  const begun = (): { db: Db; project: string; layout: string } => {
    const db = openDatabase(':memory:');
    const project = need(createProject(db, 'Lido')).id;
    const page = { name: 'Page', width: 100, height: 100, measure: 'px' as const };
    return { db, project, layout: need(createLayout(db, project, page)).id };
  };

  it('are kept with what stands in them, saved from a version, doubled with their picture, archived', () => {
    const { db, project, layout } = begun();
    const { id } = need(createMockup(db, project, { name: 'Cups', body: cups(layout) }));
    expect(need(getMockup(db, id)).body).toEqual(cups(layout));
    expect(refused(getStill(db, id)).message).toContain('no picture of this mock-up yet');
    const still = { bytes: Buffer.from('x'), mediaType: 'image/webp', width: 4, height: 3 };
    need(keepStill(db, id, still));
    expect(need(saveMockup(db, id, { base: 1, name: 'Two cups', body: cups(null) }))).toEqual({ version: 2 });
    const stale = refused(saveMockup(db, id, { base: 1, name: 'Late', body: cups(null) }));
    expect([stale.code, (stale.current as { name: string }).name]).toEqual(['stale', 'Two cups']);
    const copy = need(copyMockup(db, id, 'Again')).id;
    expect(need(getStill(db, copy)).bytes.toString()).toBe('x');
    expect(refused(copyMockup(db, id, 'again')).code).toBe('name_taken');
    need(setMockupArchived(db, id, true));
    expect(listMockups(db, project).map(({ name }) => name)).toEqual(['Again']);
  });

  it('are named where what is stored of them is damaged, and left as they are', () => {
    const { db, project, layout } = begun();
    const { id } = need(createMockup(db, project, { name: 'Cups', body: cups(layout) }));
    const sheet = need(createSheet(db, project, { name: 'Board', body: freshSheet('') })).id;
    db.$client.prepare('UPDATE mockup SET body = \'{"kind":"objects","objects":[{}]}\' WHERE id = ?').run(id);
    db.$client.prepare("UPDATE client_sheet SET body = 'x' WHERE id = ?").run(sheet);
    expect(refused(getMockup(db, id)).message).toContain('“Cups” is damaged');
    expect(refused(getSheet(db, sheet)).message).toContain('“Board” is damaged');
    const { problems, counts } = lookOver(db);
    expect(problems.filter((one) => one.includes('damaged'))).toHaveLength(2);
    expect(counts.find(({ what }) => what === 'mock-ups')).toEqual({ what: 'mock-ups', readable: 0, all: 1 });
    expect([listMockups(db, project).length, listSheets(db, project).length]).toEqual([1, 0]);
  });

  it('refuse what cannot stand there, each with a sentence', () => {
    const { db, project, layout } = begun();
    const other = need(createProject(db, 'Ferry')).id;
    const make = (body: Mockup, where = project): string =>
      refused(createMockup(db, where, { name: 'No', body })).message;
    expect(make(cups(layout), other)).toContain('not in this project');
    expect(make(cups('gone'))).toContain('not in this project');
    const flat = { ...freshStanding('a', 'cup'), object: { kind: 'cup' as const, numbers: { top: 0 } } };
    expect(make(freshMockup([flat]))).toContain('Top ⌀ lies between');
    expect(make(freshMockup([freshStanding('a', 'cup'), freshStanding('a', 'mug')]))).toContain('same id');
    expect(listMockups(db, project)).toEqual([]);
  });

  it('show a colourway on the patterns that have it, and leave all others as they are', () => {
    const fills = [
      { ...freshFill('1', 'has'), colours: { ink: { colour: '#ff0000' as const } } },
      freshFill('2', 'not'),
    ];
    const shape = freshShape({
      ...{
        id: 's',
        name: 'S',
        form: { kind: 'rectangle', radius: 0 },
        x: 0,
        y: 0,
        width: 1,
        height: 1,
        fills,
      },
    });
    const [shown] = inColourway([shape], 'way', (pattern) => pattern === 'has');
    expect(shown!.fills).toEqual([{ ...fills[0], colourway: 'way', colours: {} }, fills[1]]);
  });
});

describe('several histories as one', () => {
  it('are undone in the order in which they were stepped, and redone', () => {
    const make = () => ({
      depth: 0,
      undo() {
        this.depth -= 1;
      },
      redo() {
        this.depth += 1;
      },
    });
    const [scene, layout] = [make(), make()];
    const order = new StepOrder();
    const step = (one: typeof scene): void => {
      one.depth += 1;
      order.see([scene, layout]);
    };
    const counts = (): number[] => [scene.depth, layout.depth];
    [scene, layout, layout, scene].forEach(step);
    const seen: number[][] = [];
    for (let at = 0; at < 3; at += 1) {
      order.undo();
      order.see([scene, layout]);
      seen.push(counts());
    }
    expect(seen).toEqual([
      [1, 2],
      [1, 1],
      [1, 0],
    ]);
    order.redo();
    order.see([scene, layout]);
    expect(counts()).toEqual([1, 1]);
    step(scene);
    order.redo();
    expect(counts()).toEqual([2, 1]);
  });
});

describe('a client sheet', () => {
  const shown: ShownSheet = {
    ...{ line: 'For you', words: '' },
    items: [
      { id: 'one', kind: 'mock-up', title: 'Cup', facts: '', caption: '', width: 'half', colours: [] },
      { id: 'two', kind: 'note', title: '', facts: '', caption: 'Hello', width: 'half', colours: [] },
    ],
  };
  const begun = (): { db: Db; sheet: string; project: string } => {
    const db = openDatabase(':memory:');
    const project = need(createProject(db, 'Lido')).id;
    const items = shown.items.map(({ id, kind, width, caption }) => ({ id, kind, width, caption, of: '' }));
    const body = { ...freshSheet('For you'), items };
    return { db, project, sheet: need(createSheet(db, project, { name: 'Board', body })).id };
  };

  it('is shown by a link with what it was then, and its choices and words come back', () => {
    const { db, sheet, project } = begun();
    expect(refused(makeLink(db, sheet, { to: 'Board', days: 3 })).message).toContain('pictures made first');
    need(keepSheetPicture(db, sheet, 'one', { bytes: Buffer.from('png'), mediaType: 'image/png' }));
    expect(
      refused(keepSheetPicture(db, sheet, 'none', { bytes: Buffer.from('x'), mediaType: 'image/png' })).code,
    ).toBe('not_found');
    need(showSheet(db, sheet, shown));
    const { token } = need(makeLink(db, sheet, { to: 'Board', days: 3 }));
    expect(token).toMatch(/^[\w-]{32}$/);
    // What is changed afterwards is not seen there before it is shown anew.
    need(saveSheet(db, sheet, { base: 1, name: 'Board', body: freshSheet('Changed') }));
    expect(need(getShared(db, token)).shown.line).toBe('For you');
    expect(need(sharedPicture(db, token, 'one')).bytes.toString()).toBe('png');

    need(answerShared(db, token, { item: 'one', who: 'Ada', choice: 'this' }));
    need(answerShared(db, token, { item: 'one', who: 'Ada', choice: 'not' }));
    const words = '<script>alert(1)</script> & “so”';
    const after = need(answerShared(db, token, { item: 'two', who: '', words }));
    expect(after.answers.map(({ choice, words: said }) => [choice, said])).toEqual([
      ['not', ''],
      [null, words],
    ]);
    const back = need(getSheet(db, sheet));
    expect([back.unread, back.answers.length, back.answers[0]!.to]).toEqual([2, 2, 'Board']);
    need(answerShared(db, token, { item: 'one', who: 'Ada', choice: null }));
    need(readAnswers(db, sheet));
    expect(listSheets(db, project)[0]).toMatchObject({ unread: 0, name: 'Board' });
    // Shown anew without it, its picture is gone.
    need(showSheet(db, sheet, { ...shown, items: [shown.items[1]!] }));
    expect(refused(sharedPicture(db, token, 'one')).code).toBe('not_found');
    expect(refused(answerShared(db, token, { item: 'one', who: '', choice: 'this' })).message).toContain(
      'not on the sheet any more',
    );
  });

  it('tells nothing at a link that has ended, was archived or guessed, and tells these apart for nobody', () => {
    const { db, sheet } = begun();
    need(showSheet(db, sheet, shown));
    const { token } = need(makeLink(db, sheet, { to: '', days: 2 }));
    const guessed = refused(getShared(db, 'A'.repeat(32)));
    need(setSheetArchived(db, sheet, true));
    expect(refused(getShared(db, token))).toEqual(guessed);
    need(setSheetArchived(db, sheet, false));
    expect(need(getShared(db, token)).shown.line).toBe('For you');
    vi.useFakeTimers({ now: Date.now() + 2 * 86_400_000 + 1000 });
    try {
      expect(refused(getShared(db, token))).toEqual(guessed);
      expect(refused(answerShared(db, token, { item: 'one', who: '', words: 'late' }))).toEqual(guessed);
    } finally {
      vi.useRealTimers();
    }
    need(endLink(db, sheet, token));
    expect(refused(sharedPicture(db, token, 'one'))).toEqual(guessed);
    expect(refused(endLink(db, sheet, token)).message).toContain('ended already');
  });

  it('takes so many answers at a link and no more, and so many links', () => {
    const { db, sheet } = begun();
    need(showSheet(db, sheet, shown));
    const { token } = need(makeLink(db, sheet, { to: '', days: 2 }));
    for (let at = 0; at < SHEET_LIMITS.answers; at += 1)
      need(answerShared(db, token, { item: 'one', who: '', words: `word ${at}` }));
    expect(refused(answerShared(db, token, { item: 'one', who: '', words: 'one more' })).message).toContain(
      '500',
    );
    expect(need(getSheet(db, sheet)).answers).toHaveLength(SHEET_LIMITS.answers);
    for (let at = 1; at < SHEET_LIMITS.links; at += 1) need(makeLink(db, sheet, { to: `${at}`, days: 1 }));
    expect(refused(makeLink(db, sheet, { to: '', days: 1 })).message).toContain('at most 50 links');
  });
});
