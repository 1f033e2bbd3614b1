import type { Point } from '$lib/core/geom/point';
import type { View } from './view.svelte';

export type Drag = {
  view: View;
  /** Told where on the page the drag begins; `false` leaves it to what lies below, 'done' ends it at once. */
  start: (at: Point, event: PointerEvent) => void | false | 'done';
  move: (at: Point, event: PointerEvent) => void;
  end: (moved: boolean) => void;
  cancel: () => void;
};

/**
 * An attachment that turns pointer events on an element of a stage into one drag in page px. Escape or a lost pointer
 * cancels it; moves are handed on at most once a frame.
 */
export function dragging(drag: Drag): (node: Element & GlobalEventHandlers) => () => void {
  return (node) => {
    let pointer: number | null = null;
    let moved = false;
    let pending: PointerEvent | null = null;
    let frame = 0;

    const place = (event: PointerEvent): Point => {
      const stage = ((node as Partial<SVGElement>).ownerSVGElement ?? node).getBoundingClientRect();
      return drag.view.toPage({
        x: event.clientX - stage.left,
        y: event.clientY - stage.top,
      });
    };
    const deliver = (): void => {
      frame = 0;
      if (pending) drag.move(place(pending), pending);
      pending = null;
    };
    const finish = (): void => {
      pointer = null;
      cancelAnimationFrame(frame);
      window.removeEventListener('keydown', onkey, true);
    };
    const down = (event: PointerEvent): void => {
      if (event.button !== 0 || pointer !== null) return;
      const begun = drag.start(place(event), event);
      if (begun === false) return;
      event.stopPropagation();
      if (begun === 'done') return;
      pointer = event.pointerId;
      moved = false;
      node.setPointerCapture(event.pointerId);
      window.addEventListener('keydown', onkey, true);
    };
    const move = (event: PointerEvent): void => {
      if (event.pointerId !== pointer) return;
      moved = true;
      pending = event;
      frame ||= requestAnimationFrame(deliver);
    };
    const up = (event: PointerEvent): void => {
      if (event.pointerId !== pointer) return;
      if (pending) deliver();
      finish();
      drag.end(moved);
    };
    const lost = (event: PointerEvent): void => {
      if (event.pointerId !== pointer) return;
      finish();
      drag.cancel();
    };
    const onkey = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      event.preventDefault();
      pending = null;
      finish();
      drag.cancel();
    };
    node.addEventListener('pointerdown', down);
    node.addEventListener('pointermove', move);
    node.addEventListener('pointerup', up);
    node.addEventListener('pointercancel', lost);
    return () => {
      finish();
      node.removeEventListener('pointerdown', down);
      node.removeEventListener('pointermove', move);
      node.removeEventListener('pointerup', up);
      node.removeEventListener('pointercancel', lost);
    };
  };
}
