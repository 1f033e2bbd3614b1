<script lang="ts">
  import type { LibrarySort, PatternSummary } from '$lib/contract/data';
  import { surfaceBackground, type Surface } from '../components/surfaces';
  import { whenBegun, type Choosing, type PatternList } from './list.svelte';
  import { KIND_NAMES, sayDate, sayRepeat, sayUnit, swatchUrl } from './say';
  import type { Column } from './columns';
  import { COLUMNS } from './columns';
  import { rowsInSight, scrollToRow, toTop } from './virtual';

  /** The library as a table: columns to choose, sorted by their heads, only the rows in sight drawn. */
  type Props = {
    list: PatternList;
    choosing: Choosing;
    scale: number;
    surface: Surface;
    columns: readonly Column[];
    sort: LibrarySort;
    backwards: boolean;
    onsort: (sort: LibrarySort, backwards: boolean) => void;
    onchoose: (index: number, event: MouseEvent) => void;
  };
  let { list, choosing, scale, surface, columns, sort, backwards, onsort, onchoose }: Props = $props();

  const ROW = 44;
  const HEAD = 34;
  let height = $state(0);
  let scroll = $state(0);
  let node: HTMLElement | undefined = $state();
  const sight = $derived(rowsInSight(scroll, height, ROW, list.total, 6));
  const shown = $derived(COLUMNS.filter((column) => columns.includes(column.key)));
  const template = $derived(
    ['110px', 'minmax(150px, 1.4fr)', ...shown.map((column) => column.width)].join(' '),
  );

  // svelte-ignore state_referenced_locally
  whenBegun(list, () => (scroll = toTop(node)));

  $effect(() => {
    if (sight.last >= 0) void list.need(sight.first, sight.last);
  });

  export function stepOf(key: string): number | null {
    const page = Math.max(1, Math.floor((height - HEAD) / ROW));
    return (
      { ArrowUp: -1, ArrowDown: 1, PageUp: -page, PageDown: page, Home: -list.total, End: list.total }[key] ??
      null
    );
  }

  export async function show(index: number): Promise<void> {
    if (!node) return;
    node.scrollTop = scrollToRow(node.scrollTop, height - HEAD, ROW, index);
    scroll = node.scrollTop;
    await list.need(index, index);
    requestAnimationFrame(() =>
      node?.querySelector<HTMLElement>(`[data-place="${index}"] a`)?.focus({ preventScroll: true }),
    );
  }

  function text(pattern: PatternSummary, key: Column): string {
    const { facts } = pattern;
    switch (key) {
      case 'kind':
        return KIND_NAMES[pattern.kind];
      case 'repeat':
        return facts ? sayRepeat(facts.repeat) : '';
      case 'unit':
        return facts ? sayUnit(facts) : '';
      case 'tags':
        return pattern.tags.join(', ');
      case 'collections':
        return pattern.collections.join(', ');
      case 'uses':
        return pattern.uses === 0 ? '' : String(pattern.uses);
      case 'last-used':
        return pattern.lastUsedAt === null ? '' : sayDate(pattern.lastUsedAt);
      case 'licence':
        return pattern.credit.licence;
      case 'author':
        return pattern.credit.author;
      case 'revision':
        return pattern.newest === 0 ? 'draft' : String(pattern.newest);
      case 'newest':
        return sayDate(pattern.createdAt);
      case 'changed':
        return sayDate(pattern.updatedAt);
      case 'colours':
        return '';
    }
  }
  const ariaSort = (key: LibrarySort | null): 'ascending' | 'descending' | undefined => {
    if (key === null || key !== sort) return undefined;
    return COLUMNS.find((column) => column.sort === key)?.down !== backwards ? 'descending' : 'ascending';
  };
</script>

{#snippet head(label: string, key: LibrarySort | null, numeric: boolean)}
  <div role="columnheader" class:numeric aria-sort={ariaSort(key)}>
    {#if key}
      <button type="button" onclick={() => onsort(key, key === sort ? !backwards : false)}>
        {label}{#if key === sort}<span aria-hidden="true">{ariaSort(key) === 'ascending' ? '↑' : '↓'}</span
          >{/if}
      </button>
    {:else}{label}{/if}
  </div>
{/snippet}

<div
  class="scroller"
  bind:this={node}
  bind:clientHeight={height}
  onscroll={(event) => (scroll = event.currentTarget.scrollTop)}
>
  <div role="table" aria-label="Patterns" aria-rowcount={list.total + 1}>
    <div role="row" class="head" style:grid-template-columns={template}>
      <div role="columnheader"><span class="visually-hidden">Picture</span></div>
      {@render head('Name', 'name', false)}
      {#each shown as column (column.key)}{@render head(column.label, column.sort, column.numeric)}{/each}
    </div>
    <div role="rowgroup" class="rows" style:height="{list.total * ROW}px">
      {#each Array.from({ length: Math.max(0, sight.last - sight.first + 1) }, (_, step) => sight.first + step) as index (index)}
        {@const pattern = list.at(index)}
        <div
          role="row"
          class="row"
          class:chosen={pattern && choosing.ids.has(pattern.id)}
          aria-rowindex={index + 2}
          data-place={index}
          style:grid-template-columns={template}
          style:transform="translateY({index * ROW}px)"
          style:height="{ROW}px"
        >
          {#if pattern}
            <div role="cell" class="strip" style:background={surfaceBackground(surface)}>
              <img
                src={swatchUrl(pattern, 98, 36, scale, undefined, 'png')}
                alt=""
                width="98"
                height="36"
                decoding="async"
              />
            </div>
            <div role="cell" class="name">
              <a
                href="/library/{pattern.id}"
                tabindex={index === Math.max(0, choosing.at) ? 0 : -1}
                aria-current={choosing.ids.has(pattern.id) ? 'true' : undefined}
                onclick={(event) => onchoose(index, event)}>{pattern.name}</a
              >{#if pattern.stock}<span class="muted">stock</span>{/if}
            </div>
            {#each shown as column (column.key)}
              <div role="cell" class:numeric={column.numeric} class:mono={column.mono}>
                {#if column.key === 'colours'}
                  {#each (pattern.facts?.slots ?? []).slice(0, 8) as slot (slot.id)}
                    <span class="dot" style:background={slot.colour} title={slot.name}></span>
                  {/each}
                {:else}{text(pattern, column.key)}{/if}
              </div>
            {/each}
          {/if}
        </div>
      {/each}
    </div>
  </div>
</div>

<style>
  .scroller {
    flex: 1;
    min-height: 0;
    overflow: auto;
    background: var(--card);
  }
  [role='table'] {
    min-width: max-content;
  }
  .head,
  .row {
    display: grid;
    align-items: center;
    gap: 12px;
    padding: 0 16px;
  }
  .head {
    position: sticky;
    top: 0;
    z-index: 2;
    height: 34px;
    border-bottom: 1px solid var(--rule);
    background: var(--paper);
    color: var(--muted);
    font-size: var(--small);
  }
  .head button {
    display: inline-flex;
    gap: 4px;
    padding: 0;
    border: 0;
    background: none;
    color: inherit;
    font: inherit;
    cursor: pointer;
  }
  [aria-sort] button {
    color: var(--ink);
    font-weight: 650;
  }
  .rows {
    position: relative;
  }
  .row {
    position: absolute;
    top: 0;
    right: 0;
    left: 0;
    border-bottom: 1px solid var(--rule);
    contain: layout style;
  }
  .row:hover {
    background: var(--paper);
  }
  .row.chosen {
    background: var(--kelp-tint);
  }
  [role='cell'] {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .strip {
    width: 98px;
    height: 36px;
  }
  img {
    display: block;
  }
  .name {
    display: flex;
    align-items: baseline;
    gap: 8px;
  }
  a {
    overflow: hidden;
    padding: 4px 0;
    color: var(--ink);
    font-weight: 650;
    text-decoration: none;
    text-overflow: ellipsis;
  }
  .numeric {
    text-align: right;
    justify-self: end;
  }
  .dot {
    display: inline-block;
    width: 14px;
    height: 14px;
    margin-right: 3px;
    border-radius: 50%;
    vertical-align: middle;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
</style>
