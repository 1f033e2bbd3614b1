import { colourFill } from '../../src/lib/core/recipe/fill';
import { patternFills } from '../../src/lib/core/recipe/layout';
import { eq } from 'drizzle-orm';
import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '../../src/lib/core/colour/difference';
import { tintOf } from '../../src/lib/core/colour/tint';
import { seededRandom } from '../../src/lib/core/num/random';
import { hexOf } from '../../src/lib/core/colour/parse';
import type { PatternFill } from '../../src/lib/core/recipe/fill';
import { LIMITS } from '../../src/lib/core/recipe/limits';
import type { Shape } from '../../src/lib/core/recipe/layout';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import { fill, pattern } from '../../src/lib/server/db/schema';
import { listChanges, recolourLayouts, replaceEverywhere, undoBulk } from '../../src/lib/server/repo/bulk';
import { editPatterns, putBack } from '../../src/lib/server/repo/bulk-edit';
import { createCollection, removeCollection, renameCollection } from '../../src/lib/server/repo/collections';
import { saveColourways } from '../../src/lib/server/repo/colourways';
import { findPatterns, libraryFacets, listPatterns } from '../../src/lib/server/repo/find';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { getLayout } from '../../src/lib/server/repo/layouts';
import { nameKey } from '../../src/lib/server/repo/names';
import { colourUses, createPalette, getPalette, savePalette } from '../../src/lib/server/repo/palettes';
import {
  deletePattern,
  patchPattern,
  saveDraft,
  setPatternArchived,
} from '../../src/lib/server/repo/patterns';
import { keepAsNew, publish, setHeld } from '../../src/lib/server/repo/publishing';
import { recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';
import { kept, laidOut, need, patternOf, PLAIN, projectNamed, sentence } from '../support/studio';

const names = (found: { name: string }[]): string[] => found.map(({ name }) => name);
const collect = (db: Db, name: string): string => need(createCollection(db, name)).id;

function shape(id: string, use: Partial<PatternFill>): Shape {
  return { ...filledShape({ x: 0, y: 0, width: 90, height: 90 }, { id: `${id}f`, ...use }), id, name: id };
}
function patternFill(db: Db, layout: string, index = 0): PatternFill {
  const [found] = patternFills(need(getLayout(db, layout)).shapes[index]!);
  if (!found) throw new Error('no pattern');
  return found;
}

describe('finding', () => {
  // FTS5 against a plain scan of the same words in all the texts of a pattern.
  it('looks through all texts by the beginnings of words, as a plain scan does', () => {
    const db = openDatabase(':memory:');
    const sea = need(createPalette(db, 'Sea', { colours: [{ id: 'c1', name: 'Meerblau', hex: '#224466' }] }));
    const coast = collect(db, 'Küste und Hafen');
    const linked = recipe({
      ...PLAIN,
      slots: [{ id: 'ink', name: 'Ink', colour: '#000000', link: 'c1' }, PLAIN.slots[1]!],
    });
    const texts: Record<string, string[]> = {};
    const add = (
      name: string,
      patch: Parameters<typeof kept>[2] = {},
      art = PLAIN,
      more: string[] = [],
    ): void => {
      kept(db, name, patch, art);
      const { description = '', tags = [], credit } = patch;
      texts[name] = [
        name,
        description,
        ...tags,
        credit?.author ?? '',
        credit?.source ?? '',
        credit?.licence ?? '',
        ...more,
      ];
    };
    add('Ripple', { description: 'Water on a still morning', tags: ['calm', 'wave'] });
    add('Gull', { tags: ['bird'], collections: [coast] }, PLAIN, ['Küste und Hafen']);
    add('Wake', {}, linked, ['Meerblau']);
    add('Tile', {
      credit: { author: 'Oona Pell', source: 'Old bath', licence: 'CC-BY-4.0', attribution: true },
    });
    add('Étoile', { description: 'Une étoile, نجمة' });
    const scan = (words: string): string[] =>
      Object.entries(texts)
        .filter(([, parts]) => {
          const held = nameKey(parts.join(' ')).split(/[^\p{L}\p{N}]+/u);
          return (nameKey(words).match(/[\p{L}\p{N}]+/gu) ?? []).every((word) =>
            held.some((one) => (word.length > 2 ? one.includes(word) : one.startsWith(word))),
          );
        })
        .map(([name]) => name)
        .sort();
    for (const words of [
      'wa',
      'still mor',
      'KUSTE',
      'hafen gull',
      'meer',
      'oona',
      'cc by',
      'etoile',
      'نجمة',
      'bath pell',
      'x',
      'cal wav',
    ])
      expect(names(listPatterns(db, { search: words })).sort(), words).toEqual(scan(words));
    expect(names(listPatterns(db, { search: 'wa' }))).toEqual(['Wake', 'Ripple']);
    need(
      savePalette(db, sea.id, 1, { name: 'Sea', colours: [{ id: 'c1', name: 'Nachtblau', hex: '#112233' }] }),
    );
    expect(names(listPatterns(db, { search: 'nacht' }))).toEqual(['Wake']);
    expect(listPatterns(db, { search: 'meer' })).toEqual([]);
    need(renameCollection(db, coast, 'Strand'));
    expect(names(listPatterns(db, { search: 'strand' }))).toEqual(['Gull']);
    need(removeCollection(db, coast));
    expect(listPatterns(db, { search: 'strand' })).toEqual([]);
  });

  it('narrows by what a pattern is and how it is kept, and counts', () => {
    const db = openDatabase(':memory:');
    const job = projectNamed(db, 'Job');
    const [sea, big] = [collect(db, 'Sea'), collect(db, 'Big')];
    kept(db, 'A', { tags: ['Blue'], collections: [sea] });
    kept(
      db,
      'B',
      { tags: ['blue', 'red'], collections: [sea, big] },
      {
        ...PLAIN,
        unit: { width: 400, height: 90 },
        repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
        ground: { kind: 'slot', slot: 'paper' },
      },
    );
    const c = kept(db, 'C');
    laidOut(db, job, 'One', [shape('s', { pattern: c })]);
    const of = (query: Parameters<typeof findPatterns>[1]): string[] =>
      names(findPatterns(db, query).patterns);
    expect(of({ tag: 'BLUE' })).toEqual(['A', 'B']);
    expect(of({ collection: big })).toEqual(['B']);
    expect(of({ repeat: 'brick' })).toEqual(['B']);
    expect(of({ least: 200 })).toEqual(['B']);
    expect(of({ ground: 'clear' })).toEqual(['A', 'C']);
    expect(of({ project: job })).toEqual(['C']);
    expect(of({ kind: 'measured' })).toEqual([]);
    expect(of({ coloursLeast: 2, coloursMost: 2, sort: 'uses' })).toEqual(['C', 'A', 'B']);
    expect(of({ sort: 'name', backwards: true })).toEqual(['C', 'B', 'A']);
    expect(findPatterns(db, { limit: 1, offset: 1 })).toMatchObject({ total: 3, patterns: [{ name: 'B' }] });
    const facets = libraryFacets(db);
    expect(facets.tags).toEqual([
      { tag: 'Blue', patterns: 2 },
      { tag: 'red', patterns: 1 },
    ]);
    expect(facets.collections.map(({ name, patterns }) => [name, patterns])).toEqual([
      ['Big', 1],
      ['Sea', 2],
    ]);
    expect(facets.counts).toEqual({ live: 3, stock: 0, unpublished: 0, archived: 0 });
  });

  // CIEDE2000 over every colour of every pattern, one by one.
  it('finds what contains something like a colour, as a scan by ΔE2000 does', () => {
    const db = openDatabase(':memory:');
    const random = seededRandom(3);
    const colours = Array.from({ length: 60 }, () => hexOf([random() * 255, random() * 255, random() * 255]));
    colours.forEach((colour, index) =>
      kept(db, `P${index}`, {}, { ...PLAIN, slots: [{ ...PLAIN.slots[0]!, colour }, PLAIN.slots[1]!] }),
    );
    for (const near of [6, 15, 30]) {
      const scan = colours.flatMap((colour, index) =>
        deltaE2000(colour, '#3b82a0') <= near || deltaE2000('#ffffff', '#3b82a0') <= near
          ? [`P${index}`]
          : [],
      );
      expect(names(listPatterns(db, { colour: '#3b82a0', near })).sort()).toEqual(scan.sort());
    }
  });
});

const BOX = { x: 0, y: 0, width: 9, height: 9 };

/** The columns of a row of fills, with an id and a place of their own for the n-th. */
const fillColumns = (db: Db): string =>
  (db.$client.prepare("SELECT name FROM pragma_table_info('fill')").pluck().all() as string[])
    .map((name) => (name === 'id' ? "id || '-' || i" : name === 'position' ? 'position + i' : `"${name}"`))
    .join(', ');

describe('keeping', () => {
  it('edits many at once, all or none, and puts them back', () => {
    const db = openDatabase(':memory:');
    const sea = collect(db, 'Sea');
    const [a, b] = [kept(db, 'A', { tags: ['old'] }), kept(db, 'B')];
    const credit = { author: 'Me', source: '', licence: 'CC0-1.0', attribution: false };
    const edited = need(
      editPatterns(db, { ids: [a, b], addTags: ['new'], removeTags: ['OLD'], addCollections: [sea], credit }),
    );
    expect([a, b].map((id) => patternOf(db, id))).toMatchObject([
      { tags: ['new'], collections: ['Sea'], credit },
      { tags: ['new'], collections: ['Sea'], credit },
    ]);
    need(putBack(db, edited.before));
    expect(patternOf(db, a)).toMatchObject({ tags: ['old'], collections: [], credit: { author: '' } });
    db.update(pattern).set({ stock: true }).where(eq(pattern.id, b)).run();
    expect(sentence(editPatterns(db, { ids: [a, b], archived: true, addTags: ['x'] }))).toMatch(
      /protected: “B” is stock/,
    );
    expect(patternOf(db, a)).toMatchObject({ tags: ['old'], archivedAt: null });
    need(editPatterns(db, { ids: [a, b], addTags: ['x'] }));
    expect(patternOf(db, b).tags).toEqual(['x']);
  });

  it('is found by the words of an edit of many at once, and changes no other', () => {
    const db = openDatabase(':memory:');
    const ids = Array.from({ length: 40 }, (_, index) => kept(db, `P${index}`));
    const other = kept(db, 'Other', { tags: ['calm'] });
    const before = patternOf(db, other);
    need(editPatterns(db, { ids, addTags: ['calm', 'Calm ', 'wet'], removeTags: ['dry'], archived: false }));
    expect(names(listPatterns(db, { search: 'wet' })).sort()).toEqual(ids.map((_, at) => `P${at}`).sort());
    expect(listPatterns(db, { search: 'calm' })).toHaveLength(41);
    expect(patternOf(db, ids[7]!).tags).toEqual(['calm', 'wet']);
    expect(patternOf(db, other)).toEqual(before);
  });

  it('refuses what is too much for one step, and says what to do instead', () => {
    const db = openDatabase(':memory:');
    const many = Array.from({ length: LIMITS.bulkRows / 10 + 1 }, (_, index) => `p${index}`);
    const addTags = Array.from({ length: 10 }, (_, index) => `t${index}`);
    expect(sentence(editPatterns(db, { ids: many, addTags }))).toMatch(/too_large: .*choose fewer patterns/);
    const [from, to] = [kept(db, 'From'), kept(db, 'To')];
    const project = projectNamed(db, 'Large');
    const { id, shapes } = laidOut(db, project, 'L', [filledShape(BOX, { id: 'f', pattern: from })]);
    const [shape] = shapes;
    // More fills than can be made by saving a few layouts: rows like the one that is there.
    db.$client
      .prepare(
        `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i <= ${LIMITS.bulkFills})
          INSERT INTO fill SELECT ${fillColumns(db)} FROM fill, n WHERE shape_id = ?`,
      )
      .run(shape!.id);
    expect(sentence(replaceEverywhere(db, from, { by: to }))).toMatch(
      /too_large: “From” is used there by more than 5000 fills.*choose some of the projects/,
    );
    const exchanges = [{ from: { id: 'a', hex: '#000000' }, to: { id: 'b', hex: '#ffffff' } }];
    expect(sentence(recolourLayouts(db, { layouts: [id], exchanges, summary: 's' }))).toMatch(
      /These layouts hold more than 5000 fills/,
    );
    expect(patternOf(db, from).uses).toBe(LIMITS.bulkFills + 2);
  });

  it('answers both of two people who rename one pattern', () => {
    const db = openDatabase(':memory:');
    const id = kept(db, 'A');
    const { version } = patternOf(db, id);
    need(patchPattern(db, id, version, { name: 'First' }));
    const late = patchPattern(db, id, version, { name: 'Second' });
    expect(late).toMatchObject({ ok: false, failure: { code: 'stale', current: { name: 'First' } } });
    need(patchPattern(db, id, version + 1, { name: 'Second' }));
    expect(names(listPatterns(db, { search: 'second' }))).toEqual(['Second']);
  });

  it('deletes for good only what is archived, unused and named', () => {
    const db = openDatabase(':memory:');
    const id = kept(db, 'Wave');
    expect(sentence(deletePattern(db, id, 'Wave'))).toMatch(/archive it before/);
    need(setPatternArchived(db, id, true));
    expect(sentence(deletePattern(db, id, 'wave'))).toMatch(/Type the name “Wave”/);
    const layout = laidOut(db, projectNamed(db, 'Job'), 'L', [shape('s', { pattern: id })]);
    expect(sentence(deletePattern(db, id, 'Wave'))).toMatch(/in_use: .*one shape/);
    need(applyChanges(db, layout.id, layout.version, [{ do: 'remove-shape', id: 's' }]));
    need(deletePattern(db, id, 'Wave'));
    expect(listPatterns(db, { archived: true })).toEqual([]);
    expect(listPatterns(db, { search: 'wave' })).toEqual([]);
  });

  it('keeps tags, collections, credit and colourways in a copy', () => {
    const db = openDatabase(':memory:');
    const id = kept(db, 'A', { tags: ['t'], collections: [collect(db, 'Sea')] });
    need(
      saveColourways(db, id, patternOf(db, id).version, [
        { id: 'w', name: 'Warm', colours: { ink: tintOf('#aa0000') } },
      ]),
    );
    const copy = need(keepAsNew(db, id, { name: 'B', recipe: PLAIN, takesDraft: false }));
    expect(patternOf(db, copy.id)).toMatchObject({
      tags: ['t'],
      collections: ['Sea'],
      colourways: [{ name: 'Warm' }],
    });
    expect(names(listPatterns(db, { search: 'sea' }))).toEqual(['A', 'B']);
  });

  it('holds uses and lets them follow again', () => {
    const db = openDatabase(':memory:');
    const id = kept(db, 'A');
    const layout = laidOut(db, projectNamed(db, 'Job'), 'L', [shape('s', { pattern: id })]);
    expect(need(setHeld(db, id, ['sf'], true))).toEqual({ fills: 1 });
    expect(patternFill(db, layout.id).held).toBe(1);
    expect(need(getLayout(db, layout.id)).version).toBe(layout.version + 1);
    need(setHeld(db, id, ['sf'], false));
    expect(patternFill(db, layout.id).held).toBeNull();
  });
});

describe('linked colours', () => {
  it('change everywhere at once: slots, colourways, grounds, shapes, pages; a colour taken out keeps its last look', () => {
    const db = openDatabase(':memory:');
    const palette = need(
      createPalette(db, 'Sea', { colours: [{ id: 'deep', name: 'Deep', hex: '#102030' }] }),
    );
    const art = {
      ...PLAIN,
      slots: [{ id: 'ink', name: 'Ink', ...tintOf('#102030', 'deep') }, PLAIN.slots[1]!],
    };
    const id = kept(db, 'A', {}, art);
    need(
      saveColourways(db, id, patternOf(db, id).version, [
        { id: 'w', name: 'Way', colours: { paper: tintOf('#102030', 'deep') } },
      ]),
    );
    const plain = {
      ...shape('p', {}),
      fills: [colourFill('pf', tintOf('#102030', 'deep'))],
    };
    const layout = laidOut(db, projectNamed(db, 'Job'), 'L', [
      shape('s', {
        pattern: id,
        ground: { kind: 'colour', ...tintOf('#102030', 'deep') },
        colours: { paper: tintOf('#102030', 'deep') },
      }),
      plain,
    ]);
    need(
      applyChanges(db, layout.id, layout.version, [
        { do: 'page', background: '#102030', backgroundLink: 'deep' },
      ]),
    );
    expect(colourUses(db, palette.id)).toEqual({ deep: { patterns: 1, colourways: 1, fills: 2, pages: 1 } });
    need(
      savePalette(db, palette.id, 1, {
        name: 'Sea',
        colours: [{ id: 'deep', name: 'Deep', hex: '#aabbcc' }],
      }),
    );
    const check = (): void => {
      const now = need(getLayout(db, layout.id));
      expect(now.background).toBe('#aabbcc');
      expect(patternFill(db, layout.id)).toMatchObject({
        ground: { colour: '#aabbcc' },
        colours: { paper: { colour: '#aabbcc' } },
      });
      expect(now.shapes[1]?.fills[0]).toMatchObject({ colour: '#aabbcc' });
      expect(patternOf(db, id)).toMatchObject({
        recipe: { slots: [{ colour: '#aabbcc' }, {}] },
        colourways: [{ colours: { paper: { colour: '#aabbcc' } } }],
      });
    };
    check();
    expect(names(listPatterns(db, { colour: '#aabbcc', near: 0.1 }))).toEqual(['A']);
    need(savePalette(db, palette.id, 2, { name: 'Sea', colours: [] }));
    expect(need(getPalette(db, palette.id)).colours).toEqual([]);
    check();
    need(
      savePalette(db, palette.id, 3, {
        name: 'Sea',
        colours: [{ id: 'deep', name: 'Deep', hex: '#aabbcc' }],
      }),
    );
    expect(need(getPalette(db, palette.id)).colours).toHaveLength(1);
  });

  it('refuse what belongs elsewhere, and half a palette is never written', () => {
    const db = openDatabase(':memory:');
    need(createPalette(db, 'One', { colours: [{ id: 'x', name: 'X', hex: '#000000' }] }));
    const two = need(createPalette(db, 'Two'));
    const refused = savePalette(db, two.id, 1, {
      name: 'Two',
      colours: [
        { id: 'y', name: 'Y', hex: '#111111' },
        { id: 'x', name: 'X', hex: '#222222' },
      ],
    });
    expect(sentence(refused)).toMatch(/belongs to another palette/);
    expect(need(getPalette(db, two.id))).toMatchObject({ version: 1, colours: [] });
  });
});

describe('colourways', () => {
  it('are followed by uses; one that is taken away leaves its colours behind', () => {
    const db = openDatabase(':memory:');
    const id = kept(db, 'A');
    const way = { id: 'w', name: 'Warm', colours: { ink: tintOf('#aa0000'), paper: tintOf('#ffeecc') } };
    need(saveColourways(db, id, patternOf(db, id).version, [way]));
    const layout = laidOut(db, projectNamed(db, 'Job'), 'L', [
      shape('s', { pattern: id, colourway: 'w', colours: { paper: tintOf('#ffffff') } }),
    ]);
    need(
      saveColourways(db, id, patternOf(db, id).version, [
        { ...way, colours: { ...way.colours, ink: tintOf('#bb0000') } },
      ]),
    );
    expect(patternFill(db, layout.id)).toMatchObject({
      colourway: 'w',
      colours: { paper: { colour: '#ffffff' } },
    });
    need(saveColourways(db, id, patternOf(db, id).version, []));
    expect(patternFill(db, layout.id)).toMatchObject({
      colourway: null,
      colours: { ink: { colour: '#bb0000' }, paper: { colour: '#ffffff' } },
    });
    const gone = applyChanges(db, layout.id, layout.version + 1, [
      { do: 'put-shape', shape: shape('s', { pattern: id, colourway: 'w' }) },
    ]);
    expect(sentence(gone)).toMatch(/no such colourway/);
  });

  it('need names of their own', () => {
    const db = openDatabase(':memory:');
    const id = kept(db, 'A');
    const ways = ['Warm', 'wárm'].map((name, index) => ({ id: `w${index}`, name, colours: {} }));
    expect(sentence(saveColourways(db, id, patternOf(db, id).version, ways))).toMatch(/name_taken/);
    expect(patternOf(db, id).colourways).toEqual([]);
  });
});

describe('replacing everywhere', () => {
  function workshop() {
    const db = openDatabase(':memory:');
    const [from, to] = [
      kept(db, 'From'),
      kept(
        db,
        'To',
        {},
        {
          ...PLAIN,
          slots: [
            { id: 'z', name: 'ink', colour: '#999999' },
            { id: 'paper', name: 'Other', colour: '#ffffff' },
          ],
          motifs: PLAIN.motifs.map((motif) => ({
            ...motif,
            content: { ...motif.content, slot: 'z' } as typeof motif.content,
          })),
        },
      ),
    ];
    const jobs = ['One', 'Two'].map((name) => projectNamed(db, name));
    const layouts = jobs.map((job, index) =>
      laidOut(db, job, 'L', [
        shape(`s${index}`, {
          pattern: from,
          scaleX: 0.7,
          rotation: 12,
          held: 1,
          colours: { ink: tintOf('#ff0000') },
        }),
      ]),
    );
    return { db, from, to, jobs, layouts: layouts.map((layout) => layout.id) };
  }

  it('keeps place, size and turn, in chosen projects, and is undone as one step', () => {
    const { db, from, to, jobs, layouts } = workshop();
    const before = layouts.map((layout) => patternFill(db, layout));
    const one = need(replaceEverywhere(db, from, { by: to, projects: [jobs[0]!] }));
    expect(one).toMatchObject({ fills: 1, layouts: 1 });
    expect(patternFill(db, layouts[0]!)).toMatchObject({
      pattern: to,
      scaleX: 0.7,
      rotation: 12,
      held: null,
      colours: { z: { colour: '#ff0000' } },
    });
    expect(patternFill(db, layouts[1]!)).toEqual(before[1]);
    expect(listChanges(db, from)).toMatchObject([{ id: one.id, fills: 1 }]);
    expect(listChanges(db, 'another')).toEqual([]);
    expect(need(undoBulk(db, one.id))).toEqual({ fills: 1, left: 0 });
    expect(listChanges(db)).toEqual([]);
    expect(layouts.map((layout) => patternFill(db, layout))).toEqual(before);
    expect(sentence(undoBulk(db, one.id))).toMatch(/undone already/);
  });

  it('leaves what was changed since then as it is when undone', () => {
    const { db, from, to, layouts } = workshop();
    const done = need(replaceEverywhere(db, from, { by: to }));
    const layout = need(getLayout(db, layouts[0]!));
    const changed = { ...layout.shapes[0]!, fills: [{ ...patternFill(db, layouts[0]!), rotation: 99 }] };
    need(applyChanges(db, layout.id, layout.version, [{ do: 'put-shape', shape: changed }]));
    expect(need(undoBulk(db, done.id))).toEqual({ fills: 1, left: 1 });
    expect(patternFill(db, layouts[0]!)).toMatchObject({ pattern: to, rotation: 99 });
    expect(patternFill(db, layouts[1]!)).toMatchObject({ pattern: from });
  });

  it('says that it cannot be undone once the old pattern is deleted for good, and changes nothing', () => {
    const { db, from, to, layouts } = workshop();
    const done = need(replaceEverywhere(db, from, { by: to }));
    need(setPatternArchived(db, from, true));
    need(deletePattern(db, from, 'From'));
    const before = layouts.map((layout) => patternFill(db, layout));
    expect(sentence(undoBulk(db, done.id))).toMatch(/“From” replaced by “To”.* deleted/);
    expect(layouts.map((layout) => patternFill(db, layout))).toEqual(before);
    expect(listChanges(db)).toEqual([]);
  });

  it('is undone with a colourway that is gone by the pattern’s own colours', () => {
    const { db, from, to, layouts } = workshop();
    const way = { id: 'w', name: 'Way', colours: { ink: tintOf('#00ff00') } };
    need(saveColourways(db, from, patternOf(db, from).version, [way]));
    const layout = need(getLayout(db, layouts[0]!));
    const use = { ...layout.shapes[0]!, fill: { ...patternFill(db, layouts[0]!), colourway: 'w' } };
    need(applyChanges(db, layout.id, layout.version, [{ do: 'put-shape', shape: use }]));
    const done = need(replaceEverywhere(db, from, { by: to }));
    need(saveColourways(db, from, patternOf(db, from).version, []));
    need(undoBulk(db, done.id));
    expect(patternFill(db, layouts[0]!)).toMatchObject({ pattern: from, colourway: null, rotation: 12 });
  });

  it('refuses itself, drafts, the archive and where there is nothing', () => {
    const { db, from, to } = workshop();
    expect(sentence(replaceEverywhere(db, from, { by: from }))).toMatch(/cannot take its own place/);
    expect(sentence(replaceEverywhere(db, to, { by: from }))).toMatch(/not used there/);
    need(setPatternArchived(db, to, true));
    expect(sentence(replaceEverywhere(db, from, { by: to }))).toMatch(/in the archive/);
    expect(
      db
        .select()
        .from(fill)
        .all()
        .every((row) => row.patternId === from),
    ).toBe(true);
  });
});

describe('exchanging palettes', () => {
  it('recolours fills, grounds and pages of layouts, pattern colours included, and is undone as one step', () => {
    const db = openDatabase(':memory:');
    need(createPalette(db, 'Old', { colours: [{ id: 'o', name: 'O', hex: '#102030' }] }));
    need(createPalette(db, 'New', { colours: [{ id: 'n', name: 'N', hex: '#f0f0f0' }] }));
    const id = kept(db, 'A');
    const layout = laidOut(db, projectNamed(db, 'Job'), 'L', [
      shape('s', { pattern: id, ground: { kind: 'colour', ...tintOf('#102030', 'o') } }),
    ]);
    need(applyChanges(db, layout.id, layout.version, [{ do: 'page', background: '#102030' }]));
    const before = need(getLayout(db, layout.id));
    const exchanges = [{ from: { id: 'o', hex: '#102030' }, to: { id: 'n', hex: '#f0f0f0' } }];
    const done = need(recolourLayouts(db, { layouts: [layout.id], exchanges, summary: 'Old for New' }));
    const after = need(getLayout(db, layout.id));
    expect(after).toMatchObject({ background: '#f0f0f0', backgroundLink: 'n' });
    expect(patternFill(db, layout.id)).toMatchObject({
      ground: { colour: '#f0f0f0', link: 'n' },
      colours: { ink: { colour: '#f0f0f0', link: 'n' } },
    });
    expect(patternOf(db, id).recipe?.slots[0]?.colour).toBe('#102030');
    need(undoBulk(db, done.id));
    const again = need(recolourLayouts(db, { layouts: [layout.id], exchanges, summary: 'Old for New' }));
    const { version } = need(getLayout(db, layout.id));
    need(applyChanges(db, layout.id, version, [{ do: 'page', background: '#654321', backgroundLink: null }]));
    expect(need(undoBulk(db, again.id))).toEqual({ fills: 1, left: 1 });
    expect(need(getLayout(db, layout.id)).background).toBe('#654321');
    const latest = need(getLayout(db, layout.id)).version;
    need(applyChanges(db, layout.id, latest, [{ do: 'page', background: '#102030' }]));
    const back = need(getLayout(db, layout.id));
    expect([back.background, back.shapes]).toEqual([before.background, before.shapes]);
    expect(
      sentence(
        recolourLayouts(db, {
          layouts: [layout.id],
          exchanges: [{ from: { id: 'q', hex: '#abcdef' }, to: exchanges[0]!.to }],
          summary: 'x',
        }),
      ),
    ).toMatch(/None of these colours/);
  });
});

describe('a draft', () => {
  it('does not change what a pattern is found by until it is published', () => {
    const db = openDatabase(':memory:');
    const id = kept(db, 'A');
    const saved = need(
      saveDraft(db, id, patternOf(db, id).version, {
        ...PLAIN,
        slots: [{ ...PLAIN.slots[0]!, colour: '#ff00ff' }, PLAIN.slots[1]!],
      }),
    );
    expect(listPatterns(db, { colour: '#ff00ff', near: 1 })).toEqual([]);
    need(publish(db, id, saved.version));
    expect(names(listPatterns(db, { colour: '#ff00ff', near: 1 }))).toEqual(['A']);
  });
});
