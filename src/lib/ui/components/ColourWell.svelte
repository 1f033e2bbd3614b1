<script lang="ts">
  import Pipette from '@lucide/svelte/icons/pipette';
  import { readColour } from '$lib/core/colour/space';
  import type { Hex } from '$lib/core/colour/parse';
  import { useEyedropper } from '../state/eyedropper.svelte';
  import { settledField } from '../state/undo-keys';
  import ColourPlane from './ColourPlane.svelte';
  import PaletteDots from './PaletteDots.svelte';
  import Popover from './Popover.svelte';

  /**
   * A round swatch that opens a panel to choose its colour: from palettes, where it then follows the palette's colour, as
   * text (hex or CSS), on a plane of OKLCH, or off the stage. `link` is the palette colour that it follows now.
   */
  type Entry = { id?: string; name: string; hex: Hex; gradient?: unknown };
  type Props = {
    colour: Hex;
    label: string;
    palettes?: { name: string; colours: readonly Entry[] }[];
    link?: string | null | undefined;
    size?: number;
    /** Shown as a button in the panel, to go back to the pattern's own colour. */
    reset?: { label: string; run: () => void } | null;
    onlive?: (colour: Hex) => void;
    /** `link` is the palette colour to follow from now on; none where the colour was made freely. */
    onset: (colour: Hex, link?: string) => void;
    /** Called with the text where it names a colour outside sRGB, before `onset` gets the mapped one. */
    onwide?: (css: string) => void;
  };
  let {
    colour,
    label,
    palettes = [],
    link = null,
    size = 20,
    reset = null,
    onlive,
    onset,
    onwide,
  }: Props = $props();

  const eyedropper = useEyedropper();
  let typed: string | null = $state(null);
  let problem: string | null = $state(null);
  const followed = $derived.by(() => {
    if (!link) return null;
    for (const palette of palettes)
      for (const entry of palette.colours)
        if (entry.id === link) return { palette: palette.name, name: entry.name };
    return { palette: '', name: 'a colour that was taken out of its palette' };
  });

  function accept(text: string): void {
    const read = readColour(text);
    problem = read.ok ? null : read.message;
    if (!read.ok) return;
    typed = null;
    if (read.outside) {
      if (onwide) onwide(text.trim());
      else problem = `“${text.trim()}” lies outside sRGB; the nearest colour inside, ${read.hex}, was taken.`;
    }
    onset(read.hex);
  }
  function take(hex: Hex, id?: string): void {
    typed = null;
    problem = null;
    onset(hex, id);
  }
</script>

<Popover {label} title={`${label}: ${followed ? `${followed.name}, ` : ''}${colour}`} width={232}>
  {#snippet button()}
    <span
      class="swatch"
      class:linked={followed !== null}
      style:background={colour}
      style:width="{size}px"
      style:height="{size}px"
    ></span>
  {/snippet}
  {#snippet children(close)}
    <div class="row">
      <input
        class="text mono"
        type="text"
        spellcheck="false"
        aria-label="{label} as hex or CSS colour"
        value={typed ?? colour}
        aria-invalid={problem !== null}
        {...settledField(typed)}
        oninput={(event) => (typed = event.currentTarget.value)}
        onkeydown={(event) => event.key === 'Enter' && accept(event.currentTarget.value)}
        onblur={() => typed !== null && accept(typed)}
      />
      {#if eyedropper}
        <button
          type="button"
          class="pick"
          title="Take a colour off the stage"
          aria-label="{label}: take it off the stage"
          onclick={() => {
            close();
            eyedropper.ask((hex) => onset(hex));
          }}><Pipette size={15} /></button
        >
      {/if}
    </div>
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
    {#if followed}
      <p class="followed">
        Follows <strong>{followed.name}</strong>{followed.palette ? ` of ${followed.palette}` : ''}
        <button type="button" class="plain" onclick={() => take(colour)}>Stop following</button>
      </p>
    {/if}
    {#each palettes as palette (palette.name)}
      <h3>{palette.name}</h3>
      <PaletteDots
        colours={palette.colours}
        chosen={(entry) => (link ? entry.id === link : entry.hex === colour)}
        onpick={(entry) => take(entry.hex, entry.id)}
      />
    {/each}
    <ColourPlane {colour} {label} onlive={(hex) => (onlive ?? onset)(hex)} onset={(hex) => take(hex)} />
    {#if reset}
      <button
        type="button"
        class="plain reset"
        onclick={() => {
          reset.run();
          close();
        }}>{reset.label}</button
      >
    {/if}
  {/snippet}
</Popover>

<style>
  .swatch {
    display: inline-block;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .row {
    display: flex;
    gap: 8px;
  }
  .text {
    flex: 1;
    min-width: 0;
    padding: 4px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
  }
  /* A small notch says that the colour follows a palette. */
  .linked {
    border-bottom-right-radius: 2px;
  }
  .pick {
    display: grid;
    place-items: center;
    width: 32px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    cursor: pointer;
  }
  .followed {
    margin-top: 8px;
    font-size: 12px;
  }
  h3 {
    margin: 12px 0 6px;
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
  }
  .problem {
    margin-top: 6px;
    color: var(--amber);
    font-size: 12px;
  }
  .reset {
    margin-top: 12px;
  }
  .plain {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
</style>
