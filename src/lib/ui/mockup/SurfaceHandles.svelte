<script lang="ts">
  import type { Point } from '$lib/core/geom/point';
  import type { Size } from '$lib/core/lattice/size';
  import type { Standing } from '$lib/core/mockup/mockup';
  import { gridFault, onPhoto, rowsOf } from '$lib/core/mockup/photo';
  import { toasts } from '../state/toasts.svelte';

  /** The handles of the chosen surface on a photograph, dragged or moved by arrow keys, and the outlines of the others. */
  type Props = {
    surfaces: readonly Standing[];
    chosen: string | null;
    photo: Size;
    /** Px of the window to one of the photograph. */
    scale: number;
    onmove: (id: string, points: Point[], live: boolean) => void;
    oncancel: () => void;
    onchoose: (id: string) => void;
  };
  let { surfaces, chosen, photo, scale, onmove, oncancel, onchoose }: Props = $props();

  const one = $derived(surfaces.find(({ id }) => id === chosen) ?? null);

  /** Handles move while what they show is a surface; where it would not be one any more they stay. */
  function moved(index: number, to: Point, isLive: boolean): void {
    if (!one?.grid) return;
    const round = (value: number): number => Math.round(value * 100) / 100;
    const points = one.grid.points.map((point, at) =>
      at === index ? { x: round(to.x), y: round(to.y) } : point,
    );
    const wrong = gridFault({ ...one.grid, points });
    if (wrong) {
      toasts.problem(wrong, 'handles');
      return;
    }
    toasts.settled('handles');
    onmove(one.id, points, isLive);
  }
  let held: { index: number; from: Point; start: Point } | null = null;
  function onkeydown(event: KeyboardEvent, index: number, point: Point): void {
    const by = event.shiftKey ? 10 : 1;
    const step = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[
      event.key
    ];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    moved(index, { x: point.x + step[0]!, y: point.y + step[1]! }, false);
  }
  /** The outline of a surface and its lines between the handles, px of the photograph. */
  function linesOf({ grid }: Standing): string {
    if (!grid) return '';
    const at = onPhoto(grid);
    const line = (from: (share: number) => Point): string =>
      Array.from({ length: 25 }, (_, index) => {
        const { x, y } = from(index / 24);
        return `${index === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
      }).join('');
    const rows = rowsOf(grid);
    return [
      ...Array.from({ length: grid.columns }, (_, column) =>
        line((share) => at(column / (grid.columns - 1), share)),
      ),
      ...Array.from({ length: rows }, (_, row) => line((share) => at(share, row / (rows - 1)))),
    ].join('');
  }
</script>

<svg viewBox="0 0 {photo.width} {photo.height}" role="group" aria-label="Handles of the surfaces">
  {#each surfaces as surface (surface.id)}
    {#if surface.id !== chosen}
      <!-- The list beside it does the same by keys. -->
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <path class="other" d={linesOf(surface)} onclick={() => onchoose(surface.id)} />
    {/if}
  {/each}
  {#if one?.grid}
    <path class="lines" d={linesOf(one)} />
    {#each one.grid.points as point, index (index)}
      <circle
        cx={point.x}
        cy={point.y}
        r={6 / scale}
        role="button"
        tabindex="0"
        aria-label="Handle {(index % one.grid.columns) + 1}, {Math.floor(index / one.grid.columns) + 1}"
        onkeydown={(event) => onkeydown(event, index, point)}
        onpointerdown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          held = { index, from: point, start: { x: event.clientX, y: event.clientY } };
        }}
        onpointermove={(event) => {
          if (held?.index !== index) return;
          const by = {
            x: (event.clientX - held.start.x) / scale,
            y: (event.clientY - held.start.y) / scale,
          };
          moved(index, { x: held.from.x + by.x, y: held.from.y + by.y }, true);
        }}
        onpointerup={() => {
          if (held && one) onmove(one.id, [...one.grid!.points], false);
          held = null;
        }}
        onpointercancel={() => {
          held = null;
          oncancel();
        }}
      />
    {/each}
  {/if}
</svg>

<style>
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    overflow: visible;
  }
  path {
    fill: none;
    vector-effect: non-scaling-stroke;
  }
  .lines {
    stroke: var(--kelp);
    stroke-width: 1.5px;
    pointer-events: none;
  }
  .other {
    fill: transparent;
    stroke: rgb(255 255 255 / 70%);
    stroke-width: 1px;
    cursor: pointer;
  }
  circle {
    fill: #fff;
    stroke: var(--kelp);
    stroke-width: 2px;
    vector-effect: non-scaling-stroke;
    cursor: grab;
  }
  circle:focus-visible {
    fill: var(--kelp);
    outline: none;
  }
</style>
