<script lang="ts">
  import { readColour, type Hex } from '$lib/core/colour/parse';
  import Popover from './Popover.svelte';

  /** A round swatch that opens a panel to choose its colour: from palettes, as text (hex or CSS), or by the system's picker. */
  type Props = {
    colour: Hex;
    label: string;
    palettes?: { name: string; colours: { name: string; hex: Hex }[] }[];
    size?: number;
    /** Shown as a button in the panel, to go back to the pattern's own colour. */
    reset?: { label: string; run: () => void } | null;
    onlive?: (colour: Hex) => void;
    onset: (colour: Hex) => void;
  };
  let { colour, label, palettes = [], size = 20, reset = null, onlive, onset }: Props = $props();

  let typed: string | null = $state(null);
  let problem: string | null = $state(null);

  function accept(text: string): void {
    const read = readColour(text);
    problem = read.ok ? null : read.message;
    if (!read.ok) return;
    typed = null;
    onset(read.hex);
  }
</script>

<Popover {label} title={`${label}: ${colour}`} width={232}>
  {#snippet button()}
    <span class="swatch" style:background={colour} style:width="{size}px" style:height="{size}px"></span>
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
        oninput={(event) => (typed = event.currentTarget.value)}
        onkeydown={(event) => event.key === 'Enter' && accept(event.currentTarget.value)}
        onblur={() => typed !== null && accept(typed)}
      />
      <input
        class="system"
        type="color"
        aria-label="{label}, system picker"
        value={colour}
        oninput={(event) => (onlive ?? onset)(event.currentTarget.value)}
        onchange={(event) => onset(event.currentTarget.value)}
      />
    </div>
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
    {#each palettes as palette (palette.name)}
      <h3>{palette.name}</h3>
      <div class="colours">
        {#each palette.colours as entry (entry.name + entry.hex)}
          <button
            type="button"
            class:chosen={entry.hex === colour}
            style:background={entry.hex}
            title={`${entry.name} ${entry.hex}`}
            aria-label={entry.name}
            onclick={() => {
              typed = null;
              problem = null;
              onset(entry.hex);
            }}
          ></button>
        {/each}
      </div>
    {/each}
    {#if reset}
      <button
        type="button"
        class="reset"
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
  .system {
    width: 36px;
    height: 30px;
    padding: 2px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  h3 {
    margin: 12px 0 6px;
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
  }
  .colours {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .colours button {
    width: 24px;
    height: 24px;
    padding: 0;
    border: 1px solid rgb(20 33 31 / 25%);
    border-radius: 50%;
    cursor: pointer;
  }
  .colours .chosen {
    outline: 2px solid var(--kelp);
    outline-offset: 1px;
  }
  .problem {
    margin-top: 6px;
    color: var(--amber);
    font-size: 12px;
  }
  .reset {
    margin-top: 12px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
</style>
