<script lang="ts">
  import type { Point } from '$lib/core/geom/point';
  import { roundTo } from '$lib/core/num/tolerance';
  import type { BrushStroke } from '$lib/core/geom/brush-stroke';
  import BrushCursor from './BrushCursor.svelte';
  import { STROKE_LIMITS } from '$lib/core/recipe/stroke';

  /**
   * Lies over a picture and paints on it: the brush follows the pointer, a stroke is told as it goes and once it ends.
   * Escape gives it up.
   */
  type Props = {
    label: string;
    /** px of the screen to one of the picture, and where its upper left corner lies. */
    scale: number;
    origin?: Point;
    brush: Omit<BrushStroke, 'points'>;
    onlive: (stroke: BrushStroke | null) => void;
    onset: (stroke: BrushStroke) => void;
    /** Where a press may point somewhere instead: with Alt, or where the next one does. */
    onpoint?: (at: Point) => void;
    pointing?: boolean;
    /** How far from the pointer what it lays is taken, px of the picture. */
    from?: Point | null;
  };
  let {
    label,
    scale,
    origin = { x: 0, y: 0 },
    brush,
    onlive,
    onset,
    onpoint,
    pointing = false,
    from = null,
  }: Props = $props();

  let pointer: Point | null = $state(null);
  let points: number[] | null = null;
  const radius = $derived((brush.size / 2) * scale);

  function painting(node: HTMLElement): () => void {
    const seen = ({ clientX, clientY }: PointerEvent): Point => {
      const box = node.getBoundingClientRect();
      return { x: clientX - box.left, y: clientY - box.top };
    };
    const onPicture = ({ x, y }: Point): [number, number] => [
      roundTo((x - origin.x) / scale, 2),
      roundTo((y - origin.y) / scale, 2),
    ];
    const stroke = (): BrushStroke => ({ ...brush, points: [...points!] });
    const end = (): void => {
      points = null;
      window.removeEventListener('keydown', onkey, true);
    };
    const down = (event: PointerEvent): void => {
      if (event.button !== 0 || points) return;
      event.preventDefault();
      const [x, y] = onPicture(seen(event));
      if (onpoint && (pointing || event.altKey)) return onpoint({ x, y });
      points = [x, y];
      node.setPointerCapture(event.pointerId);
      window.addEventListener('keydown', onkey, true);
      onlive(stroke());
    };
    const move = (event: PointerEvent): void => {
      pointer = seen(event);
      if (!points) return;
      const [x, y] = onPicture(pointer);
      // No finer than the brush shows, and no more than is kept.
      const far = Math.hypot(x - points.at(-2)!, y - points.at(-1)!);
      if (far < Math.max(brush.size / 16, 0.5) || points.length >= 2 * STROKE_LIMITS.points) return;
      points.push(x, y);
      onlive(stroke());
    };
    const up = (): void => {
      if (!points) return;
      const made = stroke();
      end();
      onlive(null);
      onset(made);
    };
    const lost = (): void => {
      if (!points) return;
      end();
      onlive(null);
    };
    const onkey = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return;
      event.preventDefault();
      event.stopPropagation();
      lost();
    };
    const leave = (): void => {
      pointer = null;
    };
    node.addEventListener('pointerdown', down);
    node.addEventListener('pointermove', move);
    node.addEventListener('pointerup', up);
    node.addEventListener('pointercancel', lost);
    node.addEventListener('pointerleave', leave);
    return () => {
      end();
      node.removeEventListener('pointerdown', down);
      node.removeEventListener('pointermove', move);
      node.removeEventListener('pointerup', up);
      node.removeEventListener('pointercancel', lost);
      node.removeEventListener('pointerleave', leave);
    };
  }
</script>

<div class="surface" class:pointing role="application" aria-label={label} {@attach painting}>
  {#if pointer}
    <svg aria-hidden="true">
      {#if pointing}
        <path class="halo" d="M{pointer.x - 9} {pointer.y}h18m-9-9v18" />
        <path class="rim" d="M{pointer.x - 9} {pointer.y}h18m-9-9v18" />
      {:else}
        <BrushCursor at={pointer} {radius} softness={brush.softness} />
        {#if from}
          {@const cross = `M${pointer.x + from.x * scale - 7} ${pointer.y + from.y * scale}h14m-7-7v14`}
          <path class="halo" d={cross} />
          <path class="rim" d={cross} />
        {/if}
      {/if}
    </svg>
  {/if}
</div>

<style>
  .surface {
    position: absolute;
    inset: 0;
    cursor: none;
    touch-action: none;
  }
  svg {
    width: 100%;
    height: 100%;
    overflow: hidden;
    pointer-events: none;
  }
  path {
    fill: none;
  }
  .halo {
    stroke: rgb(255 255 255 / 85%);
    stroke-width: 3px;
  }
  .rim {
    stroke: var(--kelp);
    stroke-width: 1.25px;
  }
</style>
