import { colourFill } from '../../src/lib/core/recipe/fill';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Outcome } from '../../src/lib/contract/failure';
import type { LayoutData } from '../../src/lib/contract/data';
import type { Shape } from '../../src/lib/core/recipe/layout';
import { LIMITS } from '../../src/lib/core/recipe/limits';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import { readAsset, storeAsset } from '../../src/lib/server/repo/assets';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { createLayout, getLayout, layoutPatterns } from '../../src/lib/server/repo/layouts';
import { nameKey } from '../../src/lib/server/repo/names';
import { listPatterns } from '../../src/lib/server/repo/find';
import { searchWords } from '../../src/lib/server/repo/search-words';
import { createPalette, listPalettes, savePalette } from '../../src/lib/server/repo/palettes';
import {
  createPattern,
  getPattern,
  patchPattern,
  saveDraft,
  setPatternArchived,
} from '../../src/lib/server/repo/patterns';
import { publish } from '../../src/lib/server/repo/publishing';
import { createProject, getProject, setProjectArchived } from '../../src/lib/server/repo/projects';
import { diffLayout, docOf } from '../../src/lib/ui/layout/doc';
import { block, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

const art = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });
const query = { search: '', archived: false, drafts: false, limit: 100, offset: 0 };

function need<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.failure.message);
  return outcome.value;
}

function published(db: Db, name: string): string {
  const { id, version } = need(createPattern(db, { name, recipe: art }));
  need(publish(db, id, version));
  return id;
}

function emptyLayout(db: Db): LayoutData {
  const project = need(createProject(db, `Project ${Math.random()}`));
  const { id } = need(
    createLayout(db, project.id, { name: 'Layout', width: 100, height: 100, measure: 'px' }),
  );
  return need(getLayout(db, id));
}

describe('patterns', () => {
  it('keep a draft from every use until it is published, and every revision as it was', () => {
    const db = openDatabase(':memory:');
    const id = published(db, 'Awning');
    const second = { ...art, unit: { width: 50, height: 50 } };
    const drafted = need(saveDraft(db, id, need(getPattern(db, id)).version, second));
    expect(need(getPattern(db, id))).toMatchObject({ newest: 1, hasDraft: true, recipe: art, draft: second });
    need(publish(db, id, drafted.version));
    expect(need(getPattern(db, id))).toMatchObject({ newest: 2, hasDraft: false, recipe: second });
    expect(publish(db, id, need(getPattern(db, id)).version)).toMatchObject({
      ok: false,
      failure: { message: /nothing to publish/ },
    });
  });

  it('are renamed without touching a use, and a taken name is refused', () => {
    const db = openDatabase(':memory:');
    const id = published(db, 'Lane Line');
    published(db, 'Río');
    const layout = emptyLayout(db);
    const shape = filledShape({ x: 0, y: 0, width: 9, height: 9 }, { pattern: id, scaleX: 0.7 });
    need(applyChanges(db, layout.id, 1, [{ do: 'put-shape', shape }]));
    const { version } = need(getPattern(db, id));
    need(patchPattern(db, id, version, { name: 'Float Line' }));
    expect(need(getLayout(db, layout.id)).shapes[0]).toEqual(shape);
    expect(need(getPattern(db, id)).usedIn).toMatchObject([{ shapeName: 'Shape', scaleX: 0.7 }]);
    expect(patchPattern(db, id, version + 1, { name: '  rio ' })).toMatchObject({
      ok: false,
      failure: { code: 'name_taken' },
    });
    expect(patchPattern(db, id, version, { name: 'Late' })).toMatchObject({
      ok: false,
      failure: { code: 'stale', current: { name: 'Float Line' } },
    });
  });

  it('go to the archive and come back; uses keep showing them', () => {
    const db = openDatabase(':memory:');
    const id = published(db, 'Porthole');
    const layout = emptyLayout(db);
    need(
      applyChanges(db, layout.id, 1, [
        { do: 'put-shape', shape: filledShape({ x: 0, y: 0, width: 9, height: 9 }, { pattern: id }) },
      ]),
    );
    need(setPatternArchived(db, id, true));
    expect(listPatterns(db, query)).toEqual([]);
    expect(listPatterns(db, { ...query, archived: true })).toHaveLength(1);
    expect(layoutPatterns(db, need(getLayout(db, layout.id)).shapes)[0]?.recipes[1]).toEqual(art);
    need(setPatternArchived(db, id, false));
    expect(listPatterns(db, query)).toHaveLength(1);
  });

  // FTS5 against a plain scan of the same words.
  it('are found by the beginnings of words, without case and accents, as a plain scan finds them', () => {
    const db = openDatabase(':memory:');
    const names = ['Ripple Row', 'Ring Toss', 'Bouée Rouge', 'Night Wake', 'Rope-Twist', 'Row of Rings'];
    for (const name of names) published(db, name);
    const scan = (text: string): string[] =>
      names
        .filter((name) =>
          (nameKey(text).match(/[a-z0-9]+/g) ?? []).every((word) =>
            nameKey(name)
              .split(/[^a-z0-9]+/)
              .some((held) => (word.length > 2 ? held.includes(word) : held.startsWith(word))),
          ),
        )
        .sort();
    for (const text of [
      'r',
      'ri',
      'RING',
      'row r',
      'bouee',
      'ROUGE b',
      'twist',
      'nothing',
      'wake night',
      '"*',
      "'); DROP",
    ]) {
      const found = listPatterns(db, { ...query, search: text }).map((pattern) => pattern.name);
      expect(found.sort(), text).toEqual(scan(text));
    }
    expect(searchWords(db, '  ')).toBeNull();
  });
});

describe('layouts', () => {
  const arbitraryShapes = fc.uniqueArray(
    fc.record({
      id: fc.constantFrom(...'abcdefgh'),
      x: fc.integer({ min: -50, max: 50 }),
      filled: fc.constantFrom('none' as const, 'colour' as const, 'pattern' as const, 'both' as const),
    }),
    { selector: (shape) => shape.id, maxLength: 8 },
  );

  it('are stored exactly as the view has them after any row of changes', () => {
    const db = openDatabase(':memory:');
    const pattern = published(db, 'Check');
    const toShape = (
      base: { id: string; x: number; filled: 'none' | 'colour' | 'pattern' | 'both' },
      layout: string,
    ): Shape => {
      const shape = filledShape(
        { x: base.x, y: 1.25, width: 10, height: 20 },
        {
          pattern,
          colourway: null,
          colours: { ink: { colour: '#ff0000' } },
          ground: { kind: 'colour', colour: '#00ff00' },
          held: base.x > 0 ? 1 : null,
        },
      );
      const id = `${layout}${base.id}`;
      const colour = { ...colourFill(`${id}f`, { colour: '#123456' }), opacity: 0.5 };
      return {
        ...shape,
        id,
        name: base.id,
        fills: {
          none: [],
          colour: [colour],
          pattern: shape.fills.map((fill) => ({ ...fill, id: `${id}f` })),
          both: [...shape.fills.map((fill) => ({ ...fill, id: `${id}f` })), { ...colour, id: `${id}g` }],
        }[base.filled],
      };
    };
    fc.assert(
      fc.property(fc.array(arbitraryShapes, { minLength: 1, maxLength: 5 }), (states) => {
        const layout = emptyLayout(db);
        let doc = docOf(layout);
        let version = layout.version;
        for (const state of states) {
          const next = {
            ...doc,
            width: 100 + state.length,
            shapes: state.map(
              (base) =>
                doc.shapes.find((held) => held.id === layout.id + base.id && held.x === base.x) ??
                toShape(base, layout.id),
            ),
          };
          const changes = diffLayout(doc, next);
          if (changes.length > 0) ({ version } = need(applyChanges(db, layout.id, version, changes)));
          doc = next;
          expect(docOf(need(getLayout(db, layout.id)))).toEqual(doc);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('refuse a batch whole when one change of it fails', () => {
    const db = openDatabase(':memory:');
    const layout = emptyLayout(db);
    const shape = { ...filledShape({ x: 0, y: 0, width: 9, height: 9 }), fills: [] };
    const outcome = applyChanges(db, layout.id, 1, [
      { do: 'put-shape', shape },
      { do: 'order', ids: ['shape', 'gone'] },
    ]);
    expect(outcome).toMatchObject({ ok: false, failure: { path: 'changes.1.ids' } });
    expect(need(getLayout(db, layout.id))).toMatchObject({ version: 1, shapes: [] });
  });

  it(`hold at most ${LIMITS.shapes} shapes`, () => {
    const db = openDatabase(':memory:');
    const layout = emptyLayout(db);
    const changes = Array.from({ length: LIMITS.shapes + 1 }, (_, index) => ({
      do: 'put-shape' as const,
      shape: { ...filledShape({ x: index, y: 0, width: 9, height: 9 }), id: `s${index}`, fills: [] },
    }));
    expect(applyChanges(db, layout.id, 1, changes)).toMatchObject({
      ok: false,
      failure: { message: /at most 2000 shapes/ },
    });
    expect(applyChanges(db, layout.id, 1, changes.slice(1)).ok).toBe(true);
  });
});

describe('the rest', () => {
  it('keeps a motif’s bytes once, under their hash', () => {
    const db = openDatabase(':memory:');
    const file = { bytes: Buffer.from('<svg/>'), mediaType: 'image/svg+xml', fileName: 'a.svg' };
    const hash = storeAsset(db, file);
    expect(storeAsset(db, { ...file, fileName: 'b.svg' })).toBe(hash);
    expect(readAsset(db, hash)).toEqual(file);
    expect(readAsset(db, 'gone')).toBeNull();
  });

  it('saves palettes with their order, and projects go to the archive', () => {
    const db = openDatabase(':memory:');
    const palette = need(createPalette(db, 'Pool'));
    const colours = ['c', 'a', 'b'].map((id, index) => ({ id, name: id, hex: `#00000${index}` }));
    need(savePalette(db, palette.id, 1, { name: 'Pool side', colours }));
    expect(listPalettes(db)).toEqual([
      { id: palette.id, name: 'Pool side', projectId: null, version: 2, colours },
    ]);
    const project = need(createProject(db, 'Job'));
    need(setProjectArchived(db, project.id, true));
    expect(need(getProject(db, project.id)).archivedAt).not.toBeNull();
  });
});
