<script lang="ts">
  import { may } from '$lib/ui/state/may';
  import { onDestroy, untrack } from 'svelte';
  import type { FoundPatterns, PatternSummary } from '$lib/contract/data';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Plus from '@lucide/svelte/icons/plus';
  import ImageIcon from '@lucide/svelte/icons/image';
  import Ruler from '@lucide/svelte/icons/ruler';
  import Button from '$lib/ui/components/Button.svelte';
  import FileDrop from '$lib/ui/components/FileDrop.svelte';
  import { sightFilter } from '$lib/ui/components/SightFilters.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import ChosenPanel from '$lib/ui/library/ChosenPanel.svelte';
  import CollectionsDialog from '$lib/ui/library/CollectionsDialog.svelte';
  import HandOutDialog from '$lib/ui/library/HandOutDialog.svelte';
  import { Choosing, PatternList } from '$lib/ui/library/list.svelte';
  import LibraryBar from '$lib/ui/library/LibraryBar.svelte';
  import ManyPanel from '$lib/ui/library/ManyPanel.svelte';
  import Beginning from '$lib/ui/library/Beginning.svelte';
  import NothingChosen from '$lib/ui/library/NothingChosen.svelte';
  import NothingFound from '$lib/ui/library/NothingFound.svelte';
  import PatternTable from '$lib/ui/library/PatternTable.svelte';
  import { apiQuery, isNarrowed, PLAIN_VIEW, writeView, type LibraryView } from '$lib/ui/library/query';
  import TakeInDialog from '$lib/ui/library/TakeInDialog.svelte';
  import UseIn from '$lib/ui/library/UseIn.svelte';
  import { TypedSearch } from '$lib/ui/library/typed-search.svelte';
  import Wall from '$lib/ui/library/Wall.svelte';
  import { sayInstead } from '$lib/ui/library/say';
  import { shownIn } from '$lib/ui/library/shown';
  import { bringFiles } from '$lib/ui/state/brought';
  import { onLive } from '$lib/ui/state/live';
  import { fillAddress, lastLayout } from '$lib/ui/state/last-layout';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import { refresh } from '$lib/ui/state/refresh';

  let { data } = $props();

  // svelte-ignore state_referenced_locally
  let view = $state.raw(data.view);
  const list = new PatternList();
  const choosing = new Choosing(list);
  let wall: Wall | undefined = $state();
  let table: PatternTable | undefined = $state();
  let keeping = $state(false);
  let handing: readonly string[] | null = $state(null);
  let takingIn: File[] | null = $state(null);
  let handingAll = $state(false);
  let using: PatternSummary | null = $state.raw(null);
  let searchField: HTMLInputElement | undefined = $state();

  /** Begins the list anew with an answer of the server. What was chosen stays chosen where it is still there. */
  function begin(next: LibraryView, first: FoundPatterns): void {
    view = next;
    if (!list.restart(apiQuery(next), first)) return;
    choosing.clear();
    choosing.at = -1;
  }
  const searching = new TypedSearch({ view: () => view, found: begin, go: (next) => address({}, next) });
  onDestroy(() => searching.stop());
  $effect.pre(() => {
    const { view: next, first } = data;
    // An answer to an address that is behind what is searched for is passed over; the next one is on its way.
    if (!searching.ahead) untrack(() => begin(next, first));
  });

  const shownAs = $derived(shownIn(page.url.searchParams));
  const { surface, sight, scale, columns } = $derived(shownAs);
  const chosenIds = $derived([...choosing.ids]);
  const only = $derived(choosing.only);
  const last = $derived.by(() => (page.url, globalThis.localStorage ? lastLayout() : null));

  /** Puts a choice into the address, so that a reload or a sent link shows the same. */
  function address(change: Record<string, string | null>, next: LibraryView = view): void {
    searching.stop();
    view = next;
    const params = new URLSearchParams(writeView(next, page.url.searchParams));
    for (const [key, value] of Object.entries(change)) {
      if (value === null) params.delete(key);
      else params.set(key, value);
    }
    const text = params.toString();
    void goto(text ? `?${text}` : '/library', { replaceState: true, keepFocus: true, noScroll: true });
  }
  const set = (change: Partial<LibraryView>): void => address({}, { ...view, ...change });

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
      if (target === searchField && event.key === 'Escape' && searching.typed) searching.type('');
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
  onLive(['pattern.', 'palette.', 'collection.'], () => void refresh());

  /** A picture that is dropped on the wall begins a pattern made from it. */
  const onlyPicture = (files: readonly File[]): boolean =>
    files.length === 1 && /^image\/(png|jpeg|webp)$/.test(files[0]?.type ?? '');
  function startFrom(files: readonly File[]): void {
    bringFiles(files);
    void goto('/library/new?start=picture');
  }

  const sort = $derived(view.sort === 'match' && view.search === '' ? 'name' : view.sort);
</script>

<svelte:head><title>Library · Isle</title></svelte:head>
<svelte:window {onkeydown} />

<FileDrop onfiles={(files) => (onlyPicture(files) ? startFrom(files) : (takingIn = files))}>
  <TopBar>
    {#snippet actions()}
      {#if may('designer')}<Button onclick={() => (takingIn = [])}>Open files</Button>{/if}
      {#if may('contributor')}
        <Button disabled={data.facets.counts.live === 0} onclick={() => (handingAll = true)}
          >Hand out all …</Button
        >
        <Button href="/library/new?start=measured"><Ruler size={16} />Measured</Button>
        <Button href="/library/new?start=picture"><ImageIcon size={16} />From a picture</Button>
        <Button kind="main" href="/library/new"><Plus size={16} />New pattern</Button>
      {/if}
    {/snippet}
  </TopBar>
  <LibraryBar
    bind:field={searchField}
    {view}
    facets={data.facets}
    palettes={data.palettes}
    total={list.total}
    {shownAs}
    typed={searching.typed}
    {sort}
    onsearch={(text) => searching.type(text)}
    onleave={() => searching.leave()}
    onset={set}
    onaddress={address}
    oncollections={() => (keeping = true)}
  />
  <div class="columns">
    <main class="wall" style:filter={sightFilter(sight)}>
      <h1 class="visually-hidden">Library</h1>
      <div role="status">
        {#each list.instead as one (one.typed)}<p class="instead">{sayInstead(one)}</p>{/each}
      </div>
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
        {#if data.facets.counts.live === 0 && view.show === 'all' && !isNarrowed(view)}
          {#if may('designer')}<Beginning onopen={() => (takingIn = [])} onstock={refresh} />
          {:else}<p class="none">No pattern hangs here yet.</p>{/if}
        {:else}
          <NothingFound {view} onall={() => address({}, { ...PLAIN_VIEW, show: view.show, as: view.as })} />
        {/if}
      {/if}
    </main>
    <aside aria-label="What is chosen">
      {#if chosenIds.length === 0}
        <NothingChosen facets={data.facets} />
      {:else if only}
        <ChosenPanel
          pattern={only}
          {surface}
          fills={last?.what ?? null}
          onfill={fill}
          onuse={() => (using = only)}
          onexport={() => (handing = [only.id])}
        />
      {:else}
        <ManyPanel
          ids={chosenIds}
          facets={data.facets}
          archived={view.show === 'archived'}
          ondone={() => refresh()}
          onclear={() => choosing.clear()}
          onexport={() => (handing = chosenIds)}
        />
      {/if}
    </aside>
  </div>
</FileDrop>

{#if keeping}
  <CollectionsDialog facets={data.facets} ondone={() => refresh()} onclose={() => (keeping = false)} />
{/if}
{#if handing}<HandOutDialog ids={handing} onclose={() => (handing = null)} />{/if}
{#if using}<UseIn pattern={using} facets={data.facets} onclose={() => (using = null)} />{/if}
{#if handingAll}<HandOutDialog onclose={() => (handingAll = false)} />{/if}
{#if takingIn}
  <TakeInDialog files={takingIn} ondone={() => refresh()} onclose={() => (takingIn = null)} />
{/if}

<style>
  .none {
    margin: 40px 24px;
    color: var(--muted);
  }
  .columns {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .wall {
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
    background: var(--surround);
  }
  .instead {
    padding: 6px 16px;
    background: var(--amber-tint);
    font-size: var(--small);
  }
  aside {
    flex: none;
    width: 302px;
    overflow: auto;
    padding: 16px;
    border-left: 1px solid var(--rule);
    background: var(--card);
  }
  @media (max-width: 899px) {
    aside {
      display: none;
    }
  }
</style>
