<script lang="ts">
  import { fromPx, type LengthUnit } from '$lib/core/num/length';
  import type { SnapShown } from './snapping';
  import type { View } from './view.svelte';

  /** The lines that a dragged selection snapped to, and its distances from what lies next to it. */
  type Props = { shown: SnapShown; measure: LengthUnit; view: View; width: number; height: number };
  let { shown, measure, view, width, height }: Props = $props();

  const x = $derived(shown.x === null ? null : view.toScreen({ x: shown.x, y: 0 }).x);
  const y = $derived(shown.y === null ? null : view.toScreen({ x: 0, y: shown.y }).y);
  const distances = $derived(
    shown.distances.map(({ from, to, length }) => ({
      from: view.toScreen(from),
      to: view.toScreen(to),
      text: String(Number(fromPx(length, measure).toFixed(measure === 'in' ? 3 : 1))),
    })),
  );
</script>

<g class="snap">
  {#if x !== null}<path class="line" d="M{x} 0V{height}" />{/if}
  {#if y !== null}<path class="line" d="M0 {y}H{width}" />{/if}
  {#each distances as { from, to, text }, index (index)}
    <path class="halo" d="M{from.x} {from.y}L{to.x} {to.y}" />
    <path class="distance" d="M{from.x} {from.y}L{to.x} {to.y}" />
    <text class="halo" x={(from.x + to.x) / 2 + 4} y={(from.y + to.y) / 2 - 4}>{text}</text>
    <text x={(from.x + to.x) / 2 + 4} y={(from.y + to.y) / 2 - 4}>{text}</text>
  {/each}
</g>

<style>
  .snap {
    pointer-events: none;
  }
  .line,
  .distance {
    fill: none;
    stroke: var(--kelp);
    stroke-width: 1px;
  }
  .distance {
    stroke-dasharray: 2 2;
  }
  path.halo {
    fill: none;
    stroke: rgb(255 255 255 / 70%);
    stroke-width: 3px;
  }
  text {
    fill: var(--kelp);
    font: 500 11px var(--mono);
  }
  text.halo {
    stroke: rgb(255 255 255 / 90%);
    stroke-width: 3px;
  }
</style>
