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
    drag: (node: SVGElement) => () => void;
  };
  let { name, at, round = false, size = round ? 11 : 9, turn = 0, cursor, title, drag }: Props = $props();
</script>

<rect
  class="grip"
  role="presentation"
  data-handle={name}
  x={at.x - size / 2}
  y={at.y - size / 2}
  width={size}
  height={size}
  rx={round ? size / 2 : 0}
  transform="rotate({turn} {at.x} {at.y})"
  style:cursor={cursor ?? (round ? 'grab' : 'nwse-resize')}
  {@attach drag}
>
  {#if title}<title>{title}</title>{/if}
</rect>
