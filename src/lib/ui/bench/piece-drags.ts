import { apply, applyVector, invert, rotation, type Affine } from '$lib/core/geom/affine';
import { length, subtract, type Point } from '$lib/core/geom/point';
import { snapAlong, snapAngle } from '$lib/core/geom/snap';
import { wrapDegrees } from '$lib/core/num/tolerance';
import { LIMITS } from '$lib/core/recipe/limits';
import type { Placing } from '$lib/core/recipe/recipe';
import { dragging } from '../layout/dragging';
import type { View } from '../layout/view.svelte';
import type { BenchEditor } from './editor.svelte';
import { pieceAt } from './hit';

/** Lines on which what is being dragged lies just now, in unit px. */
export type SnapLines = { x: number | null; y: number | null };

export const NO_SNAP: SnapLines = { x: null, y: null };

type Context = { editor: BenchEditor; view: View; onsnap: (lines: SnapLines) => void };

const PIECE_REACH = 3;
const SNAP_REACH = 6;

/** Press a piece to choose and move it, press beside it to pan. Images of a symmetric repeat move their original. */
export function moving({ editor, view, onsnap }: Context): (node: SVGElement) => () => void {
  let from: Point;
  let panFrom: Point;
  let mode: 'move' | 'pan' = 'pan';
  let image: Affine;
  let starts: ReadonlyMap<string, Placing>;
  let lines: { xs: number[]; ys: number[]; edgesX: number[]; edgesY: number[] };
  return dragging({
    view,
    start: (at, event) => {
      from = at;
      panFrom = { x: event.clientX - view.pan.x, y: event.clientY - view.pan.y };
      const hit = pieceAt(editor.scene, at, PIECE_REACH / view.zoom);
      mode = hit ? 'move' : 'pan';
      if (!hit) {
        if (!event.shiftKey) editor.select([]);
        return;
      }
      image = invert(hit.piece.image) ?? hit.piece.image;
      if (event.shiftKey) editor.toggle(hit.piece.id);
      else if (!editor.selected.has(hit.piece.id)) editor.select([hit.piece.id]);
      starts = new Map(editor.chosen.map((placing) => [placing.id, placing]));
      lines = snapLines(editor);
    },
    move: (at, event) => {
      if (mode === 'pan') {
        view.pan = { x: event.clientX - panFrom.x, y: event.clientY - panFrom.y };
        return;
      }
      const onScreen = subtract(at, from);
      if (length(onScreen) * view.zoom < 3 && !editor.history.inGesture) return;
      const by = applyVector(image, onScreen);
      if (event.shiftKey) {
        if (Math.abs(by.x) > Math.abs(by.y)) by.y = 0;
        else by.x = 0;
      }
      onsnap(snapped(by, event.altKey));
      editor.change((placing) => {
        const start = starts.get(placing.id) ?? placing;
        return { ...placing, x: start.x + by.x, y: start.y + by.y };
      }, true);
    },
    end: () => {
      onsnap(NO_SNAP);
      if (mode === 'move') editor.settle();
    },
    cancel: () => {
      onsnap(NO_SNAP);
      editor.history.cancel();
    },
  });

  /** Changes `by` so that what moves snaps; Alt lets go. */
  function snapped(by: Point, off: boolean): SnapLines {
    const { aids } = editor.composed;
    const [first] = starts.values();
    if (off || !aids.snap || !first) return NO_SNAP;
    const reach = SNAP_REACH / view.zoom;
    const grid = aids.showGrid ? aids.grid : null;
    const moved = (edges: number[], shift: number): number[] => edges.map((edge) => edge + shift);
    const across = snapAlong(moved(lines.edgesX, by.x), lines.xs, reach, first.x + by.x, grid);
    const down = snapAlong(moved(lines.edgesY, by.y), lines.ys, reach, first.y + by.y, grid);
    by.x += across?.shift ?? 0;
    by.y += down?.shift ?? 0;
    return { x: across?.line ?? null, y: down?.line ?? null };
  }
}

/** What a move may snap to: the unit's edges and middle, guides, and the boxes and middles of the other pieces. */
function snapLines(editor: BenchEditor): { xs: number[]; ys: number[]; edgesX: number[]; edgesY: number[] } {
  const { unit, aids } = editor.composed;
  const xs = [0, unit.width / 2, unit.width];
  const ys = [0, unit.height / 2, unit.height];
  for (const { axis, at } of aids.guides) (axis === 'x' ? xs : ys).push(at);
  const edgesX: number[] = [];
  const edgesY: number[] = [];
  for (const piece of editor.scene.pieces) {
    const { x, y, width, height } = piece.box;
    const [across, down] = [
      [x, x + width / 2, x + width],
      [y, y + height / 2, y + height],
    ];
    const own = editor.selected.has(piece.id);
    (own ? edgesX : xs).push(...across);
    (own ? edgesY : ys).push(...down);
  }
  for (const { x, y } of editor.chosen) {
    edgesX.push(x);
    edgesY.push(y);
  }
  return { xs, ys, edgesX, edgesY };
}

/** Corner handles keep the ratio; with Shift each side goes its own way. The middle stays where it is. */
export function sizing({ editor, view }: Context): (node: SVGElement) => () => void {
  let start: Placing;
  let grip: Point;
  return dragging({
    view,
    start: (at) => {
      if (!editor.single) return false;
      start = editor.single;
      grip = { x: at.x - start.x, y: at.y - start.y };
    },
    move: (at, event) => {
      const inverse = invert(rotation(start.rotation));
      if (!inverse) return;
      const before = apply(inverse, grip);
      const now = apply(inverse, { x: at.x - start.x, y: at.y - start.y });
      const alike = Math.max(0.001, length(now) / Math.max(1e-6, length(before)));
      const part = (to: number, of: number): number =>
        Math.max(0.001, to / (Math.abs(of) < 1e-6 ? 1e-6 : of));
      const across = event.shiftKey ? part(now.x, before.x) : alike;
      const down = event.shiftKey ? part(now.y, before.y) : alike;
      const limit = LIMITS.placingScale;
      const held = (scale: number): number =>
        Math.sign(scale) * Math.min(limit.most, Math.max(limit.least, Math.abs(scale)));
      editor.change(
        (placing) => ({ ...placing, scaleX: held(start.scaleX * across), scaleY: held(start.scaleY * down) }),
        true,
      );
    },
    end: () => editor.settle(),
    cancel: () => editor.history.cancel(),
  });
}

export function turning({ editor, view }: Context): (node: SVGElement) => () => void {
  let start: Placing;
  let from = 0;
  const direction = (at: Point): number => {
    const { x, y } = subtract(at, start);
    return (Math.atan2(y, x) * 180) / Math.PI;
  };
  return dragging({
    view,
    start: (at) => {
      if (!editor.single) return false;
      start = editor.single;
      from = direction(at);
    },
    move: (at, event) => {
      let turn = start.rotation + direction(at) - from;
      if (event.shiftKey) turn = snapAngle(turn, 15);
      editor.change((placing) => ({ ...placing, rotation: wrapDegrees(turn) }), true);
    },
    end: () => editor.settle(),
    cancel: () => editor.history.cancel(),
  });
}

/** A drag of one edge of the unit: the art stays where it is, only the unit changes. */
export function edging(
  { editor, view }: Context,
  side: 'left' | 'right' | 'top' | 'bottom',
): (node: SVGElement) => () => void {
  const across = side === 'left' || side === 'right';
  return dragging({
    view,
    start: () => undefined,
    move: (at, event) => {
      const { settled } = editor;
      const { aids } = settled;
      const key = across ? 'width' : 'height';
      const axis = across ? 'x' : 'y';
      let place = at[axis];
      if (aids.snap && !event.altKey) {
        const guides = aids.guides.flatMap((guide) => (guide.axis === axis ? [guide.at] : []));
        const grid = aids.showGrid ? aids.grid : null;
        place += snapAlong([place], guides, SNAP_REACH / view.zoom, place, grid)?.shift ?? 0;
      }
      const far = side === 'right' || side === 'bottom';
      const limit = LIMITS.unitSide;
      const wanted = far ? place : settled.unit[key] - place;
      const size = Math.min(limit.most, Math.max(limit.least, wanted));
      const shift = far ? 0 : size - settled.unit[key];
      editor.history.live({
        ...settled,
        unit: { ...settled.unit, [key]: size },
        placings:
          shift === 0
            ? settled.placings
            : settled.placings.map((one) => ({ ...one, [axis]: one[axis] + shift })),
      });
    },
    end: () => editor.history.commit(),
    cancel: () => editor.history.cancel(),
  });
}
