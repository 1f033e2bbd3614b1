import type { Box } from '$lib/core/geom/box';
import type { Point } from '$lib/core/geom/point';
import { clamp } from '$lib/core/num/tolerance';

const LEAST_ZOOM = 0.02;
const MOST_ZOOM = 64;

type Extent = { width: number; height: number };

/** Pan and zoom of a stage: screen = page · zoom + pan, in CSS px of the stage. */
export class View {
  zoom = $state(1);
  pan: Point = $state.raw({ x: 0, y: 0 });

  toPage(screen: Point): Point {
    return { x: (screen.x - this.pan.x) / this.zoom, y: (screen.y - this.pan.y) / this.zoom };
  }

  toScreen(page: Point): Point {
    return { x: page.x * this.zoom + this.pan.x, y: page.y * this.zoom + this.pan.y };
  }

  /** Zooms by `factor` and keeps the page point under `at` where it is. */
  zoomAt(at: Point, factor: number): void {
    const held = this.toPage(at);
    this.zoom = clamp(this.zoom * factor, LEAST_ZOOM, MOST_ZOOM);
    this.pan = { x: at.x - held.x * this.zoom, y: at.y - held.y * this.zoom };
  }

  panBy(x: number, y: number): void {
    this.pan = { x: this.pan.x + x, y: this.pan.y + y };
  }

  /** Moves a place of the page into sight, with a little around it, and no more; one that is larger than the stage is shown whole. */
  show(place: Box, stage: Extent): void {
    const fits = Math.min(stage.width / place.width, stage.height / place.height) * 0.8;
    if (this.zoom > fits)
      this.zoomAt({ x: stage.width / 2, y: stage.height / 2 }, Math.max(fits, LEAST_ZOOM) / this.zoom);
    const { x, y } = this.toScreen(place);
    const AROUND = 24;
    const slide = (from: number, side: number, room: number): number =>
      from < AROUND ? AROUND - from : from + side > room - AROUND ? room - AROUND - from - side : 0;
    this.panBy(
      slide(x, place.width * this.zoom, stage.width),
      slide(y, place.height * this.zoom, stage.height),
    );
  }

  /** Shows all of a page in a stage, with margins in px. */
  fit(stage: Extent, page: Extent, margin: { side: number; top: number; foot: number }): void {
    const room = { width: stage.width - 2 * margin.side, height: stage.height - margin.top - margin.foot };
    const zoom = Math.min(Math.max(40, room.width) / page.width, Math.max(40, room.height) / page.height);
    this.centre(stage, page, zoom);
    this.panBy(0, (margin.top - margin.foot) / 2);
  }

  /** Shows a page in the middle at a zoom, its corner on a whole px, so that at 100 % its pixels are those of the screen. */
  centre(stage: Extent, page: Extent, zoom: number): void {
    this.zoom = clamp(zoom, LEAST_ZOOM, MOST_ZOOM);
    this.pan = {
      x: Math.round((stage.width - page.width * this.zoom) / 2),
      y: Math.round((stage.height - page.height * this.zoom) / 2),
    };
  }
}

/** Pans with the pointer from a press on until it is let go. */
export function panFrom(view: View, event: PointerEvent & { currentTarget: HTMLElement }): void {
  event.preventDefault();
  const { currentTarget, pointerId } = event;
  currentTarget.setPointerCapture(pointerId);
  let last = { x: event.clientX, y: event.clientY };
  const move = (next: PointerEvent): void => {
    view.panBy(next.clientX - last.x, next.clientY - last.y);
    last = { x: next.clientX, y: next.clientY };
  };
  const end = (): void => {
    currentTarget.removeEventListener('pointermove', move);
    currentTarget.removeEventListener('pointerup', end);
    currentTarget.removeEventListener('pointercancel', end);
  };
  currentTarget.addEventListener('pointermove', move);
  currentTarget.addEventListener('pointerup', end);
  currentTarget.addEventListener('pointercancel', end);
}

/** An attachment for a stage: wheel pans, Ctrl/Cmd+wheel and pinch zoom at the pointer. */
export function wheelView(view: View): (node: Element) => () => void {
  return (node) => {
    const turn = (event: Event): void => {
      const wheel = event as WheelEvent;
      wheel.preventDefault();
      const unit = wheel.deltaMode === 1 ? 16 : 1;
      if (wheel.ctrlKey || wheel.metaKey) {
        const box = node.getBoundingClientRect();
        const at = { x: wheel.clientX - box.left, y: wheel.clientY - box.top };
        view.zoomAt(at, 2 ** ((-wheel.deltaY * unit) / 240));
      } else if (wheel.shiftKey) view.panBy(-(wheel.deltaY || wheel.deltaX) * unit, 0);
      else view.panBy(-wheel.deltaX * unit, -wheel.deltaY * unit);
    };
    node.addEventListener('wheel', turn, { passive: false });
    return () => node.removeEventListener('wheel', turn);
  };
}
