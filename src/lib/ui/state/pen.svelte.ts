import { pointInSteps } from '$lib/core/geom/snap';
import { pathOfNodes, type PathNode } from '$lib/core/geom/nodes';
import type { Path } from '$lib/core/geom/path';
import type { Point } from '$lib/core/geom/point';

/** A path that is being set point by point. */
export class Pen {
  nodes: readonly PathNode[] = $state.raw([]);

  get path(): Path {
    return pathOfNodes([{ nodes: [...this.nodes], closed: false }]);
  }

  add(at: Point): void {
    this.nodes = [...this.nodes, { at, before: null, after: null }];
  }

  /** A point brought onto a line from the last one whose angle is a multiple of `step` degrees. */
  inSteps(at: Point, step: number): Point {
    const last = this.nodes[this.nodes.length - 1]?.at;
    return last ? pointInSteps(last, at, step) : at;
  }

  /** Pulls the handles of the last point: `to` leads on, the other one lies opposite. */
  pull(to: Point): void {
    const last = this.nodes[this.nodes.length - 1];
    if (!last) return;
    const before = { x: 2 * last.at.x - to.x, y: 2 * last.at.y - to.y };
    this.nodes = [...this.nodes.slice(0, -1), { ...last, before, after: to }];
  }

  /** True where a press at `at` would close the path. */
  closes(at: Point, reach: number): boolean {
    const [first] = this.nodes;
    return !!first && this.nodes.length > 2 && Math.hypot(first.at.x - at.x, first.at.y - at.y) <= reach;
  }

  /** The finished path, or `null` where it has fewer than two points. */
  finish(closed = false): Path | null {
    const nodes = [...this.nodes];
    this.nodes = [];
    return nodes.length < 2 ? null : pathOfNodes([{ nodes, closed }]);
  }

  cancel(): void {
    this.nodes = [];
  }
}
