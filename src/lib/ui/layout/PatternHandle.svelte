<script lang="ts">
  import Grip from '../components/Grip.svelte';
  import { directionDegrees, length, subtract, type Point } from '$lib/core/geom/point';
  import type { PlacedFill } from '$lib/core/recipe/fill';
  import type { Shape } from '$lib/core/recipe/layout';
  import { moveBy, turnBy } from '$lib/core/recipe/transform';
  import {
    armFactor,
    patternHandle,
    scalePatternAt,
    type HandleGrid,
    type PatternHandle,
  } from '$lib/core/scene/handle';
  import { snapAngle } from '$lib/core/geom/snap';
  import type { LayoutEditor } from './editor.svelte';
  import type { View } from './view.svelte';
  import { dragging } from './dragging';

  /** The signal ring on the pattern's own lattice: the hub slides, the ring turns, the arms scale. */
  type Props = {
    shape: Shape;
    fill: PlacedFill;
    /** The lattice that the handle lies on; a picture has its own size as one. */
    grid: HandleGrid;
    editor: LayoutEditor;
    view: View;
  };
  let { shape, fill, grid, editor, view }: Props = $props();

  const RING = 40;
  const REACH = 60;

  /** While a drag is on, the handle stays on the lattice point where it began. */
  let held: Point | null = $state(null);
  const handle = $derived.by(() => {
    const placed = patternHandle(shape, fill, grid, REACH / view.zoom);
    return placed && held ? moved(placed, held) : placed;
  });
  const hub = $derived(handle ? view.toScreen(handle.hub) : null);
  const across = $derived(handle ? view.toScreen(handle.across) : null);
  const down = $derived(handle ? view.toScreen(handle.down) : null);
  const knob = $derived.by(() => {
    if (!hub || !across) return null;
    const out = subtract(across, hub);
    const size = length(out) || 1;
    return { x: hub.x + (out.x / size) * RING, y: hub.y + (out.y / size) * RING };
  });

  function moved(placed: PatternHandle, hubAt: Point): PatternHandle {
    const by = subtract(hubAt, placed.hub);
    const shift = (point: Point): Point => ({ x: point.x + by.x, y: point.y + by.y });
    return { ...placed, hub: hubAt, across: shift(placed.across), down: shift(placed.down) };
  }

  const ending = {
    end: () => {
      held = null;
      editor.history.commit();
    },
    cancel: () => {
      held = null;
      editor.history.cancel();
    },
  };

  function sliding() {
    let start: Shape;
    let from: Point;
    let hubFrom: Point;
    return dragging({
      view,
      start: (at) => {
        if (!handle) return false;
        start = shape;
        from = at;
        hubFrom = handle.hub;
      },
      move: (at, event) => {
        const by = subtract(at, from);
        if (event.shiftKey) {
          if (Math.abs(by.x) > Math.abs(by.y)) by.y = 0;
          else by.x = 0;
        }
        held = { x: hubFrom.x + by.x, y: hubFrom.y + by.y };
        editor.change(() => moveBy(start, 'pattern', by, fill.id), { live: true });
      },
      ...ending,
    });
  }

  function turning() {
    let start: Shape;
    let centre: Point;
    let from = 0;
    let turnFrom = 0;
    return dragging({
      view,
      start: (at) => {
        if (!handle) return false;
        start = shape;
        centre = handle.hub;
        turnFrom = fill.rotation;
        from = directionDegrees(subtract(at, centre));
      },
      move: (at, event) => {
        let by = directionDegrees(subtract(at, centre)) - from;
        if (event.shiftKey) by = snapAngle(turnFrom + by, 15) - turnFrom;
        held = centre;
        editor.change(() => turnBy(start, 'pattern', by, centre, fill.id), { live: true });
      },
      ...ending,
    });
  }

  function scaling(axis: 'across' | 'down') {
    let start: Shape;
    let at0: PatternHandle;
    return dragging({
      view,
      start: () => {
        if (!handle) return false;
        start = shape;
        at0 = handle;
      },
      move: (at, event) => {
        const factor = armFactor(at0.hub, at0[axis], at);
        const alone = event.shiftKey;
        held = at0.hub;
        editor.change(
          () =>
            scalePatternAt(
              start,
              at0.unit,
              alone && axis === 'down' ? 1 : factor,
              alone && axis === 'across' ? 1 : factor,
              fill.id,
            ),
          { live: true },
        );
      },
      ...ending,
    });
  }
</script>

{#if hub && across && down && knob}
  <g class="handles signal">
    {#each ['halo', 'line'] as layer (layer)}
      <g class={layer}>
        <circle cx={hub.x} cy={hub.y} r={RING} />
        <line x1={hub.x} y1={hub.y} x2={across.x} y2={across.y} />
        <line x1={hub.x} y1={hub.y} x2={down.x} y2={down.y} />
      </g>
    {/each}
    <circle class="catch" data-handle="ring" cx={hub.x} cy={hub.y} r={RING} {@attach turning()}>
      <title>Turn the pattern; Shift for steps of 15°</title>
    </circle>
    <circle class="knob" cx={knob.x} cy={knob.y} r="4.5" />
    {#each ['across', 'down'] as const as axis (axis)}
      <Grip
        name="arm-{axis}"
        at={axis === 'across' ? across : down}
        size={10}
        turn={45 + fill.rotation}
        title="Scale the pattern; Shift for this direction alone"
        drag={scaling(axis)}
      />
    {/each}
    <Grip name="hub" at={hub} size={14} round cursor="move" title="Slide the pattern" drag={sliding()} />
  </g>
{/if}

<style>
  .catch {
    fill: none;
    stroke: transparent;
    stroke-width: 14px;
    pointer-events: stroke;
    cursor: grab;
  }
  .knob {
    fill: var(--signal);
    stroke: #fff;
    stroke-width: 1.5px;
    pointer-events: none;
  }
</style>
