<script lang="ts">
  import type { Data } from 'plotly.js-dist-min';
  import type { PaletteEntry } from '$lib/contract/data';
  import { contrastRatio } from '$lib/core/colour/contrast';
  import { deltaE2000 } from '$lib/core/colour/difference';
  import Chart from '../components/Chart.svelte';
  import Switch from '../components/Switch.svelte';

  /** Every colour of a palette against every other: WCAG contrast ratio, or ΔE2000. */
  type Props = { colours: readonly PaletteEntry[] };
  let { colours }: Props = $props();

  let kind = $state<'contrast' | 'difference'>('contrast');
  const MOST = 24;
  const shown = $derived(colours.slice(0, MOST));
  const names = $derived(shown.map((entry) => entry.name));
  const values = $derived(
    shown.map((one) =>
      shown.map((other) =>
        kind === 'contrast' ? contrastRatio(one.hex, other.hex) : deltaE2000(one.hex, other.hex),
      ),
    ),
  );
  /** Numbers in the squares, as long as there is room for them. */
  const labelled = $derived(shown.length <= 14);
  const data = $derived<Data[]>([
    {
      type: 'heatmap',
      x: names,
      y: names,
      z: values.map((row) => row.map((value) => (kind === 'contrast' ? Math.log(value) : value))),
      text: values.map((row) => row.map((value) => value.toFixed(value < 10 ? 1 : 0))) as unknown as string[],
      ...(labelled ? { texttemplate: '%{text}' } : {}),
      hovertemplate: `%{y} on %{x}: %{text}${kind === 'contrast' ? ' : 1' : ''}<extra></extra>`,
      zmin: 0,
      zmax: kind === 'contrast' ? Math.log(21) : 100,
      colorscale:
        kind === 'contrast'
          ? [
              [0, '#f3e3cf'],
              [Math.log(3) / Math.log(21) - 0.001, '#f3e3cf'],
              [Math.log(3) / Math.log(21), '#dfe8e2'],
              [Math.log(4.5) / Math.log(21) - 0.001, '#dfe8e2'],
              [Math.log(4.5) / Math.log(21), '#b9d6cc'],
              [1, '#5f9d8f'],
            ]
          : [
              [0, '#f3e3cf'],
              [0.06, '#f3e3cf'],
              [0.061, '#e4ece7'],
              [1, '#5f9d8f'],
            ],
      showscale: false,
      xgap: 1,
      ygap: 1,
    } as unknown as Data,
  ]);
  const worst = $derived.by(() => {
    let least = { value: Number.POSITIVE_INFINITY, one: '', other: '' };
    values.forEach((row, y) =>
      row.forEach((value, x) => {
        if (x > y && value < least.value) least = { value, one: names[y] ?? '', other: names[x] ?? '' };
      }),
    );
    return least;
  });
  const side = $derived(Math.min(560, 150 + shown.length * 32));
</script>

<section aria-labelledby="matrix">
  <header>
    <h2 id="matrix">Against each other</h2>
    <Switch
      label="Reading"
      value={kind}
      options={[
        { value: 'contrast', label: 'Contrast' },
        { value: 'difference', label: 'ΔE2000' },
      ]}
      onset={(value) => (kind = value)}
    />
  </header>
  {#if shown.length < 2}
    <p class="muted">Two colours or more can be held against each other.</p>
  {:else}
    <p class="muted">
      {kind === 'contrast'
        ? 'WCAG contrast ratio; 4.5 : 1 and more serves text, 3 : 1 large text and marks.'
        : 'Colour difference; below about 6 two areas are hard to tell apart at a glance.'}
      Least: {worst.one} and {worst.other}, <span class="mono">{worst.value.toFixed(1)}</span>.
    </p>
    <Chart
      label="{kind === 'contrast' ? 'Contrast ratios' : 'Colour differences'} of {names.join(
        ', ',
      )}. Least: {worst.one} and {worst.other}, {worst.value.toFixed(1)}."
      {data}
      height={side}
      layout={{
        margin: { l: 104, r: 40, t: 84, b: 4 },
        xaxis: { side: 'top', tickangle: -40, fixedrange: true, showgrid: false },
        yaxis: { autorange: 'reversed', fixedrange: true, showgrid: false, ticksuffix: '  ' },
      }}
    />
    {#if colours.length > MOST}<p class="muted">The first {MOST} colours are shown.</p>{/if}
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 8px;
    max-width: 700px;
  }
  header {
    display: flex;
    align-items: center;
    gap: 16px;
  }
</style>
