<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import Plus from '@lucide/svelte/icons/plus';
  import X from '@lucide/svelte/icons/x';
  import { SHEET_KINDS, type SheetItem } from '$lib/core/sheet/client-sheet';
  import Button from '../components/Button.svelte';
  import type { SheetSession } from './session.svelte';
  import { factsOf, KIND_TITLES, offered, type SheetSources } from './sources';

  /** What is on a sheet in its order, and what of the project can be put there. */
  type Props = { session: SheetSession; sources: SheetSources };
  let { session, sources }: Props = $props();

  const items = $derived(session.body.items);
  const titleOf = (item: SheetItem): string =>
    item.kind === 'note' ? item.caption.split('\n')[0] || 'Note' : factsOf(sources, item).title;
  let dragged: string | null = null;
  function drop(onto: string): void {
    if (dragged === null || dragged === onto) return;
    const at = (id: string): number => items.findIndex((one) => one.id === id);
    session.move(dragged, at(onto) - at(dragged));
    dragged = null;
  }
  function onkey(event: KeyboardEvent, id: string): void {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (by && event.altKey) {
      event.preventDefault();
      session.move(id, by);
    } else if (event.key === 'Delete') session.remove(id);
  }
</script>

<aside aria-label="What is on the sheet">
  <section>
    <h2>On the sheet</h2>
    <ol data-list>
      {#each items as item (item.id)}
        <li
          class:chosen={item.id === session.chosenId}
          draggable={session.mayChange}
          ondragstart={() => (dragged = item.id)}
          ondragover={(event) => event.preventDefault()}
          ondrop={() => drop(item.id)}
        >
          <button
            type="button"
            class="name"
            aria-pressed={item.id === session.chosenId}
            title="Alt and an arrow key move it, Delete takes it off"
            onclick={() => (session.chosenId = item.id)}
            onkeydown={(event) => onkey(event, item.id)}>{titleOf(item)}</button
          >
          {#if session.mayChange}<span class="tools">
              <Button kind="quiet" label="{titleOf(item)}: earlier" onclick={() => session.move(item.id, -1)}
                ><ArrowUp size={13} /></Button
              >
              <Button kind="quiet" label="{titleOf(item)}: later" onclick={() => session.move(item.id, 1)}
                ><ArrowDown size={13} /></Button
              >
              <Button
                kind="quiet"
                label="{titleOf(item)}: off the sheet"
                onclick={() => session.remove(item.id)}><X size={13} /></Button
              >
            </span>{/if}
        </li>
      {:else}
        <li class="muted none">Nothing yet. Put something of the project there, from below.</li>
      {/each}
    </ol>
  </section>
  {#if session.mayChange}<section>
      <h2>Put there</h2>
      {#each SHEET_KINDS as kind (kind)}
        {@const all = offered(sources, kind)}
        {#if kind === 'note'}
          <button type="button" class="offer" onclick={() => session.add('note', '')}
            ><Plus size={13} />A note</button
          >
        {:else if all.length > 0}
          <h3>{KIND_TITLES[kind]}</h3>
          {#each all as { id, name } (id)}
            <button
              type="button"
              class="offer"
              class:there={items.some((one) => one.kind === kind && one.of === id)}
              title="Put {name} on the sheet"
              onclick={() => session.add(kind, id)}><Plus size={13} />{name}</button
            >
          {/each}
        {/if}
      {/each}
    </section>{/if}
</aside>

<style>
  aside {
    overflow: auto;
    border-right: 1px solid var(--rule);
    background: var(--card);
  }
  section {
    padding: 12px 10px;
    border-bottom: 1px solid var(--rule);
  }
  h3 {
    margin: 10px 4px 2px;
    color: var(--muted);
    font-size: var(--small);
    font-weight: 600;
  }
  ol {
    padding: 0;
    margin: 8px 0 0;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    border-radius: var(--radius);
  }
  li:hover,
  .chosen {
    background: var(--kelp-tint);
  }
  .none {
    display: block;
    padding: 4px;
  }
  .name,
  .offer {
    padding: 5px 6px;
    border: 0;
    border-radius: var(--radius);
    overflow: hidden;
    background: none;
    text-align: left;
    text-overflow: ellipsis;
    white-space: nowrap;
    cursor: pointer;
  }
  .offer {
    display: flex;
    align-items: center;
    gap: 6px;
    width: 100%;
  }
  .offer:hover {
    background: var(--kelp-tint);
  }
  .there {
    color: var(--muted);
  }
  .tools {
    display: none;
  }
  li:hover .tools,
  li:focus-within .tools {
    display: inline-flex;
  }
</style>
