import { describe, expect, it } from 'vitest';
import { colourFill, gradientFill } from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { allFills, type Shape, type ShapeGroup } from '../../src/lib/core/recipe/layout';
import type { StrikeSheet } from '../../src/lib/core/recipe/strike-off';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import { copyLayout } from '../../src/lib/server/repo/layout-making';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { getLayout } from '../../src/lib/server/repo/layouts';
import {
  keepStrikeOff,
  listStrikeOffs,
  removeStrikeOff,
  saveStrikeOff,
} from '../../src/lib/server/repo/strike-offs';
import { changeProject, getProject } from '../../src/lib/server/repo/projects';
import { getPattern } from '../../src/lib/server/repo/patterns';
import { filledShape } from '../support/scenes';
import { kept, laidOut, need, projectNamed, sentence } from '../support/studio';

const group = (id: string, parent: string | null = null): ShapeGroup => ({
  id,
  name: id.toUpperCase(),
  parent,
  locked: false,
  hidden: false,
});

function workshop(): { db: Db; project: string; id: string; shape: Shape; pattern: string } {
  const db = openDatabase(':memory:');
  const pattern = kept(db, 'Waves', {});
  const project = projectNamed(db, 'Job');
  const shape: Shape = {
    ...filledShape({ x: 1, y: 2, width: 90, height: 60 }, { pattern, id: 'f', reflectX: true }),
    id: 's',
    name: 'Sign',
    group: 'inner',
    skew: 5,
    mask: { kind: 'gradient', gradient: freshGradient({ colour: '#000000' }, { colour: '#000000' }) },
    stroke: {
      width: 3,
      cap: 'round',
      join: 'bevel',
      dashes: [4, 2],
      fills: [{ ...filledShape({ x: 0, y: 0, width: 1, height: 1 }, { pattern }).fills[0]!, id: 'sf' }],
    },
  };
  const layout = laidOut(db, project, 'L', []);
  need(
    applyChanges(db, layout.id, layout.version, [
      { do: 'page', bleed: 9, margin: 12, guides: [{ axis: 'x', at: 40 }] },
      { do: 'put-group', group: group('outer') },
      { do: 'put-group', group: group('inner', 'outer') },
      { do: 'put-shape', shape },
    ]),
  );
  return { db, project, id: layout.id, shape, pattern };
}

describe('the unit of a project', () => {
  it('is shown in all its layouts and bumps only those that it changes; lengths stay', () => {
    const { db, project, id } = workshop();
    const other = laidOut(db, project, 'Other', []);
    const before = need(getLayout(db, id));
    expect(need(changeProject(db, project, 1, { measure: 'in' }))).toEqual({ version: 2 });
    expect(need(getProject(db, project))).toMatchObject({ name: 'Job', measure: 'in' });
    for (const one of [id, other.id]) expect(need(getLayout(db, one)).measure).toBe('in');
    const { version, measure: _measure, ...rest } = need(getLayout(db, id));
    expect(rest).toMatchObject({ width: before.width, shapes: before.shapes });
    expect(version).toBe(before.version + 1);
    need(changeProject(db, project, 2, { name: 'Job two' }));
    expect(need(getLayout(db, id)).version).toBe(version);
    expect(sentence(changeProject(db, project, 1, { measure: 'mm' }))).toMatch(/changed/);
  });
});

describe('a layout', () => {
  it('comes back with strokes, groups, masks and guides as it was put', () => {
    const { db, id, shape, pattern } = workshop();
    const layout = need(getLayout(db, id));
    expect(layout.shapes).toEqual([shape]);
    expect(layout).toMatchObject({ bleed: 9, margin: 12, guides: [{ axis: 'x', at: 40 }] });
    expect(layout.groups).toEqual([group('outer'), group('inner', 'outer')]);
    // A pattern in a stroke is a use of it like any other.
    expect(
      need(getPattern(db, pattern))
        .usedIn.map(({ fillId }) => fillId)
        .sort(),
    ).toEqual(['f', 'sf']);
  });

  it('refuses a group that would lie in itself, and ids that another fill has', () => {
    const { db, id, shape } = workshop();
    const { version } = need(getLayout(db, id));
    expect(
      sentence(applyChanges(db, id, version, [{ do: 'put-group', group: group('outer', 'inner') }])),
    ).toMatch(/cannot lie in itself/);
    const other = { ...shape, id: 'other', fills: [colourFill('f', { colour: '#ff0000' })], stroke: null };
    expect(sentence(applyChanges(db, id, version, [{ do: 'put-shape', shape: other }]))).toMatch(
      /belongs to another fill already/,
    );
    expect(need(getLayout(db, id)).version).toBe(version);
  });

  it('is doubled with all that is in it, under ids of its own; its name must be free', () => {
    const { db, id } = workshop();
    const before = need(getLayout(db, id));
    expect(sentence(copyLayout(db, id, 'L'))).toMatch(/named “L” already/);
    const copy = need(getLayout(db, need(copyLayout(db, id, 'L two')).id));
    const bare = (shape: Shape) => ({
      ...shape,
      id: '',
      group: '',
      fills: shape.fills.map((fill) => ({ ...fill, id: '' })),
      stroke: shape.stroke && {
        ...shape.stroke,
        fills: shape.stroke.fills.map((fill) => ({ ...fill, id: '' })),
      },
    });
    expect(copy.shapes.map(bare)).toEqual(before.shapes.map(bare));
    expect(copy).toMatchObject({ bleed: 9, margin: 12, guides: before.guides });
    const [outer, inner] = copy.groups;
    expect(inner?.parent).toBe(outer?.id);
    expect(copy.shapes[0]?.group).toBe(inner?.id);
    const ids = [before, copy].flatMap(({ shapes, groups }) => [
      ...groups.map((one) => one.id),
      ...shapes.flatMap((shape) => [shape.id, ...allFills(shape).map((fill) => fill.id)]),
    ]);
    expect(new Set(ids).size).toBe(ids.length);
  });
});

describe('a strike-off', () => {
  it('is kept with its project, saved from the version one saw, and taken away', () => {
    const { db, project, id, shape } = workshop();
    const sheet: StrikeSheet = {
      shape: {
        ...shape,
        fills: [
          ...shape.fills,
          gradientFill('g', freshGradient({ colour: '#111111' }, { colour: '#eeeeee' })),
        ],
      },
      fill: 'f',
      across: { property: 'scale', values: [0.5, 1] },
      down: null,
    };
    const made = need(keepStrikeOff(db, project, { name: 'Sizes', layoutId: id, sheet }));
    expect(made).toMatchObject({ name: 'Sizes', version: 1, sheet });
    const turned = { ...sheet, down: { property: 'rotation' as const, values: [0, 45] } };
    need(saveStrikeOff(db, made.id, { base: 1, name: 'Sizes and turns', sheet: turned }));
    expect(sentence(saveStrikeOff(db, made.id, { base: 1, name: 'Late', sheet }))).toMatch(
      /changed elsewhere/,
    );
    expect(listStrikeOffs(db, project)).toMatchObject([
      { name: 'Sizes and turns', sheet: { down: turned.down } },
    ]);
    need(removeStrikeOff(db, made.id));
    expect(listStrikeOffs(db, project)).toEqual([]);
    expect(sentence(removeStrikeOff(db, made.id))).toMatch(/may have been taken away/);
    expect(sentence(keepStrikeOff(db, 'gone', { name: 'X', layoutId: id, sheet }))).toMatch(/no project/);
  });
});
