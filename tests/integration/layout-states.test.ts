import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { colourFill, coveringPicture, freshFill } from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import {
  applyChanges as forward,
  type LayoutChange,
  type LayoutDoc,
} from '../../src/lib/core/recipe/layout-changes';
import { askedBy, openDatabase, type Db } from '../../src/lib/server/db/open';
import { replaceEverywhere } from '../../src/lib/server/repo/bulk';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { changesSince } from '../../src/lib/server/repo/layout-log';
import { FIRST, listStates, nameState, stateAt, thinStates } from '../../src/lib/server/repo/layout-states';
import { getLayout } from '../../src/lib/server/repo/layouts';
import { addPerson } from '../../src/lib/server/repo/people';
import { publish, setHeld } from '../../src/lib/server/repo/publishing';
import { changeProject, getProject } from '../../src/lib/server/repo/projects';
import { unusedAssets } from '../../src/lib/server/repo/tidying';
import { storeAsset } from '../../src/lib/server/repo/assets';
import { saveDraft } from '../../src/lib/server/repo/patterns';
import { docOf } from '../../src/lib/ui/layout/doc';
import { kept, laidOut, need, patternOf, PLAIN, projectNamed } from '../support/studio';

/** The states of a layout: every one that is kept is just what was there, however many were taken together since. */
let db: Db;
let project = '';
let id = '';
beforeEach(() => {
  db = openDatabase(':memory:');
  project = projectNamed(db, 'Job');
  ({ id } = laidOut(db, project, 'Sign', [box('a'), box('b'), box('c')]));
});
afterEach(() => db.$client.close());

const box = (name: string, over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id: name, name, form: { kind: 'rectangle', radius: 0 } },
    ...{ x: 0, y: 0, width: 40, height: 30, fills: [], ...over },
  });
const now = (): LayoutDoc => docOf(need(getLayout(db, id)));
const version = (): number => need(getLayout(db, id)).version;
const save = (...changes: LayoutChange[]): number => need(applyChanges(db, id, version(), changes)).version;
const at = (state: number): LayoutDoc => docOf(need(stateAt(db, id, state)).layout);
const versions = (): number[] => need(listStates(db, id)).map((state) => state.version);
/** Sets back when saves were made, so that the last was just now and each earlier one so long before the next. */
const spread = (ms: number): void => {
  const rows = db.$client
    .prepare('SELECT version FROM layout_log ORDER BY version DESC')
    .pluck()
    .all() as number[];
  const set = db.$client.prepare('UPDATE layout_log SET at = ? WHERE version = ?');
  rows.forEach((one, index) => set.run(Date.now() - index * ms, one));
};

describe('states of a layout', () => {
  it('are just what was there, after any saves, before and after they are taken together', () => {
    const deed = fc.record({
      what: fc.constantFrom('put', 'patch', 'refill', 'remove', 'order', 'group', 'ungroup', 'page'),
      shape: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
      value: fc.integer({ min: 1, max: 500 }),
    });
    fc.assert(
      fc.property(
        fc.array(deed, { minLength: 4, maxLength: 25 }),
        fc.integer({ min: 5_000, max: 4e7 }),
        (deeds, apart) => {
          const page = laidOut(db, project, `Sign ${version()} ${Math.random()}`, []);
          id = page.id;
          const was = new Map<number, LayoutDoc>([FIRST, version()].map((state) => [state, now()]));
          for (const { what, shape, value } of deeds) {
            const name = `${id}${shape}`;
            const [before, since] = [now(), version()];
            const here = now().shapes.some((one) => one.id === name);
            if (what === 'put')
              save({
                do: 'put-shape',
                shape: box(name, { x: value, fills: [colourFill(`${name}f`, { colour: '#102030' })] }),
              });
            else if (what === 'page') save({ do: 'page', bleed: value });
            else if (!here) continue;
            else if (what === 'patch') save({ do: 'patch-shape', id: name, fields: { x: value } });
            else if (what === 'refill') {
              // Patches alone, two of them of one shape, of which the second says nothing of its fills.
              const fills = Array.from({ length: value % 3 }, (_, n) =>
                colourFill(`${name}${n}`, { colour: value % 2 === 0 ? '#102030' : '#405060' }),
              );
              save(
                { do: 'patch-shape', id: name, fields: { fills, locked: value % 2 === 0 } },
                { do: 'patch-shape', id: name, fields: { x: value, name: `N${value}` } },
              );
            } else if (what === 'ungroup') {
              if (before.groups.length > 0)
                save(
                  { do: 'patch-shape', id: name, fields: { x: value } },
                  { do: 'remove-group', id: `${id}g` },
                );
            } else if (what === 'remove') save({ do: 'remove-shape', id: name });
            else if (what === 'order')
              save({
                do: 'order',
                ids: now()
                  .shapes.map((one) => one.id)
                  .reverse(),
              });
            else {
              const group = { id: `${id}g`, name: 'G', parent: null, locked: false, hidden: false };
              save({ do: 'put-group', group }, { do: 'patch-shape', id: name, fields: { group: group.id } });
            }
            was.set(version(), now());
            const told = changesSince(db, id, since)?.flatMap(({ changes }) => changes) ?? [];
            expect(forward(before, told)).toEqual(now());
          }
          for (const state of versions()) expect(at(state)).toEqual(was.get(state));
          spread(apart);
          thinStates(db, Date.now(), 100);
          for (const state of versions()) expect(at(state)).toEqual(was.get(state));
          expect(versions()).toContain(FIRST);
          expect(versions()[0]).toBe(version() === 1 ? FIRST : version());
        },
      ),
      { numRuns: 40 },
    );
  });

  it('are one of a minute within an hour, of an hour within a day, of a day before; named ones stay for good', () => {
    for (let count = 0; count < 400; count += 1)
      save({ do: 'patch-shape', id: 'a', fields: { x: count + 1 } });
    const named = version() - 333;
    need(nameState(db, id, named, 'As the client saw it'));
    // Four hundred saves, twenty minutes apart: five and a half days.
    spread(20 * 60_000);
    thinStates(db);
    const states = need(listStates(db, id));
    const slots = states
      .filter((state) => state.version !== FIRST && state.name === null)
      .map((state) => state.at);
    const hours = slots.filter((when) => Date.now() - when < 86_400_000 && Date.now() - when > 3_600_000);
    const days = slots.filter((when) => Date.now() - when > 86_400_000);
    expect(hours.length).toBeGreaterThanOrEqual(22);
    expect(hours.length).toBeLessThanOrEqual(25);
    expect(days.length).toBeGreaterThanOrEqual(4);
    expect(days.length).toBeLessThanOrEqual(7);
    expect(states.find((state) => state.name !== null)).toMatchObject({
      version: named,
      name: 'As the client saw it',
    });
    expect(at(named).shapes[0]?.x).toBe(named - 2);
    // A second time takes nothing more together.
    expect(thinStates(db)).toBe(0);
  });

  it('take on disk what differs, not the layout', () => {
    const many = Array.from({ length: 300 }, (_, n) => ({ do: 'put-shape' as const, shape: box(`m${n}`) }));
    save(...many);
    for (let count = 0; count < 50; count += 1)
      save({ do: 'patch-shape', id: `m${count}`, fields: { x: count + 1 } });
    const sizes = need(listStates(db, id))
      .slice(0, 50)
      .map(({ bytes }) => bytes);
    expect(Math.max(...sizes)).toBeLessThan(120);
    const whole = JSON.stringify(now()).length;
    expect(sizes.reduce((sum, bytes) => sum + bytes, 0)).toBeLessThan(whole / 10);
  });

  it('know of what was done to many layouts at once, and who did it', () => {
    const [from, to] = [kept(db, 'From'), kept(db, 'To')];
    const person = askedBy(
      db,
      addPerson(db, { name: 'Tove', role: 'designer', email: 't@x.example', password: null }),
    );
    save({ do: 'put-shape', shape: box('filled', { fills: [freshFill('ff', from)] }) });
    const before = version();
    need(replaceEverywhere(person, from, { by: to }));
    const replaced = version();
    need(setHeld(person, to, ['ff'], true));
    need(changeProject(person, project, need(getProject(db, project)).version, { measure: 'in' }));
    const used = (doc: LayoutDoc): unknown => doc.shapes.find((shape) => shape.id === 'filled')?.fills[0];
    expect(used(at(before))).toMatchObject({ pattern: from });
    expect(used(at(replaced))).toMatchObject({ pattern: to, held: null });
    expect(used(now())).toMatchObject({ pattern: to, held: 1 });
    expect([at(replaced).measure, now().measure]).toEqual(['px', 'in']);
    const since = changesSince(db, id, before);
    expect(since?.map(({ by }) => by)).toEqual(['Tove', 'Tove', 'Tove']);
    // Publishing holds uses in the same way.
    const draft = need(
      saveDraft(person, to, patternOf(db, to).version, { ...PLAIN, unit: { width: 30, height: 30 } }),
    );
    need(setHeld(person, to, ['ff'], false));
    const free = version();
    need(publish(person, to, draft.version, ['ff']));
    expect(used(at(free))).toMatchObject({ held: null });
    expect(used(now())).toMatchObject({ held: 1 });
  });

  it('keep the pictures that they show from being cleared', () => {
    const asset = storeAsset(db, {
      bytes: Buffer.from('picture'),
      mediaType: 'image/png',
      fileName: 'p.png',
    });
    const fill = coveringPicture('pf', { asset, width: 9, height: 9 }, { width: 40, height: 30 });
    save({ do: 'put-shape', shape: box('shown', { fills: [fill] }) });
    save({ do: 'remove-shape', id: 'shown' });
    const later = Date.now() + 30 * 86_400_000;
    expect(unusedAssets(db, later)).toEqual([]);
    expect(at(version() - 1).shapes.some((shape) => shape.id === 'shown')).toBe(true);
  });
});
