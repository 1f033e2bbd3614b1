<script lang="ts">
  import { apply, chain, invert, translation, meanScale } from '$lib/core/geom/affine';
  import type { Point } from '$lib/core/geom/point';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Shape } from '$lib/core/recipe/layout';
  import type { MaskStroke } from '$lib/core/recipe/mask';
  import BrushCursor from '../components/BrushCursor.svelte';
  import { toasts } from '../state/toasts.svelte';
  import { dragging } from './dragging';
  import type { LayoutEditor } from './editor.svelte';
  import { paintedMaskOf, type MaskBrushNumbers } from './mask-brush';
  import type { View } from './view.svelte';

  /** Paints the mask of a shape or of its fill: a round brush that erases and restores. */
  type Props = {
    shape: Shape;
    editor: LayoutEditor;
    view: View;
    width: number;
    height: number;
    brush: MaskBrushNumbers;
  };
  let { shape, editor, view, width, height, brush }: Props = $props();

  const mask = $derived(paintedMaskOf(editor, shape));
  let pointer: Point | null = $state(null);
  let line: Point[] = $state.raw([]);
  const path = $derived(
    line
      .map((point) => view.toScreen(point))
      .map(({ x, y }, index) => `${index === 0 ? 'M' : 'L'}${x} ${y}`)
      .join(''),
  );

  function painting() {
    return dragging({
      view,
      start: (at) => {
        line = [at, at];
      },
      move: (at) => {
        const last = line[line.length - 1];
        if (last && Math.hypot(at.x - last.x, at.y - last.y) < Math.max(brush.size / 40, 0.5 / view.zoom))
          return;
        if (line.length < LIMITS.strokePoints) line = [...line, at];
      },
      end: () => {
        const stroke = strokeOf(line);
        line = [];
        if (!stroke) return;
        if (mask.strokes.length >= LIMITS.maskStrokes) {
          toasts.problem(
            `A mask holds at most ${LIMITS.maskStrokes} strokes; start a new one, or use a picture.`,
          );
          return;
        }
        editor.setMask(editor.painting ?? 'fill', { ...mask, strokes: [...mask.strokes, stroke] });
      },
      cancel: () => (line = []),
    });
  }

  /** The drawn line in the mask's own px. */
  function strokeOf(points: readonly Point[]): MaskStroke | null {
    const toMask = invert(chain(translation(shape.x, shape.y), mask.matrix));
    if (!toMask || points.length === 0) return null;
    const { size, softness, strength, mode } = brush;
    const places = points.slice(1).map((point) => apply(toMask, point));
    const round = (value: number): number => Math.round(value * 100) / 100;
    return {
      mode,
      size: size * meanScale(toMask),
      softness,
      strength,
      points: places.flatMap(({ x, y }) => [round(x), round(y)]),
    };
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<rect
  class="catch"
  {width}
  {height}
  data-mask-brush
  onpointermove={(event) => {
    const box = event.currentTarget.getBoundingClientRect();
    pointer = { x: event.clientX - box.left, y: event.clientY - box.top };
  }}
  onpointerleave={() => (pointer = null)}
  {@attach painting()}
/>
{#if path}
  <path
    class="stroke {brush.mode}"
    d={path}
    style:stroke-width="{brush.size * view.zoom}px"
    style:filter="blur({(brush.size * view.zoom * brush.softness) / 6}px)"
    opacity={0.5 * brush.strength}
  />
{/if}
{#if pointer}
  <BrushCursor at={pointer} radius={(brush.size * view.zoom) / 2} softness={brush.softness} />
{/if}

<style>
  .catch {
    fill: transparent;
    cursor: none;
  }
  .stroke {
    fill: none;
    pointer-events: none;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .erase {
    stroke: #fff;
  }
  .restore {
    stroke: var(--kelp);
  }
</style>
