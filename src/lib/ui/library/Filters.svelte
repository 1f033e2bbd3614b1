<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { LibraryFacets, PaletteData } from '$lib/contract/data';
  import { fromPx } from '$lib/core/num/length';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import LikeColour from './LikeColour.svelte';
  import { narrowings, type NarrowingKey } from './narrowing';
  import { isNarrowed, PLAIN_VIEW, type LibraryView } from './query';

  /** What the library is narrowed by. Each says in its own words what holds; all of it stands in the address. */
  type Props = {
    view: LibraryView;
    facets: LibraryFacets;
    palettes: PaletteData[];
    onset: (change: Partial<LibraryView>) => void;
    /** Opens what keeps the collections; left out where there is no place for it. */
    oncollections?: () => void;
  };
  let { view, facets, palettes, onset, oncollections }: Props = $props();

  const by = $derived(narrowings(view, facets));
</script>

{#snippet chip(key: NarrowingKey, width = 220)}
  {@const { label, value, choices } = by[key]}
  <Popover
    label="{label}: {value ?? 'any'}"
    {width}
    buttonClass="library-chip{value === null ? '' : ' holds'}"
  >
    {#snippet button()}{label}{#if value !== null}<strong>{value}</strong>{/if}<ChevronDown
        size={13}
      />{/snippet}
    {#snippet children(close)}
      <div class="options">
        {#each choices as choice (choice.label)}
          <button
            type="button"
            aria-pressed={choice.holds}
            onclick={() => {
              onset(choice.change);
              close();
            }}
            ><span>{choice.label}</span>{#if choice.aside}<span class="mono muted">{choice.aside}</span
              >{/if}</button
          >
        {/each}
      </div>
      {#if key === 'collection' && oncollections}
        <div class="foot">
          <Button
            kind="quiet"
            onclick={() => {
              close();
              oncollections();
            }}>Keep collections …</Button
          >
        </div>
      {:else if key === 'unit'}{@render sides()}{/if}
    {/snippet}
  </Popover>
{/snippet}

{#snippet sides()}
  <div class="numbers">
    <span class="muted">Longer side from</span>
    <NumberField
      label="Unit from"
      value={view.least ?? 0}
      kind={{ unit: 'mm' }}
      least={0}
      most={1e6}
      onset={(least) => onset({ least: least > 0 ? least : null })}
    />
    <span class="muted">to</span>
    <NumberField
      label="Unit to"
      value={view.most ?? 0}
      kind={{ unit: 'mm' }}
      least={0}
      most={1e6}
      onset={(most) => onset({ most: fromPx(most, 'mm') > 0 ? most : null })}
    />
  </div>
{/snippet}

<div class="filters" role="group" aria-label="Narrow the library">
  {@render chip('collection', 250)}
  {@render chip('tag')}
  {@render chip('repeat')}
  {@render chip('unit')}
  {@render chip('colours')}
  <LikeColour {view} {palettes} {onset} />
  {@render chip('ground')}
  {@render chip('project', 240)}
  {@render chip('stock')}
  {#if isNarrowed(view)}
    <Button
      kind="quiet"
      onclick={() =>
        onset({ ...PLAIN_VIEW, show: view.show, sort: view.sort, backwards: view.backwards, as: view.as })}
      >Clear</Button
    >
  {/if}
</div>

<style>
  .filters {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .filters :global(.library-chip) {
    gap: 5px;
    height: 26px;
    padding: 0 9px;
    border: 1px solid var(--rule);
    border-radius: 13px;
    background: var(--card);
    font-size: 12.5px;
    white-space: nowrap;
  }
  .filters :global(.library-chip:hover) {
    border-color: var(--rule-strong);
  }
  .filters :global(.library-chip.holds) {
    border-color: var(--kelp);
    background: var(--kelp-tint);
  }
  strong {
    max-width: 130px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .options {
    display: grid;
    gap: 1px;
  }
  .options button {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    padding: 5px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .options button:hover {
    background: var(--paper);
  }
  .options [aria-pressed='true'] {
    background: var(--kelp-tint);
    font-weight: 600;
  }
  .foot {
    margin-top: 6px;
    padding-top: 6px;
    border-top: 1px solid var(--rule);
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
