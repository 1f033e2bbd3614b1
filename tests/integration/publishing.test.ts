import { patternFills } from '../../src/lib/core/recipe/layout';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import type { Outcome } from '../../src/lib/contract/failure';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import { pattern } from '../../src/lib/server/db/schema';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { createLayout, getLayout } from '../../src/lib/server/repo/layouts';
import {
  createPattern,
  getPattern,
  patchPattern,
  saveDraft,
  setPatternArchived,
} from '../../src/lib/server/repo/patterns';
import { createProject } from '../../src/lib/server/repo/projects';
import {
  dropDraft,
  keepAsNew,
  publish,
  publishPreview,
  restoreRevision,
} from '../../src/lib/server/repo/publishing';
import { block, dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

const first = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });
const second = recipe({ motifs: [dot('d', 30)], placings: [place('d', 50, 50)] });

function need<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.failure.message);
  return outcome.value;
}

/** A pattern at revision 1 with the second recipe as a draft, used by three shapes of two layouts. */
function workshop(): { db: Db; id: string; layouts: string[] } {
  const db = openDatabase(':memory:');
  const { id, version } = need(createPattern(db, { name: 'Ring', recipe: first }));
  need(publish(db, id, version));
  const project = need(createProject(db, 'Job'));
  const layouts = ['One', 'Two'].map((name, index) => {
    const layout = need(createLayout(db, project.id, { name, width: 300, height: 100, measure: 'px' }));
    const shapes = Array.from({ length: 2 - index }, (_, at) => {
      const shape = filledShape(
        { x: at * 100, y: 0, width: 90, height: 90 },
        { id: `f${index}${at}`, pattern: id },
      );
      return { do: 'put-shape' as const, shape: { ...shape, id: `s${index}${at}` } };
    });
    need(applyChanges(db, layout.id, layout.version, shapes));
    return layout.id;
  });
  need(saveDraft(db, id, need(getPattern(db, id)).version, second));
  return { db, id, layouts };
}

const heldIn = (db: Db, layout: string): unknown[] =>
  need(getLayout(db, layout)).shapes.map((shape) => patternFills(shape)[0]?.held);

describe('publishing over uses', () => {
  it('is seen before it happens: every use with its shape and what it shows now', () => {
    const { db, id } = workshop();
    const { newest, recipes, uses } = need(publishPreview(db, id));
    expect([newest, Object.keys(recipes), uses.map((use) => use.shape.id)]).toEqual([
      1,
      ['1'],
      ['s00', 's01', 's10'],
    ]);
    expect(uses[0]).toMatchObject({
      layoutName: 'One',
      projectName: 'Job',
      held: null,
      shape: { width: 90 },
    });
  });

  it('holds the chosen uses, lets the rest follow, and gives only their layouts a new version', () => {
    const { db, id, layouts } = workshop();
    const [one = '', two = ''] = layouts;
    const versions = layouts.map((layout) => need(getLayout(db, layout)).version);
    const { revision, held } = need(publish(db, id, need(getPattern(db, id)).version, ['f01', 'nothing']));
    expect([revision, held, heldIn(db, one), heldIn(db, two)]).toEqual([2, 1, [null, 1], [null]]);
    expect(layouts.map((layout) => need(getLayout(db, layout)).version)).toEqual([
      (versions[0] ?? 0) + 1,
      versions[1],
    ]);
    // A use that is held already stays where it is when the next revision is published over it.
    need(saveDraft(db, id, need(getPattern(db, id)).version, first));
    need(publish(db, id, need(getPattern(db, id)).version, ['f01', 'f00']));
    expect(heldIn(db, one)).toEqual([2, 1]);
  });

  it('changes nothing where it is refused', () => {
    const { db, id, layouts } = workshop();
    expect(publish(db, id, 99, ['f00'])).toMatchObject({ ok: false, failure: { code: 'stale' } });
    expect(heldIn(db, layouts[0] ?? '')).toEqual([null, null]);
  });
});

describe('keeping as new', () => {
  it('makes a published pattern of the unfinished work, and the old one goes back', () => {
    const { db, id } = workshop();
    const made = need(keepAsNew(db, id, { name: 'Ring, large', recipe: second, takesDraft: true }));
    expect(need(getPattern(db, made.id))).toMatchObject({
      newest: 1,
      hasDraft: false,
      recipe: second,
      uses: 0,
    });
    expect(need(getPattern(db, id))).toMatchObject({ newest: 1, hasDraft: false, recipe: first, uses: 3 });
  });

  it('refuses a taken name and keeps the draft where it was', () => {
    const { db, id } = workshop();
    expect(keepAsNew(db, id, { name: 'ring', recipe: second, takesDraft: true })).toMatchObject({
      ok: false,
      failure: { code: 'name_taken' },
    });
    expect(need(getPattern(db, id)).hasDraft).toBe(true);
  });
});

describe('older states', () => {
  it('are published again as the newest, never over unfinished work', () => {
    const { db, id } = workshop();
    expect(restoreRevision(db, id, need(getPattern(db, id)).version, 1)).toMatchObject({
      ok: false,
      failure: { code: 'in_use' },
    });
    need(publish(db, id, need(getPattern(db, id)).version));
    expect(need(restoreRevision(db, id, need(getPattern(db, id)).version, 1)).revision).toBe(3);
    expect(need(getPattern(db, id))).toMatchObject({ newest: 3, recipe: first });
    expect(restoreRevision(db, id, need(getPattern(db, id)).version, 9).ok).toBe(false);
  });

  it('come back when a draft is dropped, but not for a pattern that was never published', () => {
    const { db, id } = workshop();
    need(dropDraft(db, id, need(getPattern(db, id)).version));
    expect(need(getPattern(db, id))).toMatchObject({ hasDraft: false, recipe: first });
    const fresh = need(createPattern(db, { name: 'Fresh', recipe: first }));
    expect(dropDraft(db, fresh.id, fresh.version).ok).toBe(false);
  });
});

it('stock cannot be changed, renamed, archived or published, only kept as new', () => {
  const { db, id } = workshop();
  db.update(pattern).set({ stock: true }).where(eq(pattern.id, id)).run();
  const { version } = need(getPattern(db, id));
  for (const refused of [
    saveDraft(db, id, version, first),
    patchPattern(db, id, version, { name: 'Mine' }),
    setPatternArchived(db, id, true),
    publish(db, id, version),
  ])
    expect(refused).toMatchObject({ ok: false, failure: { code: 'protected' } });
  expect(keepAsNew(db, id, { name: 'Mine', recipe: first, takesDraft: false }).ok).toBe(true);
});
