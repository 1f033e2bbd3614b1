<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { PaletteData } from '$lib/contract/data';
  import { readColour } from '$lib/core/colour/space';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import PaletteDots from '../components/PaletteDots.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LibraryView } from './query';

  /** Narrows the library to patterns that hold a colour like the one typed or taken from a palette. */
  type Props = {
    view: LibraryView;
    palettes: PaletteData[];
    onset: (change: Partial<LibraryView>) => void;
  };
  let { view, palettes, onset }: Props = $props();

  let typed = $state('');
  let problem: string | null = $state(null);

  function take(text: string): void {
    const read = readColour(text);
    problem = read.ok ? null : read.message;
    if (read.ok) onset({ colour: read.hex });
  }
</script>

<Popover
  label="Like: {view.colour === '' ? 'any' : view.colour}"
  width={236}
  buttonClass="library-chip{view.colour === '' ? '' : ' holds'}"
>
  {#snippet button()}Like{#if view.colour !== ''}<span class="like" style:background={view.colour}
      ></span>{/if}<ChevronDown size={13} />{/snippet}
  <label class="typed">
    <span class="muted">Contains something like</span>
    <input
      type="text"
      class="mono"
      placeholder="#2f8fab or teal"
      bind:value={typed}
      spellcheck="false"
      aria-label="A colour to look for"
      onkeydown={(event) => event.key === 'Enter' && take(typed)}
    />
  </label>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#each palettes as palette (palette.id)}
    <p class="muted palette">{palette.name}</p>
    <PaletteDots
      colours={palette.colours}
      chosen={(entry) => entry.hex === view.colour}
      label={(entry) => `Like ${entry.name}`}
      onpick={(entry) => onset({ colour: entry.hex })}
    />
  {/each}
  <div class="numbers">
    <span class="muted">Within ΔE2000 of</span>
    <NumberField
      label="Within ΔE2000 of"
      value={view.near}
      kind={{ suffix: '' }}
      least={0}
      most={60}
      digits={0}
      onset={(near) => onset({ near })}
    />
  </div>
  {#if view.colour !== ''}
    <Button kind="quiet" onclick={() => onset({ colour: '' })}>Any colour</Button>
  {/if}
</Popover>

<style>
  .like {
    width: 14px;
    height: 14px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .typed {
    display: grid;
    gap: 4px;
  }
  input {
    padding: 5px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
  }
  .palette {
    margin: 10px 0 4px;
    font-size: var(--small);
  }
  .problem {
    margin-top: 6px;
    color: var(--amber);
    font-size: 12px;
  }
  .numbers {
    display: flex;
    align-items: baseline;
    gap: 6px;
    margin-top: 8px;
    padding: 8px;
    border-top: 1px solid var(--rule);
  }
</style>
