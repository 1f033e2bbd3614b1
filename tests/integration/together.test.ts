import fc from 'fast-check';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { LayoutChange, LayoutInUse } from '../../src/lib/contract/data';
import { done, type Outcome } from '../../src/lib/contract/failure';
import { sameValue } from '../../src/lib/core/num/same';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { changesSince } from '../../src/lib/server/repo/layout-log';
import { getLayout, layoutInUse } from '../../src/lib/server/repo/layouts';
import { applyChanges as replay, docOf, moveInStack } from '../../src/lib/ui/layout/doc';
import { LayoutEditor } from '../../src/lib/ui/layout/editor.svelte';
import { laidOut, need, projectNamed } from '../support/studio';

/**
 * Several people on one layout: the real sessions of the interface against the real database, over a line that is slow, loses requests
 * and loses answers. Everything ends equal, nothing that was acknowledged is lost, and one's own undo restores one's own fields alone.
 */
let db: Db;
let id = '';
/** From 0 to 1, in an order that a seed decides. */
let random: () => number = Math.random;

const seeded = (seed: number): (() => number) => {
  let state = seed;
  return () => {
    // Mulberry32 (public domain).
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
};

function answer(method: string, path: string, body: unknown): Outcome<unknown> {
  const url = new URL(path, 'http://isle');
  if (method === 'POST') {
    const { base, changes } = body as { base: number; changes: Parameters<typeof applyChanges>[3] };
    return applyChanges(db, id, base, changes);
  }
  if (url.pathname.endsWith('/changes')) {
    const since = changesSince(db, id, Number(url.searchParams.get('since')));
    return done({ version: since?.at(-1)?.version ?? 0, since });
  }
  return done(layoutInUse(db, need(getLayout(db, id))));
}

/** The line: up to 300 ms each way; `losses` is the share of requests, and of answers, that never come. */
function lineOf(losses: () => number): typeof fetch {
  const wait = () => new Promise((resolve) => setTimeout(resolve, random() * 300));
  return async (path, request) => {
    await wait();
    if (random() < losses()) throw new TypeError('lost');
    const body = request?.body ? (JSON.parse(request.body as string) as unknown) : undefined;
    const outcome = answer(request?.method ?? 'GET', path as string, body);
    const said = JSON.stringify(outcome.ok ? outcome.value : outcome.failure);
    await wait();
    if (random() < losses()) throw new TypeError('lost');
    return new Response(said, { status: outcome.ok ? 200 : 409 });
  };
}

const box = (name: string, over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id: name, name, form: { kind: 'rectangle', radius: 0 } },
    ...{ x: 0, y: 0, width: 40, height: 30, fills: [], ...over },
  });

function begin(seed: number, losses: () => number): void {
  if (db?.$client.open) db.$client.close();
  db = openDatabase(':memory:');
  const shapes = ['a', 'b', 'c', 'd'].map((name) => box(name));
  ({ id } = laidOut(db, projectNamed(db, 'Job'), 'Sign', shapes));
  random = seeded(seed);
  vi.stubGlobal('fetch', lineOf(losses));
}
beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  db.$client.close();
});

const opened = (): LayoutEditor => {
  const { layout, patterns, pages } = layoutInUse(db, need(getLayout(db, id))) as LayoutInUse;
  return new LayoutEditor(layout, patterns, pages);
};
const stored = () => docOf(need(getLayout(db, id)));

/** What one did to one field, to be held against what undo does. */
type Did = { shape: string; field: 'x' | 'y' | 'rotation'; before: number; after: number };

class Somebody {
  readonly editor = opened();
  readonly did: Did[] = [];
  count = 0;

  constructor(readonly name: string) {}

  private commit(change: (doc: LayoutEditor['history']['doc']) => LayoutEditor['history']['doc']): void {
    this.editor.history.commit(change(this.editor.history.doc));
    this.editor.saver.want(this.editor.history.doc);
  }

  /** Gives a field a value that nobody else gives anything. */
  set(field: Did['field'], at: number, value: number): void {
    const { shapes } = this.editor.history.doc;
    const held = shapes[at % Math.max(1, shapes.length)];
    if (!held) return;
    this.did.push({ shape: held.id, field, before: held[field], after: value });
    this.commit((doc) => ({
      ...doc,
      shapes: doc.shapes.map((one) => (one === held ? { ...one, [field]: value } : one)),
    }));
  }

  /** Begins a drag, or goes on with it: nothing of it is saved until it is let go. */
  pull(at: number, value: number): void {
    const { history } = this.editor;
    const { shapes } = history.settled;
    const held = shapes[at % Math.max(1, shapes.length)];
    const moved = shapes.map((one) => (one === held ? { ...one, width: value } : one));
    history.live({ ...history.settled, shapes: moved });
  }

  letGo(): void {
    this.editor.history.commit();
    this.editor.saver.want(this.editor.history.doc);
  }

  draw(): void {
    const fresh = box(`${this.name}${(this.count += 1)}`);
    this.commit((doc) => ({ ...doc, shapes: [...doc.shapes, fresh] }));
  }

  takeAway(at: number): void {
    this.commit((doc) => ({ ...doc, shapes: doc.shapes.filter((_, index) => index !== at % 7) }));
  }

  restack(from: number, to: number): void {
    const moved = this.editor.history.doc.shapes[from % 5];
    if (moved) this.commit((doc) => moveInStack(doc, moved.id, to % 5));
  }

  undo(): void {
    this.editor.history.undo();
    this.editor.saver.want(this.editor.history.doc);
  }

  hear(): void {
    void this.editor.refreshLayout(need(getLayout(db, id)).version);
  }
}

/** Lets time go by until nobody has anything left to save or to hear. */
async function quiet(people: readonly Somebody[]): Promise<void> {
  for (let turn = 0; turn < 400; turn += 1) {
    await vi.advanceTimersByTimeAsync(500);
    for (const one of people) one.hear();
    await vi.advanceTimersByTimeAsync(700);
    const { version } = need(getLayout(db, id));
    if (people.every(({ editor: { saver } }) => saver.clean && saver.version === version)) return;
  }
  throw new Error('It never came to rest.');
}

/** True where changes give a field of a shape this value. */
const says = (changes: readonly LayoutChange[], shape: string, field: Did['field'], value: number): boolean =>
  changes.some(
    (change) =>
      (change.do === 'patch-shape' && change.id === shape && change.fields[field] === value) ||
      (change.do === 'put-shape' && change.shape.id === shape && change.shape[field] === value),
  );

const deed = fc.record({
  who: fc.nat(4),
  what: fc.constantFrom(
    'x',
    'y',
    'rotation',
    'draw',
    'take',
    'stack',
    'pull',
    'let go',
    'undo',
    'hear',
    'wait',
    'wait',
  ),
  at: fc.nat(6),
  to: fc.nat(4),
});

it('three to five people end equal, whatever they do and whatever the line loses; what was acknowledged is in what came of it', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 3, max: 5 }),
      fc.array(deed, { minLength: 5, maxLength: 40 }),
      fc.integer(),
      async (count, deeds, seed) => {
        let losses = 0.15;
        begin(seed, () => losses);
        const first = stored();
        const people = Array.from({ length: count }, (_, index) => new Somebody('pqrst'[index]!));
        let value = 10;
        for (const { who, what, at, to } of deeds) {
          const one = people[who % count]!;
          value += 1;
          if (what === 'draw') one.draw();
          else if (what === 'take') one.takeAway(at);
          else if (what === 'stack') one.restack(at, to);
          else if (what === 'undo') one.undo();
          else if (what === 'pull') one.pull(at, value);
          else if (what === 'let go') one.letGo();
          else if (what === 'hear') one.hear();
          else if (what === 'wait') await vi.advanceTimersByTimeAsync(at * 300);
          else one.set(what, at, value);
        }
        losses = 0;
        for (const one of people) if (one.editor.history.inGesture) one.letGo();
        await quiet(people);
        const end = stored();
        for (const { editor } of people) {
          expect(editor.history.doc.shapes.map(({ id: one }) => one)).toEqual(
            end.shapes.map(({ id: one }) => one),
          );
          expect(sameValue(editor.history.doc, end)).toBe(true);
        }
        // What every save changed, one after the other, comes to just what is stored: none was undone without a word.
        const log = changesSince(db, id, 2) ?? [];
        expect(
          sameValue(
            log.reduce((doc, { changes }) => replay(doc, changes), first),
            end,
          ),
        ).toBe(true);
        // What one gave a field and nobody changed since is in it; else it was said, or changed by a save that came later.
        for (const one of people)
          for (const { shape, field, after } of one.did) {
            const saved = log.some(({ changes }) => says(changes, shape, field, after));
            const said = one.editor.together.clashes.some(
              (clash) => clash.shape === shape && clash.mine === after,
            );
            const again = one.did.some(
              (later) => later.shape === shape && later.field === field && later.after > after,
            );
            // What one undid or took away oneself is one's own to lose.
            const undone = deeds.some(
              ({ who, what }) => (what === 'undo' || what === 'take') && people[who % count] === one,
            );
            const gone = !end.shapes.some(({ id: held }) => held === shape);
            expect({ shape, field, after, kept: saved || said || again || undone || gone }).toMatchObject({
              kept: true,
            });
          }
      },
    ),
    { numRuns: 60 },
  );
}, 240_000);

it('own undo restores own fields alone, to what they were, unless somebody changed them since', async () => {
  const place = fc.record({
    who: fc.nat(2),
    field: fc.constantFrom('x' as const, 'y' as const, 'rotation' as const),
    at: fc.nat(3),
    undo: fc.boolean(),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(place, { minLength: 3, maxLength: 30 }), fc.integer(), async (deeds, seed) => {
      begin(seed, () => 0);
      const people = ['p', 'q', 'r'].map((name) => new Somebody(name));
      let value = 100;
      for (const { who, field, at, undo } of deeds) {
        const one = people[who]!;
        value += 1;
        if (!undo) one.set(field, at, value);
        else {
          const step = one.did.pop();
          const before = one.editor.history.doc;
          one.undo();
          const after = one.editor.history.doc;
          // The plain model: the field that one gave a value last has the one from before, if it still has the one that one gave it.
          const wanted = new Map(before.shapes.map((shape) => [shape.id, shape]));
          const held = step && wanted.get(step.shape);
          if (step && held && held[step.field] === step.after)
            wanted.set(step.shape, { ...held, [step.field]: step.before });
          expect(after.shapes).toEqual(before.shapes.map(({ id: one }) => wanted.get(one)));
        }
        await quiet(people);
      }
    }),
    { numRuns: 15 },
  );
}, 240_000);

it('a save that is refused while one is in the midst of a drag waits for its end, and nobody is asked anything', async () => {
  begin(7, () => 0);
  const [mine, theirs] = [new Somebody('p'), new Somebody('q')];
  theirs.set('y', 0, 77);
  await vi.advanceTimersByTimeAsync(3000);
  mine.set('x', 0, 55);
  await vi.advanceTimersByTimeAsync(260);
  mine.pull(1, 123);
  for (let turn = 0; turn < 10; turn += 1) {
    await vi.advanceTimersByTimeAsync(500);
    expect(mine.editor.saver.state.kind).toBe('saving');
    expect(mine.editor.history.doc.shapes[1]?.width).toBe(123);
  }
  mine.letGo();
  await quiet([mine, theirs]);
  expect(stored().shapes[0]).toMatchObject({ x: 55, y: 77 });
  expect(stored().shapes[1]).toMatchObject({ width: 123 });
  mine.undo();
  await quiet([mine, theirs]);
  expect(
    stored()
      .shapes.map(({ x, y, width }) => [x, y, width])
      .slice(0, 2),
  ).toEqual([
    [55, 77, 40],
    [0, 0, 40],
  ]);
});
