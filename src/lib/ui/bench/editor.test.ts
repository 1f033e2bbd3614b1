import { describe, expect, it } from 'vitest';
import { latticeOf, type Repeat } from '$lib/core/lattice/repeat';
import { latticeShares } from '$lib/core/lattice/repeat';
import type { ComposedRecipe, Placing } from '$lib/core/recipe/recipe';
import { block, drawing, place, recipe } from '../../../../tests/support/recipes';
import { toasts } from '../state/toasts.svelte';
import { BenchEditor } from './editor.svelte';

const START = recipe({
  motifs: [block('a', 10, 20), block('b', 30, 30)],
  placings: [place('a', 20, 20), place('b', 60, 50), place('a', 80, 70)],
});

/** An editor whose first step is `start`. */
function editing(start: ComposedRecipe = START): BenchEditor {
  const editor = new BenchEditor(null);
  editor.commit(start);
  return editor;
}
const ids = START.placings.map(({ id }) => id) as [string, string, string];
const placed = (editor: BenchEditor, id: string): Placing => {
  const found = editor.composed.placings.find((placing) => placing.id === id);
  if (!found) throw new Error(`no ${id}`);
  return found;
};
const lastToast = (): string => toasts.list[toasts.list.length - 1]?.message ?? '';

describe('moving pieces on the bench', () => {
  it('is one step however many states it shows, and ends where it began when it is called off', () => {
    const editor = editing();
    editor.select([ids[0]]);
    for (let by = 1; by <= 30; by += 1) editor.change((placing) => ({ ...placing, x: placing.x + by }), true);
    expect(placed(editor, ids[0]).x).toBe(50);
    expect(editor.settled.placings[0]?.x).toBe(20);
    editor.settle();
    expect(placed(editor, ids[0]).x).toBe(50);
    editor.history.undo();
    expect(editor.composed).toEqual(START);
    editor.change((placing) => ({ ...placing, x: placing.x + 9 }), true);
    editor.history.cancel();
    expect(editor.composed).toEqual(START);
  });

  it('parts what lies behind the moving pieces from what lies in front of them', () => {
    const editor = editing();
    editor.select([ids[1]]);
    editor.change((placing) => ({ ...placing, x: placing.x + 1 }), true);
    const names = (pieces: readonly { id: string }[] | undefined): string[] =>
      pieces?.map(({ id }) => id) ?? [];
    expect(names(editor.parted?.behind.pieces)).toEqual([ids[0]]);
    expect(names(editor.moved?.pieces)).toEqual([ids[1]]);
    expect(names(editor.parted?.inFront.pieces)).toEqual([ids[2]]);
    expect(editor.still).toBe(editor.settled);
    editor.settle();
    expect(editor.parted).toBeNull();
  });

  it('brings a piece that is left outside into the unit by whole steps of the repeat', () => {
    for (const repeat of [
      { kind: 'straight' },
      { kind: 'half-drop', step: 0.5, run: 'progressive' },
      { kind: 'brick', step: 0.3, run: 'progressive' },
    ] satisfies Repeat[]) {
      const editor = editing({ ...START, repeat });
      editor.select([ids[0]]);
      editor.change((placing) => ({ ...placing, x: placing.x + 730, y: placing.y - 410 }));
      const { x, y } = placed(editor, ids[0]);
      expect(Math.min(x, y)).toBeGreaterThanOrEqual(0);
      expect(Math.max(x, y)).toBeLessThan(100);
      const { unit, gap } = editor.composed;
      const shares = latticeShares(latticeOf(unit, gap, repeat), { x: x - 750, y: y + 390 });
      expect(shares.x).toBeCloseTo(Math.round(shares.x), 6);
      expect(shares.y).toBeCloseTo(Math.round(shares.y), 6);
    }
  });

  it('leaves it where it was put in a mirrored unit, whose images are no moved copies', () => {
    const editor = editing({ ...START, repeat: { kind: 'mirror' } });
    editor.select([ids[0]]);
    editor.change((placing) => ({ ...placing, x: 140 }));
    expect(placed(editor, ids[0]).x).toBe(140);
  });
});

describe('choosing and arranging', () => {
  it('adds to a choice and takes from it, and makes the motif of the first piece the one worked on', () => {
    const editor = editing();
    editor.select([ids[1]]);
    expect(editor.motif).toBe('b');
    editor.toggle(ids[2]);
    expect(editor.chosen.map(({ id }) => id)).toEqual([ids[1], ids[2]]);
    expect(editor.single).toBeNull();
    editor.toggle(ids[1]);
    expect(editor.single?.id).toBe(ids[2]);
    expect(editor.motif).toBe('a');
  });

  it('lines pieces up by their ink, and a single one by the unit', () => {
    const editor = editing();
    editor.select(ids);
    editor.align('left');
    // The ink of the first one begins at 15; the others are moved until theirs does.
    expect(editor.composed.placings.map(({ x }) => x)).toEqual([20, 30, 20]);
    editor.select([ids[1]]);
    editor.align('middle');
    editor.align('centre');
    expect(placed(editor, ids[1])).toMatchObject({ x: 50, y: 50 });
  });

  it('turns a piece over in its place: a turned one leans the other way', () => {
    const turned = { ...START, placings: [{ ...START.placings[0]!, rotation: 30 }] };
    const editor = editing(turned);
    editor.select([ids[0]]);
    editor.mirror(true);
    expect(placed(editor, ids[0])).toMatchObject({ x: 20, y: 20, rotation: -30, scaleX: -1, scaleY: 1 });
    editor.mirror(true);
    expect(placed(editor, ids[0])).toEqual(turned.placings[0]);
  });

  it('brings pieces to the front and to the back one place at a time', () => {
    const editor = editing();
    editor.select([ids[0]]);
    editor.restack('front');
    expect(editor.composed.placings.map(({ id }) => id)).toEqual([ids[1], ids[0], ids[2]]);
    editor.restack('back');
    expect(editor.composed.placings.map(({ id }) => id)).toEqual(ids);
  });

  it('doubles what is chosen beside itself and removes it, in one step each', () => {
    const editor = editing();
    editor.double();
    expect(editor.composed).toBe(START);
    editor.select([ids[0], ids[2]]);
    editor.double();
    expect(editor.composed.placings).toHaveLength(5);
    expect(editor.chosen.map(({ x, y }) => [x, y])).toEqual([
      [30, 30],
      [90, 80],
    ]);
    editor.remove();
    expect(editor.composed.placings.map(({ id }) => id)).toEqual(ids);
    expect(editor.selected.size).toBe(0);
    editor.history.undo();
    editor.history.undo();
    expect(editor.composed).toEqual(START);
  });
});

describe('motifs on the bench', () => {
  it('come in with a name of their own, in the ink that is there, never in the colour of the ground', () => {
    const ground = { kind: 'slot', slot: 'ink' } as const;
    const editor = editing(recipe({ ground }));
    editor.addForm('star');
    editor.addForm('star');
    const { motifs, slots, placings } = editor.composed;
    expect(new Set(motifs.map(({ name }) => name)).size).toBe(2);
    expect(slots).toHaveLength(2);
    expect(motifs.map(({ content }) => content.kind === 'form' && content.slot)).toEqual(['paper', 'paper']);
    expect(placings.map(({ motif }) => motif)).toEqual(motifs.map(({ id }) => id));
    expect(editor.problems).toEqual([]);
  });

  it('bring a slot where there is none to ink them with', () => {
    const editor = editing(recipe({ slots: [] }));
    editor.addForm('line');
    expect(editor.composed.slots).toHaveLength(1);
    expect(editor.problems).toEqual([]);
  });

  it('larger than the unit are placed smaller', () => {
    const editor = editing(recipe({ motifs: [block('big', 400, 40)] }));
    editor.place('big');
    expect(editor.single?.scaleX).toBeCloseTo(0.2, 9);
    editor.place('gone');
    expect(editor.composed.placings).toHaveLength(1);
  });

  it('change with all their placings, or with the chosen ones alone once those are cut loose', () => {
    const editor = editing();
    editor.changeMotif('a', (motif) => ({ ...motif, name: 'Reed' }));
    expect(editor.composed.motifs.map(({ name }) => name)).toEqual(['Reed', 'b']);
    editor.select([ids[0]]);
    editor.cutLoose();
    const own = placed(editor, ids[0]).motif;
    expect(own).not.toBe('a');
    expect(placed(editor, ids[2]).motif).toBe('a');
    expect(editor.motif).toBe(own);
    editor.removeMotif('a');
    expect(editor.composed.placings.map(({ id }) => id)).toEqual([ids[0], ids[1]]);
  });

  it('fill the widest gap as far as its circle lets them', () => {
    const editor = editing();
    editor.select([ids[1]]);
    editor.fillGap({ at: { x: 10, y: 90 }, radius: 7 });
    const { single } = editor;
    // A block of 30 × 30 reaches 15·√2 from its middle.
    expect(single?.scaleX).toBeCloseTo((7 * 0.9) / (15 * Math.SQRT2), 6);
    expect(single).toMatchObject({ motif: 'b', x: 10, y: 90 });
  });

  it('give the unit its size, and a sentence where there are none', () => {
    const editor = editing();
    editor.fit(5);
    // From 15 to 85 across and 10 to 80 down, with 5 px round it.
    expect(editor.composed.unit.width).toBeCloseTo(80, 6);
    expect(editor.composed.unit.height).toBeCloseTo(80, 6);
    const empty = editing(recipe());
    empty.fit();
    expect(lastToast()).toMatch(/place a motif first/);
    expect(empty.composed.unit).toEqual({ width: 100, height: 100 });
  });
});

describe('a pattern that cannot be drawn', () => {
  it('says why and draws nothing, and is whole again after one step back', () => {
    const editor = editing();
    expect(editor.problems).toEqual([]);
    const far = drawing('far', 'M 0 0 L 1e9 0 L 1e9 1e9 Z');
    editor.commit({ ...START, motifs: [...START.motifs, far], placings: [place('far', 50, 50)] });
    expect(editor.problems.length).toBeGreaterThan(0);
    expect(editor.problems[0]?.message).toMatch(/\S+ \S+/);
    expect(editor.scene.pieces).toEqual([]);
    editor.history.undo();
    expect(editor.problems).toEqual([]);
    expect(editor.scene.pieces).toHaveLength(3);
  });
});
