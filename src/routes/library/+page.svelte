<script lang="ts">
  import { untrack } from 'svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import Columns3 from '@lucide/svelte/icons/columns-3';
  import Plus from '@lucide/svelte/icons/plus';
  import Ruler from '@lucide/svelte/icons/ruler';
  import { LIBRARY_SORTS, type LibrarySort } from '$lib/contract/data';
  import { SIGHTS, type Sight } from '$lib/core/colour/vision';
  import Button from '$lib/ui/components/Button.svelte';
  import FileDrop from '$lib/ui/components/FileDrop.svelte';
  import LayOn from '$lib/ui/components/LayOn.svelte';
  import Popover from '$lib/ui/components/Popover.svelte';
  import SightChoice from '$lib/ui/components/SightChoice.svelte';
  import { sightFilter } from '$lib/ui/components/SightFilters.svelte';
  import Switch from '$lib/ui/components/Switch.svelte';
  import Tick from '$lib/ui/components/Tick.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import { isSurface } from '$lib/ui/components/surfaces';
  import ChosenPanel from '$lib/ui/library/ChosenPanel.svelte';
  import CollectionsDialog from '$lib/ui/library/CollectionsDialog.svelte';
  import { COLUMNS, readColumns, writeColumns, type Column } from '$lib/ui/library/columns';
  import Filters from '$lib/ui/library/Filters.svelte';
  import HandOutDialog from '$lib/ui/library/HandOutDialog.svelte';
  import { Choosing, PatternList } from '$lib/ui/library/list.svelte';
  import ManyPanel from '$lib/ui/library/ManyPanel.svelte';
  import PatternTable from '$lib/ui/library/PatternTable.svelte';
  import { apiQuery, isNarrowed, PLAIN_VIEW, writeView, type LibraryView } from '$lib/ui/library/query';
  import { sayPatterns, sayPercent } from '$lib/ui/library/say';
  import TakeInDialog from '$lib/ui/library/TakeInDialog.svelte';
  import Wall from '$lib/ui/library/Wall.svelte';
  import { onLive } from '$lib/ui/state/live';
  import { fillAddress, lastLayout } from '$lib/ui/state/last-layout';
  import { toasts } from '$lib/ui/state/toasts.svelte';

  let { data } = $props();

  const view = $derived(data.view);
  const list = new PatternList();
  const choosing = new Choosing(list);
  let wall: Wall | undefined = $state();
  let table: PatternTable | undefined = $state();
  let keeping = $state(false);
  let handing: readonly string[] | null = $state(null);
  let takingIn: File[] | null = $state(null);
  let handingAll = $state(false);
  let typed: string | null = $state(null);
  let searchField: HTMLInputElement | undefined = $state();

  /** Where the list is begun anew: on every answer of the server. What was chosen stays chosen where it is still there. */
  let query = '';
  $effect.pre(() => {
    const { first } = data;
    const next = JSON.stringify(apiQuery(data.view));
    untrack(() => {
      list.restart(apiQuery(data.view), first);
      if (next !== query) {
        choosing.clear();
        choosing.at = -1;
      }
      query = next;
    });
  });

  const surface = $derived.by(() => {
    const asked = page.url.searchParams.get('on');
    return isSurface(asked) ? asked : 'mid';
  });
  const sight = $derived<Sight>(SIGHTS.find((one) => one === page.url.searchParams.get('sight')) ?? 'full');
  const scale = $derived.by(() => {
    const asked = Number(page.url.searchParams.get('scale'));
    return asked >= 0.05 && asked <= 4 ? asked : 0.5;
  });
  const columns = $derived(readColumns(page.url.searchParams.get('columns')));
  const chosenIds = $derived([...choosing.ids]);
  const only = $derived(choosing.only);
  const last = $derived.by(() => (page.url, globalThis.localStorage ? lastLayout() : null));

  /** Puts a choice into the address, so that a reload or a sent link shows the same. */
  function address(change: Record<string, string | null>, next: LibraryView = view): void {
    const params = new URLSearchParams(writeView(next, page.url.searchParams));
    for (const [key, value] of Object.entries(change)) {
      if (value === null) params.delete(key);
      else params.set(key, value);
    }
    const text = params.toString();
    void goto(text ? `?${text}` : '/library', { replaceState: true, keepFocus: true, noScroll: true });
  }
  const set = (change: Partial<LibraryView>): void => address({}, { ...view, ...change });

  let timer: ReturnType<typeof setTimeout> | undefined;
  function search(text: string): void {
    typed = text;
    clearTimeout(timer);
    timer = setTimeout(() => set({ search: text }), 60);
  }

  function choose(index: number, event: MouseEvent): void {
    // Enter (no pointer, detail 0) and a second press open the pattern; so does any press where the panel has no room.
    if (window.innerWidth < 900 || event.detail !== 1) return;
    event.preventDefault();
    const { metaKey, ctrlKey, shiftKey } = event;
    choosing.choose(index, { toggle: metaKey || ctrlKey, range: shiftKey });
  }
  function fill(): void {
    const pattern = list.at(choosing.at);
    if (!pattern || pattern.newest === 0) return;
    const held = lastLayout();
    if (!held)
      return toasts.problem(
        'Select a shape in a layout first; then F fills it with the pattern chosen here.',
      );
    void goto(fillAddress(held, pattern.id));
  }
  async function onkeydown(event: KeyboardEvent): Promise<void> {
    const target = event.target as HTMLElement;
    const inText = target.matches('input, textarea, select, [contenteditable]');
    if (inText && !(target === searchField && event.key === 'ArrowDown')) {
      if (target === searchField && event.key === 'Escape' && typed) search('');
      return;
    }
    if (document.querySelector('dialog[open]') || target.closest('[role="dialog"], [role="radiogroup"]'))
      return;
    const plain = !event.metaKey && !event.ctrlKey && !event.altKey;
    const step = plain ? ((wall ?? table)?.stepOf(event.key) ?? null) : null;
    if (step !== null && list.total > 0) {
      event.preventDefault();
      const from = choosing.at;
      const to = Math.max(0, Math.min(list.total - 1, from < 0 ? 0 : from + step));
      await list.need(to, to);
      choosing.choose(to, { range: event.shiftKey });
      await (wall ?? table)?.show(to);
    } else if (event.key === '/' && plain) {
      event.preventDefault();
      searchField?.focus();
      searchField?.select();
    } else if (event.key.toLowerCase() === 'f' && plain && choosing.at >= 0) fill();
    else if (event.key.toLowerCase() === 'a' && (event.metaKey || event.ctrlKey)) {
      event.preventDefault();
      for (const id of await list.allIds()) choosing.ids.add(id);
    } else if (event.key === 'Escape') choosing.clear();
    else if (event.key === ' ' && plain && choosing.at >= 0 && target.closest('[data-place]')) {
      event.preventDefault();
      choosing.choose(choosing.at, { toggle: true });
    }
  }
  onLive(['pattern.', 'palette.', 'collection.'], () => void invalidateAll());

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
  const sort = $derived(view.sort === 'match' && view.search === '' ? 'name' : view.sort);
</script>

<svelte:head><title>Library · Isle</title></svelte:head>
<svelte:window {onkeydown} />

<FileDrop onfiles={(files) => (takingIn = files)}>
  <TopBar>
    {#snippet actions()}
      <Button onclick={() => (takingIn = [])}>Open files</Button>
      <Button disabled={data.facets.counts.live === 0} onclick={() => (handingAll = true)}
        >Hand out all …</Button
      >
      <Button href="/library/new?start=measured"><Ruler size={16} />Measured</Button>
      <Button kind="main" href="/library/new"><Plus size={16} />New pattern</Button>
    {/snippet}
  </TopBar>
  <div class="tools">
    <input
      type="search"
      placeholder="Find by name, tag, colour …"
      title="/"
      aria-label="Find a pattern"
      bind:this={searchField}
      value={typed ?? view.search}
      dir="auto"
      oninput={(event) => search(event.currentTarget.value)}
      onblur={() => (typed = null)}
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
      onset={(kind) => set({ kind })}
    />
    <label class="field">
      <span class="visually-hidden">Show</span>
      <select
        value={view.show}
        onchange={(event) => set({ show: event.currentTarget.value as LibraryView['show'] })}
      >
        <option value="all">Library ({data.facets.counts.live.toLocaleString('en-GB')})</option>
        <option value="drafts">With a draft ({data.facets.counts.unpublished})</option>
        <option value="archived">Archive ({data.facets.counts.archived})</option>
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
      onset={(as) => set({ as })}
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
                address({ columns: writeColumns(next) });
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
          address({ scale: next === 0.5 ? null : String(+next.toFixed(4)) });
        }}
      />
      <span class="mono">{sayPercent(Number(scale.toFixed(2)))}</span>
    </label>
    <LayOn value={surface} onset={(value) => address({ on: value === 'mid' ? null : value })} />
  </div>
  <div class="tools second">
    <Filters
      {view}
      facets={data.facets}
      palettes={data.palettes}
      onset={set}
      oncollections={() => (keeping = true)}
    />
    <span class="space"></span>
    <SightChoice value={sight} onset={(value) => address({ sight: value === 'full' ? null : value })} />
    <span class="muted count" aria-live="polite">{sayPatterns(list.total)}</span>
    <label class="field">
      <span class="muted">by</span>
      <select
        class="narrow"
        aria-label="Sort by"
        value={sort}
        onchange={(event) => set({ sort: event.currentTarget.value as LibrarySort, backwards: false })}
      >
        {#each sorts as one (one)}<option value={one}>{SORT_NAMES[one]}</option>{/each}
      </select>
    </label>
  </div>
  <div class="columns">
    <main class="wall" style:filter={sightFilter(sight)}>
      <h1 class="visually-hidden">Library</h1>
      {#if list.total > 0 && view.as === 'wall'}
        <Wall bind:this={wall} {list} {choosing} {scale} {surface} onchoose={choose} />
      {:else if list.total > 0}
        <PatternTable
          bind:this={table}
          {list}
          {choosing}
          scale={scale * 0.6}
          {surface}
          {columns}
          {sort}
          backwards={view.backwards}
          onsort={(next, backwards) => set({ sort: next, backwards })}
          onchoose={choose}
        />
      {:else}
        <div class="empty">
          {#if view.search !== '' || isNarrowed(view)}
            <h2>{view.search === '' ? 'No pattern is like that' : `Nothing matches “${view.search}”`}</h2>
            <p>
              The search looks for the beginnings of words in names, descriptions, tags, collections, credits
              and the names of palette colours. Try fewer words, or take a filter off.
            </p>
            <Button onclick={() => address({}, { ...PLAIN_VIEW, show: view.show, as: view.as })}
              >Show all patterns</Button
            >
          {:else if view.show === 'archived'}
            <h2>The archive is empty</h2>
            <p>Patterns that you archive are kept here and can be restored.</p>
            <Button href="/library">Back to all patterns</Button>
          {:else if view.show === 'drafts'}
            <h2>No work in progress</h2>
            <p>A pattern that is changed on the bench and not yet published shows up here.</p>
            <Button href="/library">Back to all patterns</Button>
          {:else}
            <h2>No patterns yet</h2>
            <p>
              Make the first one from a simple shape or an SVG file, or open a library file that somebody
              handed you.
            </p>
            <Button kind="main" href="/library/new">New pattern</Button>
          {/if}
        </div>
      {/if}
    </main>
    {#if chosenIds.length > 0}
      <aside aria-label="What is chosen">
        {#if only}
          <ChosenPanel
            pattern={only}
            {surface}
            fills={last?.what ?? null}
            onfill={fill}
            onexport={() => (handing = [only.id])}
          />
        {:else}
          <ManyPanel
            ids={chosenIds}
            facets={data.facets}
            archived={view.show === 'archived'}
            ondone={() => invalidateAll()}
            onclear={() => choosing.clear()}
            onexport={() => (handing = chosenIds)}
          />
        {/if}
      </aside>
    {/if}
  </div>
</FileDrop>

{#if keeping}
  <CollectionsDialog facets={data.facets} ondone={() => invalidateAll()} onclose={() => (keeping = false)} />
{/if}
{#if handing}<HandOutDialog ids={handing} onclose={() => (handing = null)} />{/if}
{#if handingAll}<HandOutDialog onclose={() => (handingAll = false)} />{/if}
{#if takingIn}
  <TakeInDialog files={takingIn} ondone={() => invalidateAll()} onclose={() => (takingIn = null)} />
{/if}

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
  .field {
    display: inline-flex;
    align-items: center;
    gap: 5px;
  }
  .field select {
    padding: 4px 6px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
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
  .columns {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .wall {
    flex: 1;
    min-width: 0;
    background: var(--surround);
  }
  aside {
    flex: none;
    width: 302px;
    overflow: auto;
    padding: 16px;
    border-left: 1px solid var(--rule);
    background: var(--card);
  }
  .empty {
    display: grid;
    gap: 10px;
    justify-items: start;
    max-width: 460px;
    margin: 60px auto;
    padding: 24px;
    border-radius: 8px;
    background: #fbfbfa;
  }
  @media (max-width: 899px) {
    aside {
      display: none;
    }
  }
</style>
