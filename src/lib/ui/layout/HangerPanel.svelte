<script lang="ts">
  import ListFilter from '@lucide/svelte/icons/list-filter';
  import type { PaletteData, PatternSummary } from '$lib/contract/data';
  import DrawnPicture from '../components/DrawnPicture.svelte';
  import Filters from '../library/Filters.svelte';
  import { PatternFinder } from '../library/pattern-finder.svelte';
  import PatternSearch from '../library/PatternSearch.svelte';
  import { apiQuery, isNarrowed, PLAIN_VIEW, type LibraryView } from '../library/query';
  import { sayUnit, swatchUrl } from '../library/say';
  import { listKeys } from '../state/list-keys';
  import { hangerGroups, type HangerGroup, type Hangers } from './hangers';

  /** The hangers beside the stage: find a pattern, press it to fill the selected shapes, or drag it onto a shape. */
  type Props = {
    hangers: Hangers;
    palettes: PaletteData[];
    /** The patterns of what is selected. */
    used: ReadonlySet<string>;
    /** What a press does. */
    hint: string;
    onpick: (pattern: string) => void;
  };
  let { hangers, palettes, used, hint, onpick }: Props = $props();

  const finder = new PatternFinder(() => hangers.all);
  let view: LibraryView = $state.raw(PLAIN_VIEW);
  let narrowing = $state(false);
  const groups: HangerGroup[] = $derived(
    finder.isAnswer ? [{ name: '', patterns: finder.shown }] : hangerGroups(hangers),
  );
  /** Heads and hangers in one list: a hanger that stays while what is typed is answered is the same one. */
  const rows = $derived(
    groups.flatMap(({ name, patterns }) => [
      ...(name ? [{ key: `head ${name}`, name, pattern: null }] : []),
      ...patterns.map((pattern) => ({ key: pattern.id, name: '', pattern })),
    ]),
  );

  /** Only what is published can be hung: drafts stay out. */
  function narrow(change: Partial<LibraryView>): void {
    view = { ...view, ...change };
    const { drafts: _drafts, sort: _sort, ...query } = apiQuery(view);
    finder.narrow(isNarrowed(view) ? query : {});
  }
</script>

{#snippet hanger(pattern: PatternSummary, first: boolean)}
  <li>
    <button
      type="button"
      class="hanger"
      class:used={used.has(pattern.id)}
      draggable="true"
      tabindex={first ? 0 : -1}
      title="Fill what is selected with {pattern.name}"
      ondragstart={(event) => event.dataTransfer?.setData('application/x-isle-pattern', pattern.id)}
      onclick={() => onpick(pattern.id)}
    >
      <span class="strip"
        ><DrawnPicture src={swatchUrl(pattern, 340, 58, 0.5)} alt="" width={340} height={58} lazy /></span
      >
      <span class="line"
        ><strong>{pattern.name}</strong><span class="mono muted"
          >{pattern.facts ? sayUnit(pattern.facts) : ''}</span
        ></span
      >
    </button>
  </li>
{/snippet}

<aside aria-label="Hangers" {@attach listKeys(() => finder.ready)}>
  <div class="head">
    <div class="search">
      <button
        type="button"
        class="narrow"
        class:holds={isNarrowed(view)}
        aria-expanded={narrowing}
        aria-label="Narrow the hangers"
        title="Narrow by collection, tag, repeat, unit, colour …"
        onclick={() => (narrowing = !narrowing)}><ListFilter size={16} /></button
      >
      <PatternSearch {finder} label="Find a pattern" />
    </div>
    {#if narrowing}
      <div class="filters"><Filters {view} facets={hangers.facets} {palettes} onset={narrow} /></div>
    {/if}
    <p class="muted">
      {hint}
    </p>
  </div>
  <div class="list" data-list>
    <ul>
      {#each rows as row, place (row.key)}
        {#if row.pattern}
          {@render hanger(row.pattern, place === (groups[0]?.name ? 1 : 0))}
        {:else}<li class="head-row"><h2>{row.name}</h2></li>{/if}
      {/each}
    </ul>
    {#if groups.every(({ patterns }) => patterns.length === 0)}
      <p class="muted none">
        {finder.problem ??
          (finder.isAnswer
            ? `Nothing here${finder.text === '' ? '' : ` matches “${finder.text}”`}${isNarrowed(view) ? ' within what it is narrowed by' : ''}.`
            : 'No patterns are published yet.')}
      </p>
    {/if}
  </div>
</aside>

<style>
  aside {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
    background: var(--card);
  }
  .head {
    padding: 12px 12px 8px;
  }
  .head p {
    margin-top: 6px;
    font-size: var(--small);
  }
  .search {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 4px;
    align-items: center;
  }
  .search > :global(p) {
    grid-column: 1 / -1;
  }
  .narrow {
    display: grid;
    place-items: center;
    width: 30px;
    height: 30px;
    padding: 0;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    cursor: pointer;
  }
  .narrow.holds {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    color: var(--kelp);
  }
  .filters {
    margin-top: 8px;
  }
  .list {
    flex: 1;
    min-height: 0;
    padding: 0 0 16px;
    overflow: auto;
  }
  .head-row {
    grid-column: 1 / -1;
  }
  h2 {
    padding: 8px 4px 2px;
    color: var(--muted);
    font-size: var(--small);
    font-weight: 600;
  }
  /* A wide column hangs them side by side. */
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(168px, 1fr));
    padding: 2px 8px;
  }
  /* What is out of sight is not laid out again when the column gets another width. */
  li {
    content-visibility: auto;
    contain-intrinsic-size: auto 92px;
  }
  .hanger:focus-visible {
    outline-offset: -2px;
  }
  .hanger {
    display: block;
    width: 100%;
    padding: 4px;
    border: 2px solid transparent;
    border-radius: var(--radius);
    background: none;
    text-align: left;
    cursor: grab;
  }
  .hanger:hover {
    border-color: var(--rule-strong);
  }
  .hanger.used {
    border-color: var(--kelp);
  }
  .strip {
    display: block;
    width: 100%;
    height: 58px;
    overflow: hidden;
    background: var(--surround);
  }
  .strip :global(img) {
    object-position: 0 0;
  }
  .line {
    display: flex;
    justify-content: space-between;
    gap: 6px;
    padding: 3px 0 2px;
    white-space: nowrap;
  }
  strong {
    overflow: hidden;
    font-weight: 650;
    text-overflow: ellipsis;
  }
  .mono {
    font-size: 11px;
  }
  .none {
    padding: 8px;
  }
</style>
