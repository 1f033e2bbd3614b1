<script lang="ts">
  import Grip from '../components/Grip.svelte';
  import { boxOfPoints, type Box } from '$lib/core/geom/box';
  import { add, directionDegrees, length, subtract, times, type Point } from '$lib/core/geom/point';
  import type { PlacedFill } from '$lib/core/recipe/fill';
  import { frameCorners, type Shape } from '$lib/core/recipe/layout';
  import { moveBy, turnBy } from '$lib/core/recipe/transform';
  import {
    armFactor,
    patternHandle,
    scalePatternAt,
    type HandleGrid,
    type PatternHandle,
  } from '$lib/core/scene/handle';
  import { snapAngle } from '$lib/core/geom/snap';
  import { besides, liesRound } from './aside';
  import type { LayoutEditor } from './editor.svelte';
  import type { View } from './view.svelte';
  import { dragging } from './dragging';

  /**
   * The pattern's handle: the hub slides, the ring turns, the arms scale. Where the handles move the pattern it lies on
   * the pattern's own lattice; else the shape is what one takes hold of, and the handle stands aside as a dial.
   */
  type Props = {
    shape: Shape;
    fill: PlacedFill;
    /** The lattice that the handle lies on; a picture has its own size as one. */
    grid: HandleGrid;
    editor: LayoutEditor;
    view: View;
    /** The stage, px. */
    width: number;
    height: number;
  };
  let { shape, fill, grid, editor, view, width, height }: Props = $props();

  const RING = 40;
  const REACH = 60;
  /** The dial: its plate, its ring, and how far its arms reach, px. */
  const DIAL = { plate: 43, ring: 34, arm: 26 };

  /** While a drag is on, the handle stays on the lattice point where it began. */
  let held: Point | null = $state(null);
  const handle = $derived.by(() => {
    const placed = patternHandle(shape, fill, grid, REACH / view.zoom);
    return placed && held ? moved(placed, held) : placed;
  });
  const aside = $derived(editor.scope !== 'pattern');
  /** Where the dial stands; it stays there while it is dragged. */
  let lastStand: Point = { x: 0, y: 0 };
  const stand = $derived.by(() => {
    const box = boxOfPoints(frameCorners(shape).map((corner) => view.toScreen(corner)));
    if (held === null && box) lastStand = besides(box, { width, height }, DIAL.plate, others);
    return lastStand;
  });
  /** Where other shapes lie; as they were while something moves, so that the dial does not change sides for them then. */
  let lastOthers: Box[] = [];
  const others = $derived.by(() => {
    if (!editor.history.inGesture) lastOthers = aside ? boxesBeside() : [];
    return lastOthers;
  });
  function boxesBeside(): Box[] {
    const own = boxOfPoints(frameCorners(shape));
    return editor.doc.shapes.flatMap((other) => {
      const box = other.id === shape.id ? null : boxOfPoints(frameCorners(other));
      if (!own || !box || liesRound(box, own)) return [];
      const at = view.toScreen(box);
      return [{ ...at, width: box.width * view.zoom, height: box.height * view.zoom }];
    });
  }

  type Drawn = { hub: Point; across: Point; down: Point; knob: Point; ring: number };
  const towards = (from: Point, to: Point, far: number): Point => {
    const out = subtract(to, from);
    return add(from, times(out, far / (length(out) || 1)));
  };
  /** The handle on its lattice, px of the stage. */
  const laid = $derived.by((): Drawn | null => {
    if (!handle) return null;
    const [hub, across, down] = [handle.hub, handle.across, handle.down].map((point) => view.toScreen(point));
    if (!hub || !across || !down) return null;
    return { hub, across, down, knob: towards(hub, across, RING), ring: RING };
  });
  const shown = $derived.by((): Drawn | null => {
    if (!laid || !aside) return laid;
    const arm = (to: Point): Point => towards(stand, add(stand, subtract(to, laid.hub)), DIAL.arm);
    const [across, down] = [arm(laid.across), arm(laid.down)];
    // Between the arms, so that each has room for the pointer.
    const knob = towards(
      stand,
      { x: across.x + down.x - stand.x, y: across.y + down.y - stand.y },
      DIAL.ring,
    );
    return { hub: stand, across, down, knob, ring: DIAL.ring };
  });

  function moved(placed: PatternHandle, hubAt: Point): PatternHandle {
    const by = subtract(hubAt, placed.hub);
    return { ...placed, hub: hubAt, across: add(placed.across, by), down: add(placed.down, by) };
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
        held = add(hubFrom, by);
        editor.change(() => moveBy(start, 'pattern', by, fill.id), { live: true });
      },
      ...ending,
    });
  }

  function turning() {
    let start: Shape;
    let centre: Point;
    /** What the pointer goes round: the hub where it is drawn. */
    let round: Point;
    let from = 0;
    let turnFrom = 0;
    return dragging({
      view,
      start: (at) => {
        if (!handle || !shown) return false;
        start = shape;
        centre = handle.hub;
        round = view.toPage(shown.hub);
        turnFrom = fill.rotation;
        from = directionDegrees(subtract(at, round));
      },
      move: (at, event) => {
        let by = directionDegrees(subtract(at, round)) - from;
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
    let from: Point;
    return dragging({
      view,
      start: (at) => {
        if (!handle) return false;
        start = shape;
        at0 = handle;
        from = at;
      },
      move: (at, event) => {
        // From where it was taken hold of; a dial's arms are pulled as if they were as long as those on the lattice.
        const pulled = add(at0[axis], subtract(at, from));
        const factor = armFactor(at0.hub, at0[axis], pulled);
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
  /** What can be caught of the hub and the arms: no more than lies between them. */
  const reach = $derived(
    shown
      ? Math.min(
          24,
          0.95 *
            Math.min(
              ...(['across', 'down'] as const).map((axis) => length(subtract(shown[axis], shown.hub))),
            ),
        )
      : 24,
  );
</script>

{#snippet lines(drawn: Drawn)}
  {#each ['halo', 'line'] as layer (layer)}
    <g class={layer}>
      <circle cx={drawn.hub.x} cy={drawn.hub.y} r={drawn.ring} />
      <line x1={drawn.hub.x} y1={drawn.hub.y} x2={drawn.across.x} y2={drawn.across.y} />
      <line x1={drawn.hub.x} y1={drawn.hub.y} x2={drawn.down.x} y2={drawn.down.y} />
    </g>
  {/each}
{/snippet}

{#if laid && shown}
  {#if aside && held}<g class="handles signal ghost">{@render lines(laid)}</g>{/if}
  <g class="handles signal" class:dial={aside} data-pattern-handle={aside ? 'dial' : 'laid'}>
    {#if aside}<circle class="plate" cx={stand.x} cy={stand.y} r={DIAL.plate} {@attach sliding()} />{/if}
    {@render lines(shown)}
    <circle
      class="catch"
      data-handle="ring"
      cx={shown.hub.x}
      cy={shown.hub.y}
      r={shown.ring}
      {@attach turning()}
    >
      <title>Turn the pattern; Shift for steps of 15°</title>
    </circle>
    <circle class="knob" cx={shown.knob.x} cy={shown.knob.y} r="4.5" />
    {#each ['across', 'down'] as const as axis (axis)}
      <Grip
        name="arm-{axis}"
        at={shown[axis]}
        size={10}
        turn={45 + fill.rotation}
        title="Scale the pattern; Shift for this direction alone"
        {reach}
        drag={scaling(axis)}
      />
    {/each}
    <Grip
      name="hub"
      at={shown.hub}
      size={14}
      round
      cursor="move"
      title="Slide the pattern"
      {reach}
      drag={sliding()}
    />
  </g>
{/if}

<style>
  .plate {
    fill: var(--card);
    stroke: var(--rule);
    cursor: move;
    filter: drop-shadow(0 1px 3px rgb(20 33 31 / 22%));
  }
  .ghost {
    opacity: 0.7;
    pointer-events: none;
  }
  .catch {
    fill: none;
    stroke: transparent;
    stroke-width: 14px;
    pointer-events: stroke;
    cursor: grab;
  }
  .dial .catch {
    stroke-width: 11px;
  }
  .knob {
    fill: var(--signal);
    stroke: #fff;
    stroke-width: 1.5px;
    pointer-events: none;
  }
</style>
