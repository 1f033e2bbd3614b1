import { boxOfCorners, boxesMeet, unionBoxes, type Box } from '$lib/core/geom/box';
import { subtract, type Point } from '$lib/core/geom/point';
import type { ShapeForm } from '$lib/core/geom/shapes';
import { groupsOf, heldShapes, shapeBox } from '$lib/core/recipe/layout';
import { LIMITS } from '$lib/core/recipe/limits';
import { freeShapes, membersOf } from './arrange';
import { dragging } from './dragging';
import type { LayoutEditor } from './editor.svelte';
import { addForm, meetsPage } from './shapes';
import { NOTHING_SNAPPED, snappedMove, type SnapShown } from './snapping';
import { textAt } from './text';
import type { View } from './view.svelte';

/** What a drag on the stage shows while it lasts: a shape that is drawn, an area that is swept, lines that it snapped to. */
export type StageShown = { drawn: Box | null; swept: Box | null; snapped: SnapShown };

export const NOTHING_SHOWN: StageShown = { drawn: null, swept: null, snapped: NOTHING_SNAPPED };

export type StageContext = {
  editor: LayoutEditor;
  view: View;
  /** True while the key that pans is held. */
  panning: () => boolean;
  show: (shown: Partial<StageShown>) => void;
};

/** The shape under a point of the window, front first. */
export function shapeAt(clientX: number, clientY: number): string | null {
  for (const element of document.elementsFromPoint(clientX, clientY)) {
    const hit = element.closest('[data-shape]');
    if (hit) return hit.getAttribute('data-shape');
  }
  return null;
}

/** Drags on the stage: they pan, draw a form, move what is pressed, or sweep over shapes to choose them. */
export function stageDrag(context: StageContext): (node: HTMLElement) => () => void {
  const { editor, view, show } = context;
  let drawn: Box | null = null;
  let swept: Box | null = null;
  let mode: 'pan' | 'draw' | 'move' | 'sweep' = 'sweep';
  let from: Point;
  let screen: Point;
  let panFrom: Point;
  let wasSelected = false;
  let moving: { box: Box; others: Box[] } | null = null;
  let pressed: string | null = null;
  return dragging({
    view,
    start: (at, event) => {
      from = at;
      screen = { x: event.clientX, y: event.clientY };
      panFrom = view.pan;
      const on = (event.target as Element).closest('[data-shape]')?.getAttribute('data-shape') ?? null;
      const hit = pressedShape(editor, at, on);
      pressed = hit;
      if (context.panning()) mode = 'pan';
      else if (editor.tool !== 'select') mode = 'draw';
      else if (hit !== null && editor.isLocked(hit)) mode = 'sweep';
      else if (hit === null) {
        mode = 'sweep';
        if (!event.shiftKey) editor.select([]);
      } else {
        mode = 'move';
        moving = null;
        wasSelected = editor.selected.has(hit);
        if (event.shiftKey) {
          editor.toggle(hit);
          mode = 'sweep';
        } else if (!wasSelected) editor.select(event.altKey ? [hit] : withGroup(editor, hit));
      }
    },
    move: (at, event) => {
      const by = subtract(at, from);
      if (mode === 'pan') {
        view.pan = { x: panFrom.x + event.clientX - screen.x, y: panFrom.y + event.clientY - screen.y };
      } else if (mode === 'draw') show({ drawn: (drawn = drawnBox(from, at, event)) });
      else if (mode === 'sweep') show({ swept: (swept = boxOfCorners(from, at)) });
      else {
        if (Math.hypot(by.x, by.y) * view.zoom < 3 && !editor.history.inGesture) return;
        moving ??= movingBoxes(editor);
        if (event.shiftKey) {
          if (Math.abs(by.x) > Math.abs(by.y)) by.y = 0;
          else by.x = 0;
        }
        if (editor.scope === 'pattern') editor.moveSelected(by, true);
        else {
          const near = event.altKey || !moving ? 0 : 6 / view.zoom;
          const result = moving
            ? snappedMove(editor.history.settled, moving.box, moving.others, by, near)
            : { by, shown: NOTHING_SNAPPED };
          show({ snapped: result.shown });
          editor.moveSelected(result.by, true);
        }
      }
    },
    end: (moved) => {
      if (mode === 'draw' && editor.tool !== 'select') {
        const least = 3 / view.zoom;
        if (drawn && drawn.width > least && drawn.height > least && meetsPage(editor, drawn)) {
          addForm(editor, editor.tool as ShapeForm['kind'], drawn);
          editor.hand.used();
        }
      } else if (mode === 'move') {
        editor.history.commit();
        if (!moved && wasSelected && pressed && editor.selected.size > 1) editor.select([pressed]);
      } else if (mode === 'sweep' && swept && swept.width * view.zoom > 3) {
        const area = swept;
        editor.select(
          freeShapes(editor.doc)
            .filter((shape) => boxesMeet(shapeBox(shape), area))
            .map(({ id }) => id),
        );
      }
      drawn = swept = null;
      show(NOTHING_SHOWN);
    },
    cancel: () => {
      drawn = swept = null;
      show(NOTHING_SHOWN);
      editor.history.cancel();
    },
  });
}

/** What a press at a place means: the text whose box it lies in, unless what was `hit` lies in front of that. */
export function pressedShape({ doc }: LayoutEditor, at: Point, hit: string | null): string | null {
  const text = textAt(freeShapes(doc), at);
  const place = (id: string | null): number => doc.shapes.findIndex((shape) => shape.id === id);
  return text && place(text.id) > place(hit) ? text.id : hit;
}

/** A shape with all that lie in its outermost group; Alt chooses it alone. */
function withGroup({ doc }: LayoutEditor, id: string): Iterable<string> {
  const shape = doc.shapes.find((one) => one.id === id);
  const outermost = groupsOf(doc.groups, shape?.group ?? null).at(-1);
  return outermost ? membersOf(doc, outermost.id) : [id];
}

/** The box of what is dragged and those of all other shapes that are shown, at the beginning of a drag. */
function movingBoxes(editor: LayoutEditor): { box: Box; others: Box[] } | null {
  const hidden = heldShapes(editor.history.settled, 'hidden');
  const shown = editor.history.settled.shapes.filter((shape) => !hidden(shape));
  const box = unionBoxes(shown.filter(({ id }) => editor.selected.has(id)).map(shapeBox));
  const others = shown.filter(({ id }) => !editor.selected.has(id)).map(shapeBox);
  return box && { box, others };
}

/** The box drawn so far: Shift makes it square, Alt draws from its middle. */
function drawnBox(from: Point, to: Point, event: PointerEvent): Box {
  const by = subtract(to, from);
  if (event.shiftKey) {
    const side = Math.max(Math.abs(by.x), Math.abs(by.y));
    by.x = side * (Math.sign(by.x) || 1);
    by.y = side * (Math.sign(by.y) || 1);
  }
  const start = event.altKey ? subtract(from, by) : from;
  const box = boxOfCorners(start, { x: from.x + by.x, y: from.y + by.y });
  const least = LIMITS.shapeSide.least;
  return { ...box, width: Math.max(box.width, least), height: Math.max(box.height, least) };
}
