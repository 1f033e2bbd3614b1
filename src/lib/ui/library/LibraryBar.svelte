<script lang="ts">
  import Columns3 from '@lucide/svelte/icons/columns-3';
  import { LIBRARY_SORTS, type LibraryFacets, type LibrarySort, type PaletteData } from '$lib/contract/data';
  import LayOn from '../components/LayOn.svelte';
  import Popover from '../components/Popover.svelte';
  import SightChoice from '../components/SightChoice.svelte';
  import Switch from '../components/Switch.svelte';
  import Tick from '../components/Tick.svelte';
  import { COLUMNS, writeColumns, type Column } from './columns';
  import Filters from './Filters.svelte';
  import type { LibraryView } from './query';
  import { sayPatterns, sayPercent } from './say';
  import type { ShownAs } from './shown';

  /** What of the library is shown, in which order and how: search, filters, sort and the common scale. */
  type Props = {
    /** The field of the search. */
    field?: HTMLInputElement;
    view: LibraryView;
    facets: LibraryFacets;
    palettes: PaletteData[];
    total: number;
    shownAs: ShownAs;
    /** What is typed and not yet searched for. */
    typed: string | null;
    sort: LibrarySort;
    onsearch: (text: string) => void;
    onleave: () => void;
    onset: (change: Partial<LibraryView>) => void;
    onaddress: (change: Record<string, string | null>) => void;
    oncollections: () => void;
  };
  let {
    field = $bindable(),
    view,
    facets,
    palettes,
    total,
    shownAs,
    typed,
    sort,
    onsearch,
    onleave,
    onset,
    onaddress,
    oncollections,
  }: Props = $props();

  const { surface, sight, scale, columns } = $derived(shownAs);
  const SORT_NAMES: Record<LibrarySort, string> = {
    match: 'Best match',
    name: 'Name',
    newest: 'Newest',
    changed: 'Last changed',
    uses: 'Most used',
    'last-used': 'Last used',
    unit: 'Unit size',
    colours: 'Number of colours',
    kind: 'Kind',
    repeat: 'Repeat',
    licence: 'Licence',
  };
  const sorts = $derived(LIBRARY_SORTS.filter((sort) => sort !== 'match' || view.search !== ''));
</script>

<div class="tools">
  <input
    type="search"
    placeholder="Find by name, tag, colour …"
    title="/"
    aria-label="Find a pattern"
    bind:this={field}
    value={typed ?? view.search}
    dir="auto"
    oninput={(event) => onsearch(event.currentTarget.value)}
    onblur={onleave}
  />
  <Switch
    label="Kind"
    value={view.kind}
    options={[
      { value: '', label: 'All' },
      { value: 'drawn', label: 'Drawn' },
      { value: 'measured', label: 'Measured' },
      { value: 'picture', label: 'Picture' },
    ]}
    onset={(kind) => onset({ kind })}
  />
  <label class="field">
    <span class="visually-hidden">Show</span>
    <select
      value={view.show}
      onchange={(event) => onset({ show: event.currentTarget.value as LibraryView['show'] })}
    >
      <option value="all">Library ({facets.counts.live.toLocaleString('en-GB')})</option>
      <option value="drafts">With a draft ({facets.counts.unpublished})</option>
      <option value="archived">Archive ({facets.counts.archived})</option>
    </select>
  </label>
  <span class="space"></span>
  <Switch
    label="Shown as"
    value={view.as}
    options={[
      { value: 'wall', label: 'Wall' },
      { value: 'list', label: 'List' },
    ]}
    onset={(as) => onset({ as })}
  />
  {#if view.as === 'list'}
    <Popover label="Choose columns" width={190} buttonClass="columns-button">
      {#snippet button()}<Columns3 size={16} />{/snippet}
      <div class="column-choice">
        {#each COLUMNS as column (column.key)}
          <Tick
            label={column.label}
            checked={columns.includes(column.key)}
            onset={(on) => {
              const next: Column[] = on
                ? COLUMNS.map(({ key }) => key).filter((key) => key === column.key || columns.includes(key))
                : columns.filter((key) => key !== column.key);
              onaddress({ columns: writeColumns(next) });
            }}
          />
        {/each}
      </div>
    </Popover>
  {/if}
  <label class="scale">
    <span>Scale</span>
    <input
      type="range"
      min="-3"
      max="1"
      step="0.5"
      value={Math.log2(scale)}
      aria-label="Common scale of all strips"
      aria-valuetext={sayPercent(scale)}
      onchange={(event) => {
        const next = 2 ** Number(event.currentTarget.value);
        onaddress({ scale: next === 0.5 ? null : String(+next.toFixed(4)) });
      }}
    />
    <span class="mono">{sayPercent(Number(scale.toFixed(2)))}</span>
  </label>
  <LayOn value={surface} onset={(value) => onaddress({ on: value === 'mid' ? null : value })} />
</div>
<div class="tools second">
  <Filters {view} {facets} {palettes} {onset} {oncollections} />
  <span class="space"></span>
  <SightChoice value={sight} onset={(value) => onaddress({ sight: value === 'full' ? null : value })} />
  <span class="muted count" aria-live="polite">{sayPatterns(total)}</span>
  <label class="field">
    <span class="muted">by</span>
    <select
      class="narrow"
      aria-label="Sort by"
      value={sort}
      onchange={(event) => onset({ sort: event.currentTarget.value as LibrarySort, backwards: false })}
    >
      {#each sorts as one (one)}<option value={one}>{SORT_NAMES[one]}</option>{/each}
    </select>
  </label>
</div>

<style>
  .tools {
    display: flex;
    align-items: center;
    gap: 14px;
    flex-wrap: wrap;
    padding: 9px 16px 0;
    background: var(--paper);
  }
  .second {
    gap: 10px;
    padding-top: 8px;
    padding-bottom: 9px;
    border-bottom: 1px solid var(--rule);
  }
  .space {
    flex: 1;
  }
  input[type='search'] {
    width: 218px;
    padding: 6px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  /* Its ring lies over the row below. */
  input[type='search']:focus-visible {
    position: relative;
    z-index: 1;
  }
  .field {
    display: inline-flex;
    align-items: center;
    gap: 5px;
  }
  .narrow {
    width: 112px;
  }
  .scale {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    color: var(--muted);
  }
  .scale input {
    width: 76px;
    accent-color: var(--kelp);
  }
  .scale .mono {
    min-width: 42px;
    font-size: 12px;
  }
  .count {
    white-space: nowrap;
  }
  .tools :global(.columns-button) {
    padding: 5px;
    border: 1px solid var(--rule);
    background: var(--card);
  }
  .column-choice {
    display: grid;
    gap: 4px;
  }
  /* On a small window both rows stay one row: what says itself loses its name. */
  @media (max-width: 1180px) {
    .tools {
      gap: 9px;
    }
    .second {
      gap: 6px;
    }
    .tools > input[type='search'] {
      width: 150px;
    }
    .scale span:first-child,
    .field .muted,
    .tools :global(.lay-on .muted),
    .count {
      display: none;
    }
    .tools :global(.library-chip) {
      padding: 0 6px;
    }
    .narrow {
      width: 98px;
    }
  }
</style>
