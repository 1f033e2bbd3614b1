import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PersonData, Role } from '../../src/lib/contract/people';
import type { ActivityAsked } from '../../src/lib/contract/given-people';
import type { ActivityItem } from '../../src/lib/contract/talk';
import { freshSheet } from '../../src/lib/core/sheet/client-sheet';
import { askedBy, openDatabase, type Db } from '../../src/lib/server/db/open';
import { projectPeople, setProjectPeople } from '../../src/lib/server/repo/access';
import { listActivity } from '../../src/lib/server/repo/activity';
import { approvalOf, setApproval } from '../../src/lib/server/repo/approvals';
import { replaceEverywhere, undoBulk } from '../../src/lib/server/repo/bulk';
import { createSheet, setSheetArchived } from '../../src/lib/server/repo/client-sheets';
import { addComment, listComments, setDone } from '../../src/lib/server/repo/comments';
import { listStates, nameState } from '../../src/lib/server/repo/layout-states';
import { getLayout, setLayoutArchived } from '../../src/lib/server/repo/layouts';
import { createPalette, setPaletteArchived } from '../../src/lib/server/repo/palettes';
import { patchPattern, saveDraft, setPatternArchived } from '../../src/lib/server/repo/patterns';
import { addPerson, changePerson, getPerson, openStudio } from '../../src/lib/server/repo/people';
import { setProjectArchived } from '../../src/lib/server/repo/projects';
import { publish } from '../../src/lib/server/repo/publishing';
import { takeBack } from '../../src/lib/server/repo/taking-back';
import { block, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';
import { kept, laidOut, need, patternOf, PLAIN, projectNamed, sentence } from '../support/studio';

/** The list of what happened, and what is taken back from it. */
let db: Db;
let designer: PersonData;
let owner: PersonData;
beforeEach(() => {
  const store = openDatabase(':memory:');
  const { id } = need(
    openStudio(store, { studio: 'Pier', name: 'Mara', email: 'mara@pier.example', password: 'hash' }),
  );
  owner = getPerson(store, id)!;
  designer = somebody(store, 'tove', 'designer');
  db = askedBy(store, designer.id);
});
afterEach(() => void db.$client.close());
const somebody = (store: Db, name: string, role: Role): PersonData =>
  getPerson(store, addPerson(store, { name, role, email: `${name}@x.example`, password: 'hash' }))!;
const told = (asked: ActivityAsked = {}, person = designer): ActivityItem[] =>
  need(listActivity(db, person, asked));
/** The latest event of a kind. */
const latest = (kind: string, person = designer): ActivityItem =>
  told({}, person).find((one) => one.kind === kind)!;
const OTHER = recipe({ motifs: [block('b', 6, 6)], placings: [place('b', 5, 5)] });

/** Does something; answers the kind of its event and how what it changed is read. */
type Deed = { kind: string; reads: () => unknown };

let count = 0;
const unlike = (name: string): string => `${name} ${(count += 1)}`;
const kelp = (): string => kept(db, unlike('Kelp'));
const job = (): string => projectNamed(db, unlike('Job'));
const sign = (): string => laidOut(db, job(), 'Sign', []).id;
const sheet = (): string => need(createSheet(db, job(), { name: 'For Ada', body: freshSheet('Job') })).id;

/** Archives something that is made, or brings it back. */
function archive(
  kind: string,
  id: string,
  set: (db: Db, id: string, on: boolean) => unknown,
  did: string,
): Deed {
  const table = kind === 'sheet' ? 'client_sheet' : kind;
  const isThere = db.$client.prepare(`SELECT archived_at IS NULL FROM ${table} WHERE id = ?`).pluck();
  if (did === 'restored') set(db, id, true);
  set(db, id, did === 'archived');
  expect(isThere.get(id)).toBe(did === 'archived' ? 0 : 1);
  return { kind: `${kind}.${did}`, reads: () => isThere.get(id) };
}

const deeds = {
  'a pattern that is archived': () => archive('pattern', kelp(), setPatternArchived, 'archived'),
  'a pattern that is brought back': () => archive('pattern', kelp(), setPatternArchived, 'restored'),
  'a layout that is archived': () => archive('layout', sign(), setLayoutArchived, 'archived'),
  'a project that is archived': () => archive('project', job(), setProjectArchived, 'archived'),
  'a client sheet that is archived': () => archive('sheet', sheet(), setSheetArchived, 'archived'),
  'a palette that is archived': () =>
    archive('palette', need(createPalette(db, unlike('Dusk'))).id, setPaletteArchived, 'archived'),
  'a new name': () => {
    const id = kelp();
    need(patchPattern(db, id, patternOf(db, id).version, { name: unlike('Weed') }));
    return { kind: 'pattern.renamed', reads: () => patternOf(db, id).name };
  },
  'a revision': () => {
    const id = kelp();
    const draft = need(saveDraft(db, id, patternOf(db, id).version, OTHER));
    need(publish(db, id, draft.version));
    return { kind: 'pattern.published', reads: () => patternOf(db, id).recipe };
  },
  'the name of a state': () => {
    const { id, version } = laidOut(db, job(), 'Sign', []);
    need(nameState(db, id, version, 'First'));
    need(nameState(db, id, version, 'Second'));
    const reads = (): unknown => need(listStates(db, id)).find((one) => one.version === version)?.name;
    return { kind: 'layout.state_named', reads };
  },
  'an approval': () => {
    const id = sign();
    need(setApproval(db, designer, { kind: 'layout', id, state: 'asked' }));
    need(setApproval(db, designer, { kind: 'layout', id, state: 'approved' }));
    return { kind: 'approval.approved', reads: () => approvalOf(db, 'layout', id)?.state };
  },
  'a comment that is done': () => {
    const of = { kind: 'pattern' as const, id: kelp() };
    const said = { words: 'Finer?', parentId: null, shapeId: null, x: null, y: null };
    const { id } = need(addComment(db, designer, { ...of, ...said }));
    need(setDone(db, designer, id, true));
    return { kind: 'comment.done', reads: () => need(listComments(db, designer, of))[0]?.doneAt === null };
  },
  'who is in a project': () => {
    const id = job();
    need(setProjectPeople(db, id, { closed: true, people: [owner.id] }));
    return { kind: 'project.people', reads: () => need(projectPeople(db, id)) };
  },
  'a role': () => {
    const { id } = somebody(db, unlike('pim'), 'viewer');
    need(changePerson(db, id, { role: 'designer' }));
    return { kind: 'person.changed', reads: () => getPerson(db, id)?.role };
  },
} satisfies Record<string, () => Deed>;

describe('what happened', () => {
  it.each(Object.entries<() => Deed>(deeds))('is taken back, once: %s', (_what, deed) => {
    const { kind, reads } = deed();
    const after = reads();
    const { id, undo } = latest(kind, owner);
    expect(undo).toBe(true);
    expect(need(takeBack(db, owner, id))).toEqual({ left: 0 });
    expect(reads()).not.toEqual(after);
    expect(told({}, owner).find((one) => one.id === id)?.undo).toBe(false);
    expect(sentence(takeBack(db, owner, id))).toMatch(/^invalid: This cannot be taken back/);
  });

  it.each([
    ['a revision', PLAIN],
    ['the name of a state', 'First'],
    ['an approval', 'asked'],
    ['who is in a project', { closed: false, people: [] }],
    ['a role', 'viewer'],
  ] as const)('comes back as it was before: %s', (what, before) => {
    const { kind, reads } = deeds[what]();
    need(takeBack(db, owner, latest(kind, owner).id));
    expect(reads()).toEqual(before);
  });

  it('of many fills is taken back but for those that were changed since, here or where it was done', () => {
    const [from, to] = [kept(db, 'From'), kept(db, 'To')];
    const shape = (id: string) => ({
      ...filledShape({ x: 0, y: 0, width: 9, height: 9 }, { id: `f${id}`, pattern: from }),
      id,
    });
    const layout = laidOut(db, projectNamed(db, 'Job'), 'Sign', [shape('one'), shape('two')]);
    need(replaceEverywhere(db, from, { by: to }));
    db.$client.prepare("UPDATE fill SET opacity = 0.5 WHERE id = 'ftwo'").run();
    expect(need(takeBack(db, designer, latest('bulk.replaced').id))).toEqual({ left: 1 });
    const used = need(getLayout(db, layout.id)).shapes.flatMap(({ fills }) => fills);
    expect(used.map((one) => one.kind === 'pattern' && one.pattern)).toEqual([from, to]);
    const { id } = need(replaceEverywhere(db, to, { by: from }));
    need(undoBulk(db, id));
    expect(latest('bulk.replaced').undo).toBe(false);
  });

  it('cannot be taken back by whoever may not, nor what was changed since, and says what stands in the way', () => {
    const { kind } = deeds['a role']();
    expect(latest(kind).undo).toBe(false);
    expect(sentence(takeBack(db, designer, latest(kind, owner).id))).toMatch(/^invalid/);
    const viewer = somebody(db, 'ann', 'viewer');
    kept(db, 'Weed');
    expect(told({}, viewer).every(({ undo }) => !undo)).toBe(true);

    const id = kept(db, 'Kelp');
    need(patchPattern(db, id, patternOf(db, id).version, { name: 'Reed' }));
    const renamed = latest('pattern.renamed').id;
    kept(db, 'Kelp');
    expect(sentence(takeBack(db, designer, renamed))).toMatch(/^name_taken: .*“Kelp” already/);
    need(patchPattern(db, id, patternOf(db, id).version, { name: 'Rush' }));
    expect(sentence(takeBack(db, designer, renamed))).toMatch(/^invalid: .*changed since/);
    expect(patternOf(db, id).name).toBe('Rush');

    const { kind: published } = deeds['a revision']();
    const { id: event, href } = latest(published);
    const pattern = href!.split('/').pop()!;
    need(saveDraft(db, pattern, patternOf(db, pattern).version, OTHER));
    expect(sentence(takeBack(db, designer, event))).toMatch(/^in_use: .*not published/);
    expect(sentence(takeBack(db, designer, 1e9))).toMatch(/^not_found/);
  });

  it('is told of one project, or of the library, and not to those who may not know of it', () => {
    const [job, other] = [projectNamed(db, 'Job'), projectNamed(db, 'Other')];
    const [from, to] = [kept(db, 'From'), kept(db, 'To')];
    const shape = filledShape({ x: 0, y: 0, width: 9, height: 9 }, { id: 'ff', pattern: from });
    laidOut(db, job, 'Sign', [shape]);
    laidOut(db, other, 'Ticket', []);
    need(replaceEverywhere(db, from, { by: to }));
    const kinds = (asked: ActivityAsked): string[] => told(asked).map(({ kind, what }) => `${kind} ${what}`);
    const replaced = latest('bulk.replaced').what;
    expect(kinds({ project: job })).toEqual([
      `bulk.replaced ${replaced}`,
      'layout.created Sign',
      'project.created Job',
    ]);
    expect(kinds({ project: other })).toEqual(['layout.created Ticket', 'project.created Other']);
    expect(kinds({ library: true })).toEqual([
      ...[`bulk.replaced ${replaced}`, 'pattern.published To', 'pattern.published From'],
    ]);
    const [newest] = told();
    expect(told({ before: newest!.id })).toEqual(told().slice(1));
    need(setProjectPeople(db, job, { closed: true, people: [] }));
    const viewer = somebody(db, 'ann', 'viewer');
    expect(sentence(listActivity(db, viewer, { project: job }))).toMatch(/^not_found/);
    expect(told({}, viewer).some(({ what }) => what === 'Sign' || what === 'Job')).toBe(false);
    const closing = latest('project.people').id;
    expect(sentence(takeBack(db, viewer, closing))).toMatch(/^not_found/);
  });
});
