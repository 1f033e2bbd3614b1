<script lang="ts">
  import Grip from '../components/Grip.svelte';
  import { chain, scaling, translation } from '$lib/core/geom/affine';
  import { dot, subtract, type Point } from '$lib/core/geom/point';
  import { pointInSteps } from '$lib/core/geom/snap';
  import { clamp, roundTo } from '$lib/core/num/tolerance';
  import type { Gradient, GradientPlace, GradientStop } from '$lib/core/recipe/gradient';
  import { gradientMatrix, pageOfShare, shareOfPage } from '$lib/core/recipe/gradient-place';
  import type { Shape } from '$lib/core/recipe/layout';
  import { matrixText } from '$lib/core/svg/print';
  import type { LayoutEditor } from './editor.svelte';
  import { putGradient, roundShare } from './steer';
  import type { View } from './view.svelte';
  import { dragging } from './dragging';

  /** The line of a gradient on the stage: its ends turn and stretch it, its stops slide along it, the line slides it all. */
  type Props = { shape: Shape; gradient: Gradient; place: GradientPlace; editor: LayoutEditor; view: View };
  let { shape, gradient, place, editor, view }: Props = $props();

  const ENDS = ['from', 'to'] as const;
  const from = $derived(view.toScreen(pageOfShare(shape, gradient.from)));
  const to = $derived(view.toScreen(pageOfShare(shape, gradient.to)));
  /** The unit circle → the stage: a skewed shape has an ellipse for a rim. */
  const rim = $derived(
    chain(
      translation(view.pan.x, view.pan.y),
      scaling(view.zoom),
      translation(shape.x, shape.y),
      gradientMatrix(gradient, shape),
    ),
  );
  const title = { from: 'Start of the gradient', to: 'End of the gradient' };
  const along = (at: number): Point => ({
    x: from.x + (to.x - from.x) * at,
    y: from.y + (to.y - from.y) * at,
  });
  /** In a mask only the opacity counts: what shows is light, what hides is dark. */
  function inkOf({ colour, opacity }: GradientStop): string {
    if (place === 'fill' || place === 'wash') return colour;
    const light = Math.round(opacity * 255);
    return `rgb(${light} ${light} ${light})`;
  }

  const show = (next: Gradient): void => putGradient(editor, place, next, true);
  const ending = { end: () => editor.history.commit(), cancel: () => editor.history.cancel() };

  function pulling(end: 'from' | 'to') {
    let start: Gradient;
    let frame: Shape;
    let off: Point;
    return dragging({
      view,
      start: (at) => {
        start = gradient;
        frame = shape;
        off = subtract(at, pageOfShare(frame, start[end]));
      },
      move: (at, event) => {
        const other = pageOfShare(frame, start[end === 'from' ? 'to' : 'from']);
        const pulled = subtract(at, off);
        const to = event.shiftKey ? pointInSteps(other, pulled, 15) : pulled;
        show({ ...start, [end]: roundShare(shareOfPage(frame, to)) });
      },
      ...ending,
    });
  }

  function sliding() {
    let start: Gradient;
    let grip: Point;
    let frame: Shape;
    return dragging({
      view,
      start: (at) => {
        start = gradient;
        grip = at;
        frame = shape;
      },
      move: (at) => {
        const by = subtract(shareOfPage(frame, at), shareOfPage(frame, grip));
        const moved = ({ x, y }: Point): Point => roundShare({ x: x + by.x, y: y + by.y });
        show({ ...start, from: moved(start.from), to: moved(start.to) });
      },
      ...ending,
    });
  }

  function stopping(index: number) {
    let start: Gradient;
    let ends: { from: Point; by: Point };
    return dragging({
      view,
      start: () => {
        start = gradient;
        const first = pageOfShare(shape, start.from);
        ends = { from: first, by: subtract(pageOfShare(shape, start.to), first) };
      },
      move: (at) => {
        const share = dot(subtract(at, ends.from), ends.by) / (dot(ends.by, ends.by) || 1);
        const place = roundTo(clamp(share, 0, 1), 4);
        const stops = start.stops.map((stop, one) => (one === index ? { ...stop, at: place } : stop));
        show({ ...start, stops });
      },
      ...ending,
    });
  }
</script>

<g class="handles signal" data-keeps-open>
  {#each ['halo', 'line'] as layer (layer)}
    <line class={layer} x1={from.x} y1={from.y} x2={to.x} y2={to.y} />
  {/each}
  {#if gradient.kind === 'radial'}
    <circle class="rim" r="1" transform={matrixText(rim)} />
  {/if}
  <line
    class="catch"
    data-handle="gradient-line"
    x1={from.x}
    y1={from.y}
    x2={to.x}
    y2={to.y}
    {@attach sliding()}
  >
    <title>Slide the gradient</title>
  </line>
  {#each ENDS as end (end)}
    <Grip
      name="gradient-{end}"
      at={end === 'from' ? from : to}
      size={16}
      round
      title="{title[end]}; Shift for steps of 15°"
      drag={pulling(end)}
    />
  {/each}
  {#each gradient.stops as stop, index (index)}
    {@const at = along(stop.at)}
    <rect
      class="stop"
      class:inner={stop.at > 0 && stop.at < 1}
      data-handle="gradient-stop-{index}"
      x={at.x - 4.5}
      y={at.y - 4.5}
      width="9"
      height="9"
      fill={inkOf(stop)}
      {@attach stopping(index)}
    >
      <title>Stop {index + 1}</title>
    </rect>
  {/each}
</g>

<style>
  .rim {
    fill: none;
    pointer-events: none;
    stroke: var(--signal);
    stroke-dasharray: 3 4;
    vector-effect: non-scaling-stroke;
  }
  .catch {
    stroke: transparent;
    stroke-width: 12px;
    cursor: move;
  }
  .stop {
    stroke: #fff;
    stroke-width: 1.5px;
    pointer-events: none;
  }
  /* A stop on an end shows its colour there; the end is what is pulled. */
  .inner {
    stroke: var(--signal);
    cursor: ew-resize;
    pointer-events: auto;
  }
</style>
