<script lang="ts">
  import Grip from '../../components/Grip.svelte';
  import { fromPx } from '$lib/core/num/length';
  import { FRAME_HANDLES } from '$lib/core/recipe/sizing';
  import { boardSizing, boardTurning } from './board-drags';
  import type { BoardContext } from './board-snap';

  /** The frame of what is chosen on the board, measured, with handles that size and turn it. */
  type Props = { context: BoardContext };
  let { context }: Props = $props();

  const { view } = $derived(context);
  const box = $derived(context.board.box);
  const measure = $derived(context.board.editor.composed.measure);
  const say = (px: number): string => String(Number(fromPx(px, measure).toFixed(2)));
</script>

<g class="handles">
  {#if box}
    {@const from = view.toScreen(box)}
    {@const size = { width: box.width * view.zoom, height: box.height * view.zoom }}
    <rect class="halo" x={from.x} y={from.y} {...size} />
    <rect class="line" x={from.x} y={from.y} {...size} />
    <text class="size" x={from.x + size.width / 2} y={from.y - 12} text-anchor="middle"
      >{say(box.width)} × {say(box.height)} {measure}</text
    >
    {#each FRAME_HANDLES as handle (`${handle.across},${handle.down}`)}
      <Grip
        name="{handle.across},{handle.down}"
        at={{
          x: from.x + (size.width * (handle.across + 1)) / 2,
          y: from.y + (size.height * (handle.down + 1)) / 2,
        }}
        reach={Math.min(24, 0.45 * Math.min(size.width, size.height))}
        drag={boardSizing(context, handle)}
      />
    {/each}
    <Grip
      name="turn"
      at={{ x: from.x + size.width / 2, y: from.y + size.height + 20 }}
      round
      title="Turn; Shift for steps of 15°"
      drag={boardTurning(context)}
    />
  {/if}
</g>

<style>
  .size {
    fill: var(--ink);
    paint-order: stroke;
    stroke: #fff;
    stroke-width: 4px;
    font: 500 12px var(--mono);
    pointer-events: none;
  }
</style>
