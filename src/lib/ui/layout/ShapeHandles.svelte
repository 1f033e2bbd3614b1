<script lang="ts">
  import Grip from '../components/Grip.svelte';
  import { applyVector, chain, scaling, translation } from '$lib/core/geom/affine';
  import { formatPath, transformPath } from '$lib/core/geom/path';
  import { frameCorners, shapeCentre, shapeLinear, shapeOutline, type Shape } from '$lib/core/recipe/layout';
  import {
    FRAME_HANDLES,
    frameByHandle,
    handlePoint,
    skewByHandle,
    type FrameHandle,
  } from '$lib/core/recipe/sizing';
  import { mapBy, sizeTo, turnBy, withinLimits } from '$lib/core/recipe/transform';
  import { directionDegrees, subtract, type Point } from '$lib/core/geom/point';
  import { snapAngle } from '$lib/core/geom/snap';
  import type { LayoutEditor } from './editor.svelte';
  import type { View } from './view.svelte';
  import { dragging } from './dragging';

  /** Kelp squares on the shape's frame that size it, and a round one off its corner that turns it. */
  type Props = { shape: Shape; editor: LayoutEditor; view: View };
  let { shape, editor, view }: Props = $props();

  const outline = $derived(
    formatPath(
      transformPath(
        chain(translation(view.pan.x, view.pan.y), scaling(view.zoom), translation(shape.x, shape.y)),
        shapeOutline(shape),
      ),
    ),
  );
  const corners = $derived(frameCorners(shape).map((corner) => view.toScreen(corner)));
  const turner = $derived.by(() => {
    const corner = corners[2] ?? { x: 0, y: 0 };
    const out = applyVector(shapeLinear(shape), { x: 18, y: 18 });
    return { x: corner.x + out.x, y: corner.y + out.y };
  });
  /** Px of a side on the screen from which its own handle has room between those of the corners. */
  const ROOM = 52;
  let lastRoom = { across: true, down: true };
  // Judged at rest: a handle that is being dragged must not go.
  const room = $derived.by(() => {
    if (!editor.history.inGesture)
      lastRoom = { across: shape.width * view.zoom >= ROOM, down: shape.height * view.zoom >= ROOM };
    return lastRoom;
  });
  const handles = $derived(
    FRAME_HANDLES.map((handle, index) => ({ handle, index })).filter(
      ({ handle: { across, down } }) => (across !== 0 || room.across) && (down !== 0 || room.down),
    ),
  );
  /** What can be caught of a handle: less on a small shape, so that its middle is left to move it by. */
  const reach = $derived(Math.min(24, 0.6 * Math.min(shape.width, shape.height) * view.zoom));
  const cursors = ['nwse-resize', 'ns-resize', 'nesw-resize', 'ew-resize'];
  const cursorOf = (index: number): string =>
    cursors[Math.round(index + shape.rotation / 45 + 800) % 4] ?? 'move';

  function sizing(handle: FrameHandle) {
    let start: Shape;
    let grip: Point;
    return dragging({
      view,
      start: (at) => {
        start = shape;
        grip = subtract(at, handlePoint(shape, handle));
      },
      move: (at, event) => {
        const pointer = subtract(at, grip);
        if (event.ctrlKey || event.metaKey) {
          const skew = skewByHandle(start, handle, subtract(pointer, handlePoint(start, handle)));
          const skewed = skew && mapBy(start, editor.scope, skew, editor.activeOf(start)?.id);
          if (skewed && withinLimits(skewed)) editor.change(() => skewed, { live: true });
          if (skew) return;
        }
        const frame = frameByHandle(start, handle, pointer, {
          proportional: event.shiftKey,
          centred: event.altKey,
        });
        editor.change(() => sizeTo(start, editor.scope, frame, editor.activeOf(start)?.id), { live: true });
      },
      end: () => editor.history.commit(),
      cancel: () => editor.history.cancel(),
    });
  }

  function turning() {
    let start: Shape;
    let from = 0;
    return dragging({
      view,
      start: (at) => {
        start = shape;
        from = directionDegrees(subtract(at, shapeCentre(start)));
      },
      move: (at, event) => {
        let by = directionDegrees(subtract(at, shapeCentre(start))) - from;
        if (event.shiftKey) by = snapAngle(start.rotation + by, 15) - start.rotation;
        editor.change(() => turnBy(start, editor.scope, by, shapeCentre(start), editor.activeOf(start)?.id), {
          live: true,
        });
      },
      end: () => editor.history.commit(),
      cancel: () => editor.history.cancel(),
    });
  }
</script>

<g class="handles">
  <!-- Letters are too fine for a line along them: their frame is enough. -->
  {#if shape.form.kind !== 'text'}
    <path class="halo" d={outline} />
    <path class="line" d={outline} />
  {/if}
  <polygon class="frame" points={corners.map((corner) => `${corner.x},${corner.y}`).join(' ')} />
  {#each handles as { handle, index } (index)}
    <Grip
      name="{handle.across},{handle.down}"
      at={view.toScreen(handlePoint(shape, handle))}
      turn={shape.rotation}
      cursor={cursorOf(index)}
      title={handle.across === 0 || handle.down === 0 ? 'Size it; Ctrl or Cmd to skew it' : undefined}
      {reach}
      drag={sizing(handle)}
    />
  {/each}
  <Grip name="turn" at={turner} round title="Turn the shape; Shift for steps of 15°" drag={turning()} />
</g>

<style>
  .frame {
    fill: none;
    pointer-events: none;
    stroke: var(--kelp);
    stroke-width: 0.75px;
    stroke-dasharray: 3 3;
  }
</style>
