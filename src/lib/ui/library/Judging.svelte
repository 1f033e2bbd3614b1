<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { toOklch } from '$lib/core/colour/space';
  import type { SlotColours } from '$lib/core/colour/slots';
  import { contrasts } from '$lib/core/recipe/contrast';
  import type { Point } from '$lib/core/geom/point';
  import { toPx } from '$lib/core/num/length';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import Chart from '../components/Chart.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { readingOn, type ReadingOn } from './legibility';

  /** What can be read off a pattern's colours: how light they are, how they stand on the ground, and text or a logo on all of it. */
  type Props = {
    recipe: Recipe;
    over: SlotColours;
    palettes: PaletteData[];
    scale: number;
    surface: { name: string; colour: string };
    onmark: (place: Point | null) => void;
  };
  let { recipe, over, palettes, scale, surface, onmark }: Props = $props();

  const slots = $derived(recipe.slots.map((slot) => ({ ...slot, colour: over[slot.id] ?? slot.colour })));
  const ordered = $derived(
    slots.map((slot) => ({ ...slot, l: toOklch(slot.colour).l })).sort((one, other) => one.l - other.l),
  );
  const standing = $derived(contrasts({ ...recipe, slots }, surface));
  let ink = $state('#ffffff');
  let size = $state(toPx(6, 'mm'));
  let reading: ReadingOn | null = $state.raw(null);
  let asked = 0;

  $effect(() => {
    const turn = ++asked;
    const ask = { over, surface: surface.colour, colour: ink, size, scale };
    void readingOn(recipe, ask).then((found) => {
      if (turn !== asked) return;
      reading = found;
      onmark(found.at);
    });
  });
  $effect(() => () => onmark(null));

  const chart = $derived([
    {
      type: 'bar' as const,
      orientation: 'h' as const,
      x: ordered.map((slot) => Math.round(slot.l * 100)),
      y: ordered.map((slot) => slot.name),
      text: ordered.map((slot) => `${Math.round(slot.l * 100)}`),
      textposition: 'outside' as const,
      cliponaxis: false,
      marker: { color: ordered.map((slot) => slot.colour), line: { color: 'rgba(20,33,31,0.3)', width: 1 } },
      hoverinfo: 'skip' as const,
    },
  ]);
  const says = (ratio: number): string => `${ratio.toFixed(ratio < 10 ? 1 : 0)}\u00a0:\u00a01`;
</script>

<section aria-labelledby="lightness">
  <h3 id="lightness">Lightness</h3>
  <Chart
    label="OKLCH lightness: {ordered.map((slot) => `${slot.name} ${Math.round(slot.l * 100)} %`).join(', ')}"
    data={chart}
    height={30 + ordered.length * 24}
    layout={{
      margin: { l: 92, r: 26, t: 2, b: 24 },
      xaxis: { range: [0, 100], dtick: 25, gridcolor: '#d8dad7', zeroline: false, fixedrange: true },
      yaxis: { fixedrange: true, ticksuffix: '  ' },
      bargap: 0.3,
    }}
  />
</section>
{#if standing.length > 0}
  <section aria-labelledby="standing">
    <h3 id="standing">On the ground</h3>
    <table>
      <thead
        ><tr><th scope="col">Colour</th><th scope="col">Contrast</th><th scope="col">ΔE2000</th></tr></thead
      >
      <tbody>
        {#each standing as { slot, name, against, ratio, deltaE, alike } (slot + against)}
          <tr class:alike>
            <td
              ><span class="dot" style:background={slots.find((one) => one.id === slot)?.colour}></span>{name}
              <span class="muted">on {against}</span></td
            >
            <td class="mono">{says(ratio)}</td>
            <td class="mono">{deltaE.toFixed(1)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </section>
{/if}
<section aria-labelledby="reading">
  <h3 id="reading">Text or a logo on it</h3>
  <div class="ask">
    <ColourWell
      colour={ink}
      label="Colour of the text"
      {palettes}
      onlive={(hex) => (ink = hex)}
      onset={(hex) => (ink = hex)}
    />
    <span class="muted">about</span>
    <NumberField
      label="Height of the text"
      value={size}
      kind={{ unit: 'mm' }}
      least={toPx(0.5, 'mm')}
      most={toPx(1000, 'mm')}
      onset={(value) => (size = value)}
    />
    <span class="muted">high</span>
  </div>
  {#if reading}
    <p class:alike={reading.worst < 4.5}>
      Least contrast <strong class="mono">{says(reading.worst)}</strong>, where the ring is; most
      <span class="mono">{says(reading.best)}</span>.
      {#if reading.share >= 0.9995}
        All of it reaches 4.5 : 1.
      {:else}
        {Math.floor(reading.share * 100)} % of it reaches 4.5 : 1.
      {/if}
    </p>
  {/if}
</section>

<style>
  section {
    display: grid;
    gap: 6px;
  }
  h3 {
    font-size: 13px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    padding: 2px 0;
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
    text-align: left;
  }
  td {
    padding: 3px 0;
    border-top: 1px solid var(--rule);
  }
  th:not(:first-child),
  td:not(:first-child) {
    text-align: right;
  }
  .alike,
  .alike strong {
    color: var(--amber);
  }
  .dot {
    display: inline-block;
    width: 13px;
    height: 13px;
    margin-right: 7px;
    border-radius: 50%;
    vertical-align: -2px;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .ask {
    display: flex;
    align-items: center;
    gap: 7px;
  }
</style>
