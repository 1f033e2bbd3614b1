<script lang="ts">
  import { fromPx, toPx, type LengthUnit } from '$lib/core/num/length';
  import type { View } from './view.svelte';

  /** The border of black and white bars round the page, as on a sea chart: one bar is a round number of the page's unit. */
  type Props = { width: number; height: number; measure: LengthUnit; view: View };
  let { width, height, measure, view }: Props = $props();

  const THICK = 5;
  const AWAY = 8;

  const origin = $derived(view.toScreen({ x: 0, y: 0 }));
  const far = $derived(view.toScreen({ x: width, y: height }));
  /** A bar's length in the page's unit: 1, 2 or 5 times a power of ten, nearest above 32 px on the screen. */
  const bar = $derived.by(() => {
    const least = fromPx(32 / view.zoom, measure);
    const power = 10 ** Math.floor(Math.log10(least));
    return [1, 2, 5, 10].map((step) => step * power).find((step) => step >= least) ?? power * 10;
  });
  const across = $derived(bars(width));
  const down = $derived(bars(height));
  const say = (px: number): string => String(Number(fromPx(px, measure).toFixed(2)));

  function bars(side: number): { from: number; to: number }[] {
    const step = toPx(bar, measure);
    const count = Math.ceil(side / step);
    return Array.from({ length: Math.ceil(count / 2) }, (_, index) => ({
      from: index * 2 * step * view.zoom,
      to: Math.min(side, (index * 2 + 1) * step) * view.zoom,
    }));
  }
</script>

<g class="border" transform="translate({origin.x} {origin.y})" aria-hidden="true">
  <rect
    class="frame"
    x={-AWAY - THICK}
    y={-AWAY - THICK}
    width={far.x - origin.x + 2 * (AWAY + THICK)}
    height={far.y - origin.y + 2 * (AWAY + THICK)}
  />
  <rect
    class="inner"
    x={-AWAY}
    y={-AWAY}
    width={far.x - origin.x + 2 * AWAY}
    height={far.y - origin.y + 2 * AWAY}
  />
  {#each across as { from, to } (from)}
    <rect class="bar" x={from} y={-AWAY - THICK} width={to - from} height={THICK} />
    <rect class="bar" x={from} y={far.y - origin.y + AWAY} width={to - from} height={THICK} />
  {/each}
  {#each down as { from, to } (from)}
    <rect class="bar" x={-AWAY - THICK} y={from} width={THICK} height={to - from} />
    <rect class="bar" x={far.x - origin.x + AWAY} y={from} width={THICK} height={to - from} />
  {/each}
  <text x={-AWAY - THICK} y={-AWAY - THICK - 5}>0</text>
  <text x={far.x - origin.x + AWAY + THICK} y={-AWAY - THICK - 5} text-anchor="end"
    >{say(width)} {measure}</text
  >
  <text x={-AWAY - THICK} y={far.y - origin.y + AWAY + THICK + 13}
    >{say(height)} {measure}, one bar {Number(bar.toFixed(4))} {measure}</text
  >
</g>

<style>
  .border {
    pointer-events: none;
  }
  .frame {
    fill: #fff;
    stroke: var(--ink);
    stroke-width: 0.75px;
  }
  .inner {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 0.75px;
  }
  .bar {
    fill: var(--ink);
  }
  text {
    fill: var(--surround-ink);
    font: 500 11px var(--mono);
  }
</style>
