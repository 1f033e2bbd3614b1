<script lang="ts">
  import type { Point } from '$lib/core/geom/point';

  /** What is pulled on a stage: a square that sizes, or a round one that turns or slides. Its colours are those of its <g class="handles">. */
  type Props = {
    name: string;
    /** Its middle, px of the stage. */
    at: Point;
    /** Its side, or its width where it is round, px. */
    size?: number;
    round?: boolean;
    /** Degrees clockwise. */
    turn?: number;
    cursor?: string;
    title?: string | undefined;
    /** The side of what can be caught of it, px: 24 (WCAG 2.2, 2.5.8) where its neighbours leave as much. */
    reach?: number;
    drag: (node: SVGElement) => () => void;
  };
  let {
    name,
    at,
    round = false,
    size = round ? 11 : 9,
    turn = 0,
    cursor,
    title,
    reach = 24,
    drag,
  }: Props = $props();
  /** A square about the origin, or a circle. */
  const square = (side: number) => ({
    x: -side / 2,
    y: -side / 2,
    width: side,
    height: side,
    rx: round ? side / 2 : 0,
  });
</script>

<g transform="translate({at.x} {at.y}) rotate({turn})">
  <rect class="grip" {...square(size)} />
  <rect
    class="caught"
    role="presentation"
    data-handle={name}
    {...square(Math.max(size, reach))}
    style:cursor={cursor ?? (round ? 'grab' : 'nwse-resize')}
    {@attach drag}
  >
    {#if title}<title>{title}</title>{/if}
  </rect>
</g>

<style>
  .grip {
    pointer-events: none;
  }
  .caught {
    fill: transparent;
    pointer-events: all;
  }
</style>
