<script lang="ts">
  import type { PaletteEntry } from '$lib/contract/data';
  import { tintOf } from '$lib/core/colour/tint';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';

  /** The stops of a gradient. A stop taken from the palette follows its colour. */
  type Stops = NonNullable<PaletteEntry['gradient']>;
  type Props = {
    stops: Stops;
    palette: { name: string; colours: readonly PaletteEntry[] };
    onlive: (stops: Stops) => void;
    onset: (stops: Stops) => void;
  };
  let { stops, palette, onlive, onset }: Props = $props();

  const css = $derived(
    [...stops]
      .sort((one, other) => one.at - other.at)
      .map(({ at, hex }) => `${hex} ${at * 100}%`)
      .join(', '),
  );
  const put = (index: number, change: Partial<Stops[number]>): Stops =>
    stops.map((stop, place) => (place === index ? { ...stop, ...change } : stop));
  function colour(index: number, hex: string, link?: string): Stops {
    const { colour: shown, link: follows } = tintOf(hex, link);
    return stops.map((stop, place) =>
      place === index
        ? { at: stop.at, hex: shown, ...(follows === undefined ? {} : { link: follows }) }
        : stop,
    );
  }
</script>

<div class="bar" style:background="linear-gradient(to right, {css})"></div>
<ul>
  {#each stops as stop, index (index)}
    <li>
      <ColourWell
        colour={stop.hex}
        link={stop.link}
        label="Stop {index + 1}"
        palettes={[palette]}
        onlive={(hex) => onlive(colour(index, hex))}
        onset={(hex, link) => onset(colour(index, hex, link))}
      />
      <NumberField
        label="Place of stop {index + 1}"
        value={stop.at}
        kind={{ suffix: '%' }}
        least={0}
        most={1}
        onset={(at) => onset(put(index, { at }))}
      />
      {#if stops.length > 2}
        <Button
          kind="quiet"
          label="Take out stop {index + 1}"
          onclick={() => onset(stops.filter((_, place) => place !== index))}>Take out</Button
        >
      {/if}
    </li>
  {/each}
</ul>
<Button
  kind="quiet"
  disabled={stops.length >= LIMITS.gradientStops}
  onclick={() => {
    const last = stops.at(-1);
    if (last) onset([...stops.map((stop) => ({ ...stop, at: stop.at * 0.85 })), { ...last, at: 1 }]);
  }}>Add a stop</Button
>

<style>
  .bar {
    width: 100%;
    height: 34px;
    border-radius: 4px;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 20%);
  }
  ul {
    display: grid;
    width: 100%;
    gap: 4px;
  }
  li {
    display: flex;
    align-items: center;
    gap: 12px;
  }
</style>
