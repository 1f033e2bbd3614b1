import { beforeAll, describe, expect, it, vi } from 'vitest';
import type { BenchReply } from '$lib/contract/bench-work';
import { translation } from '$lib/core/geom/affine';
import { pathArea } from '../../../../../tests/support/areas';
import { recipe } from '../../../../../tests/support/recipes';
import { BenchWorker } from '$lib/workers/client';
import { LIMITS } from '$lib/core/recipe/limits';
import { toasts } from '../../state/toasts.svelte';
import { BenchEditor } from '../editor.svelte';
import { Board } from './board.svelte';

type Hear = (event: { data: unknown }) => void;

/** The bench's worker itself, in this thread. */
beforeAll(async () => {
  let work: Hear = () => undefined;
  let reply: Hear = () => undefined;
  vi.stubGlobal('addEventListener', (_: string, hear: Hear) => (work = hear));
  vi.stubGlobal('postMessage', (data: BenchReply) => reply({ data }));
  vi.stubGlobal(
    'Worker',
    class {
      addEventListener(_: string, hear: Hear): void {
        reply = hear;
      }
      postMessage(data: unknown): void {
        work({ data });
      }
      terminate(): void {
        reply = () => undefined;
      }
    },
  );
  await import('$lib/workers/bench-worker');
});

function drawingBoard(): { board: Board; editor: BenchEditor } {
  const editor = new BenchEditor(null);
  editor.commit(recipe());
  const board = new Board(editor, editor.addEmpty(), new BenchWorker());
  return { board, editor };
}
const RECTANGLE = { kind: 'rectangle', radius: 0 } as const;
const box = (x: number, y: number, width: number, height: number) => ({ x, y, width, height });
const lastToast = (): string => toasts.list[toasts.list.length - 1]?.message ?? '';

/** A board with two overlapping squares of 10 px: the second lies 5 px to the right. */
function twoSquares(): ReturnType<typeof drawingBoard> {
  const made = drawingBoard();
  made.board.addForm(RECTANGLE, box(0, 0, 10, 10));
  made.board.addForm(RECTANGLE, box(5, 0, 10, 10));
  made.board.selectAll();
  return made;
}

describe('drawing a motif', () => {
  it('puts each form in front of the last, chosen, and gives the motif the size of its ink', () => {
    const { board } = twoSquares();
    expect(board.elements).toHaveLength(2);
    expect(board.box).toEqual(box(0, 0, 15, 10));
    expect(board.motif?.content).toMatchObject({ kind: 'drawing', width: 15, height: 10 });
    board.addForm({ kind: 'ellipse' }, box(20, 20, 4, 4));
    expect(board.selected).toEqual([2]);
    expect(board.single?.source).toMatchObject({ kind: 'form', x: 20, width: 4 });
  });

  it('paints the next one as the one chosen last, and a line with a stroke', () => {
    const { board } = twoSquares();
    board.change((element) => ({ ...element, fill: 'paper' }));
    board.select([0]);
    board.addForm(RECTANGLE, box(30, 0, 5, 5));
    expect(board.single?.fill).toBe('paper');
    board.addLine([
      { op: 'M', to: { x: 0, y: 0 } },
      { op: 'L', to: { x: 9, y: 0 } },
    ]);
    expect(board.single).toMatchObject({ fill: null, stroke: { cap: 'round' } });
    expect(board.single?.stroke?.width).toBeGreaterThanOrEqual(0.5);
  });

  it('gives a pattern without colours one to draw in', () => {
    const { board, editor } = drawingBoard();
    editor.commit({ ...editor.composed, slots: [] });
    board.addForm(RECTANGLE, box(0, 0, 10, 10));
    expect(editor.composed.slots).toHaveLength(1);
    expect(board.single?.fill).toBe(editor.composed.slots[0]?.id);
    expect(editor.problems).toEqual([]);
  });

  it('is undone a drag at a time', () => {
    const { board, editor } = twoSquares();
    const before = board.elements;
    for (let by = 1; by < 20; by += 1) board.transform(translation(by, 0), true);
    board.transform(translation(20, 0));
    expect(board.box).toEqual(box(20, 0, 15, 10));
    editor.history.undo();
    expect(board.elements).toEqual(before);
  });

  it('keeps a form a form when its numbers are set', async () => {
    const { board } = twoSquares();
    board.select([1]);
    const { source } = board.single!;
    if (source?.kind !== 'form') throw new Error('no form');
    await board.setSource({ ...source, width: 40 });
    expect(board.box).toEqual(box(5, 0, 40, 10));
    expect(board.single?.source).toMatchObject({ width: 40 });
  });

  it('stops with a sentence at the most elements that a motif may hold', () => {
    const { board } = twoSquares();
    const [first] = board.elements;
    board.put(Array.from({ length: LIMITS.elements + 1 }, () => first!));
    expect(lastToast()).toContain(String(LIMITS.elements));
    expect(board.elements).toHaveLength(2);
  });
});

describe('arranging elements', () => {
  it('chooses in the order of the stack, each once', () => {
    const { board } = twoSquares();
    board.select([1, 0, 1]);
    expect(board.selected).toEqual([0, 1]);
    board.toggle(0);
    expect(board.selected).toEqual([1]);
    board.toggle(0);
    expect(board.selected).toEqual([0, 1]);
  });

  it('restacks with the choice following, doubles beside, and removes', () => {
    const { board } = twoSquares();
    board.select([0]);
    board.restack('front');
    expect(board.selected).toEqual([1]);
    expect(board.box).toEqual(box(0, 0, 10, 10));
    board.double();
    expect(board.selected).toEqual([2]);
    expect(board.elements).toHaveLength(3);
    board.remove();
    board.remove();
    expect(board.elements).toHaveLength(2);
  });

  it('turns and mirrors about the middle of what is chosen', () => {
    const { board } = twoSquares();
    board.turn(90);
    expect(board.box!.width).toBeCloseTo(10, 6);
    expect(board.box!.height).toBeCloseTo(15, 6);
    expect(board.box!.x + board.box!.width / 2).toBeCloseTo(7.5, 6);
    board.turn(-90);
    board.select([0]);
    const before = board.box;
    board.mirror(true);
    expect(board.box!.x).toBeCloseTo(before!.x, 6);
  });

  it('lines several up with each other, and one with the middle that placings turn about', () => {
    const { board } = twoSquares();
    board.align('left');
    expect(board.box!.width).toBeCloseTo(10, 6);
    board.select([1]);
    board.align('centre');
    board.align('middle');
    expect(board.box).toEqual(box(-5, -5, 10, 10));
  });
});

describe('putting shapes together', () => {
  const areaOf = (board: Board): number => pathArea(board.single!.d);

  it('unites, subtracts, intersects and excludes their areas, in the place of the hindmost', async () => {
    for (const [operation, area] of [
      ['unite', 150],
      ['subtract', 50],
      ['intersect', 50],
      ['exclude', 100],
    ] as const) {
      const { board, editor } = twoSquares();
      board.addForm(RECTANGLE, box(50, 50, 4, 4));
      board.select([0, 1]);
      await board.combine(operation);
      expect(board.elements, operation).toHaveLength(2);
      expect(board.selected).toEqual([0]);
      expect(areaOf(board), operation).toBeCloseTo(area, 3);
      editor.history.undo();
      expect(board.elements).toHaveLength(3);
    }
  });

  it('asks for two filled shapes, and says where nothing would be left', async () => {
    const { board } = twoSquares();
    board.select([0]);
    await board.combine('unite');
    expect(lastToast()).toMatch(/at least two filled shapes/);
    board.transform(translation(80, 0));
    board.selectAll();
    await board.combine('intersect');
    expect(lastToast()).toMatch(/do not overlap/);
    expect(board.elements).toHaveLength(2);
    expect(board.busy).toBe(false);
  });

  it('turns a stroke into a shape of its own colour in front of the fill', async () => {
    const { board } = drawingBoard();
    board.addLine([
      { op: 'M', to: { x: 0, y: 0 } },
      { op: 'L', to: { x: 50, y: 0 } },
    ]);
    board.change((element) => ({ ...element, stroke: { ...element.stroke!, width: 4, cap: 'butt' } }));
    await board.strokeOutlines();
    expect(board.single).toMatchObject({ fill: 'ink', stroke: null });
    expect(areaOf(board)).toBeCloseTo(200, 3);
    await board.strokeOutlines();
    expect(lastToast()).toMatch(/None of what is chosen has a stroke/);
  });
});
