<script lang="ts" module>
  /** The brush as it was last set: it stays from mask to mask. Its size is in px of the page. */
  const brush = $state({ size: 0, softness: 0.6, strength: 1, mode: 'erase' as 'erase' | 'restore' });
</script>

<script lang="ts">
  import { apply, chain, invert, translation } from '$lib/core/geom/affine';
  import type { Point } from '$lib/core/geom/point';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Shape } from '$lib/core/recipe/layout';
  import { freshMask, type MaskStroke, type PaintedMask } from '$lib/core/recipe/mask';
  import { meanScale } from '$lib/core/scene/layout';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';
  import { toasts } from '../state/toasts.svelte';
  import { dragging } from './dragging';
  import type { LayoutEditor } from './editor.svelte';
  import type { View } from './view.svelte';

  /** Paints the mask of a shape or of its fill: a round brush that erases and restores. */
  type Props = { shape: Shape; editor: LayoutEditor; view: View; width: number; height: number };
  let { shape, editor, view, width, height }: Props = $props();

  // A brush starts at a sixth of the first shape that is painted.
  // svelte-ignore state_referenced_locally
  if (brush.size === 0) brush.size = Math.min(shape.width, shape.height) / 6;

  const held = $derived(editor.painting === 'shape' ? shape.mask : (editor.activeOf(shape)?.mask ?? null));
  const mask = $derived<PaintedMask>(held?.kind === 'painted' ? held : freshMask());
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

  const share = { suffix: '%' as const };
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
  <circle class="halo" cx={pointer.x} cy={pointer.y} r={(brush.size * view.zoom) / 2} />
  <circle class="rim" cx={pointer.x} cy={pointer.y} r={(brush.size * view.zoom) / 2} />
  <circle
    class="core"
    cx={pointer.x}
    cy={pointer.y}
    r={((brush.size * view.zoom) / 2) * (1 - brush.softness)}
  />
{/if}
<foreignObject x={Math.max(8, width / 2 - 370)} y={height - 48} width={Math.min(width - 16, 740)} height="44">
  <div class="tools" role="group" aria-label="Mask brush">
    <Switch
      label="What the brush does"
      value={brush.mode}
      options={[
        { value: 'erase', label: 'Erase' },
        { value: 'restore', label: 'Restore' },
      ]}
      onset={(mode) => (brush.mode = mode)}
    />
    <span
      >Size <NumberField
        label="Size of the brush"
        value={brush.size}
        kind={{ unit: editor.doc.measure }}
        least={0.1}
        most={LIMITS.shapeSide.most}
        onlive={(size) => (brush.size = size)}
        onset={(size) => (brush.size = size)}
      /></span
    >
    <span
      >Softness <NumberField
        label="Softness of the brush"
        value={brush.softness}
        kind={share}
        least={0}
        most={1}
        onlive={(softness) => (brush.softness = softness)}
        onset={(softness) => (brush.softness = softness)}
      /></span
    >
    <span
      >Strength <NumberField
        label="Strength of the brush"
        value={brush.strength}
        kind={share}
        least={0.01}
        most={1}
        onlive={(strength) => (brush.strength = strength)}
        onset={(strength) => (brush.strength = strength)}
      /></span
    >
    <Button
      kind="quiet"
      disabled={mask.strokes.length === 0}
      onclick={() =>
        editor.setMask(editor.painting ?? 'fill', { ...mask, strokes: mask.strokes.slice(0, -1) })}
      >Take the last stroke away</Button
    >
    <Button kind="main" onclick={() => (editor.painting = null)}>Done</Button>
  </div>
</foreignObject>

<style>
  .catch {
    fill: transparent;
    cursor: none;
  }
  .stroke,
  circle {
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
  .halo {
    stroke: rgb(255 255 255 / 85%);
    stroke-width: 3px;
  }
  .rim,
  .core {
    stroke: var(--kelp);
    stroke-width: 1.25px;
  }
  .core {
    stroke-dasharray: 3 3;
  }
  .tools {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    height: 40px;
    padding: 0 10px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
    font-size: 12.5px;
    white-space: nowrap;
  }
  .tools span {
    color: var(--muted);
  }
</style>
