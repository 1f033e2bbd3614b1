<script lang="ts">
  import { tick, untrack } from 'svelte';
  import type { Shape } from '$lib/core/recipe/layout';
  import type { LayoutEditor } from './editor.svelte';
  import { sayFill } from './fills';
  import { ledgerItems, matches } from './ledger';
  import LedgerFillRow from './LedgerFillRow.svelte';
  import LedgerGroupRow from './LedgerGroupRow.svelte';
  import LedgerShapeRow from './LedgerShapeRow.svelte';
  import { MANY } from './preview';

  /** All shapes and their fills, front first. An edit in a selected row changes all selected rows. */
  type Props = {
    editor: LayoutEditor;
    /** The width of the table, px, where it is not that of its place. */
    width?: number | null;
  };
  let { editor, width = null }: Props = $props();

  /** Rows are this high; only those in sight and a few around them are built, since each holds many fields. */
  const ROW = 30;
  const AROUND = 4;

  let box: HTMLDivElement | undefined = $state();
  /** While something is dragged elsewhere, and while many fills move, the rows wait: the fill bar shows the numbers. */
  const waits = $derived(
    editor.history.inGesture && (editor.selected.size >= MANY || !box?.matches(':hover, :focus-within')),
  );
  const doc = $derived(waits ? editor.history.settled : editor.doc);
  let filter = $state('');
  let folded: ReadonlySet<string> = $state.raw(new Set());
  /** Shapes that show a row for each of their fills. */
  let opened: ReadonlySet<string> = $state.raw(new Set());
  const shows = $derived(
    matches(doc, filter, (fill) => {
      const way =
        fill.kind === 'pattern'
          ? editor.colourwaysOf(fill).find(({ id }) => id === fill.colourway)
          : undefined;
      return way ? `${sayFill(fill, editor)} ${way.name}` : sayFill(fill, editor);
    }),
  );
  const rows = $derived(ledgerItems(doc, { folded, opened }, shows));
  const shapeRows = $derived(rows.flatMap((row) => (row.kind === 'shape' ? [row.shape] : [])));
  let height = $state(200);
  let scrolled = $state(0);
  const first = $derived(Math.max(0, Math.min(Math.floor(scrolled / ROW) - AROUND, rows.length - 1)));
  const last = $derived(Math.min(rows.length, first + Math.ceil(height / ROW) + 2 * AROUND));
  const inSight = $derived(rows.slice(first, last));

  /** The row of a shape that was selected elsewhere comes into sight. */
  const singleId = $derived(editor.single?.id);
  $effect(() => {
    const id = singleId;
    untrack(() => {
      const index = rows.findIndex((row) => row.id === id);
      if (!box || index < 0) return;
      const top = index * ROW;
      if (top < box.scrollTop || top + 2 * ROW > box.scrollTop + height) box.scrollTop = top - height / 3;
    });
  });
  let anchor: string | null = null;
  let dragged: string | null = $state(null);

  const toggled = (set: ReadonlySet<string>, id: string): ReadonlySet<string> => {
    const next = new Set(set);
    if (!next.delete(id)) next.add(id);
    return next;
  };

  function press(event: MouseEvent, shape: Shape): void {
    if ((event.target as Element).closest('input, button')) return;
    if (event.shiftKey && anchor) {
      const ids = shapeRows.map((row) => row.id);
      const [from, to] = [ids.indexOf(anchor), ids.indexOf(shape.id)].sort((a, b) => a - b);
      editor.select(ids.slice(from, (to ?? 0) + 1));
      return;
    }
    anchor = shape.id;
    if (event.ctrlKey || event.metaKey) editor.toggle(shape.id);
    else editor.select([shape.id]);
  }

  /** Goes to the next row above or below that is a shape or a fill, and works on it. */
  async function step(id: string, by: -1 | 1, extend = false): Promise<void> {
    let index = rows.findIndex((row) => row.id === id) + by;
    while (rows[index]?.kind === 'group') index += by;
    const next = rows[index];
    if (!next || next.kind === 'group') return;
    if (next.kind === 'fill') editor.workOn(next.shape, next.id);
    else editor.select(extend ? [...editor.selected, next.id] : [next.id]);
    await tick();
    box?.querySelector<HTMLElement>(`tr[data-row="${CSS.escape(next.id)}"]`)?.focus();
  }

  function drop(target: Shape): void {
    const id = dragged;
    dragged = null;
    if (id) editor.restackTo(id, target.id);
  }
</script>

<div
  class="ledger"
  bind:this={box}
  bind:clientHeight={height}
  onscroll={() => (scrolled = box?.scrollTop ?? 0)}
>
  <table style:width={width === null ? null : `${width}px`}>
    <caption class="visually-hidden">Ledger: all shapes and their fills, front first</caption>
    <thead>
      <tr>
        <th scope="col" class="shape">
          <input
            type="search"
            placeholder="Shape"
            aria-label="Filter the ledger by shape, group, pattern or colourway"
            bind:value={filter}
          />
          {#if filter.trim() !== ''}
            <button type="button" class="choose" onclick={() => editor.select(shapeRows.map(({ id }) => id))}
              >select {shapeRows.length}</button
            >
          {/if}
        </th>
        <th scope="col">Filled with</th>
        <th scope="col">Scale</th>
        <th scope="col">Rotation</th>
        <th scope="col">Offset</th>
        <th scope="col">Opacity</th>
        <th scope="col">Ground</th>
        <th scope="col" title="How often the unit goes into the shape">Across × down</th>
        <th scope="col">Place ({editor.doc.measure})</th>
        <th scope="col">Size ({editor.doc.measure})</th>
        <th scope="col">Turn</th>
      </tr>
    </thead>
    <tbody>
      {#if first > 0}<tr aria-hidden="true" class="room" style:height="{first * ROW}px"></tr>{/if}
      {#each inSight as row (row.id)}
        {#if row.kind === 'group'}
          <LedgerGroupRow
            {editor}
            {doc}
            group={row.group}
            depth={row.depth}
            folded={folded.has(row.id)}
            onfold={() => (folded = toggled(folded, row.id))}
          />
        {:else if row.kind === 'fill'}
          <LedgerFillRow
            {editor}
            shape={row.shape}
            fill={row.fill}
            place={row.place}
            depth={row.depth}
            onstep={(by) => void step(row.id, by)}
          />
        {:else}
          <LedgerShapeRow
            {editor}
            shape={row.shape}
            depth={row.depth}
            open={row.open}
            onopen={() => (opened = toggled(opened, row.id))}
            onpress={(event) => press(event, row.shape)}
            onstep={(by, extend) => void step(row.id, by, extend)}
            {dragged}
            ondragged={(id) => (dragged = id)}
            onmoved={() => drop(row.shape)}
          />
        {/if}
      {:else}
        <tr class="none"
          ><td colspan="11" class="muted"
            >{filter.trim() === ''
              ? 'No shapes yet. Choose a form above the stage and draw it; every shape gets a row here.'
              : `No shape, group, pattern or colourway here is called “${filter.trim()}”.`}</td
          ></tr
        >
      {/each}
      {#if last < rows.length}<tr
          aria-hidden="true"
          class="room"
          style:height="{(rows.length - last) * ROW}px"
        ></tr>{/if}
    </tbody>
  </table>
</div>

<style>
  .ledger :global(.choose) {
    display: inline-flex;
    padding: 2px;
    border: 0;
    background: none;
    color: var(--kelp);
    font-size: var(--small);
    cursor: pointer;
  }
  th input {
    width: 92px;
    padding: 0 4px;
    border: 1px solid transparent;
    border-radius: 4px;
    background: none;
    font: inherit;
  }
  th input:hover,
  th input:focus {
    border-color: var(--rule);
    background: var(--card);
  }
  th input::placeholder {
    color: var(--muted);
  }
  .ledger {
    height: 100%;
    overflow: auto;
    border-top: 1px solid var(--rule);
    background: var(--paper);
    /* On a layer of its own: it is moved, and not painted anew, when an edge beside it is dragged. */
    will-change: transform;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    white-space: nowrap;
  }
  th {
    position: sticky;
    top: 0;
    z-index: 2;
    padding: 6px 9px;
    background: var(--paper);
    box-shadow: inset 0 -1px var(--rule);
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
    text-align: left;
  }
  th.shape {
    min-width: 176px;
    padding-left: 24px;
  }
  /* The rows are parts of their own; they all look alike. */
  tbody :global {
    td {
      height: 30px;
      padding: 0 9px;
      border-bottom: 1px solid var(--rule);
    }
    td .field {
      font-size: 12px;
    }
    td.shape {
      display: flex;
      align-items: center;
      gap: 2px;
      padding-left: 4px;
    }
    tr {
      cursor: default;
    }
    tr:hover {
      background: var(--card);
    }
    tr.group {
      background: var(--card);
      font-weight: 600;
    }
    tr[aria-selected='true'] {
      background: var(--kelp-tint);
    }
    tr:focus-visible {
      outline-offset: -2px;
    }
    .pair {
      color: var(--muted);
    }
    .pair input {
      color: var(--ink);
    }
    .plain {
      display: inline-block;
      width: 12px;
      height: 12px;
      margin-right: 6px;
      border-radius: 50%;
      box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
      vertical-align: -1px;
    }
    .grip {
      display: inline-flex;
      padding: 2px;
      border: 0;
      background: none;
      color: var(--muted);
      cursor: pointer;
    }
  }
  .none td {
    padding: 14px;
  }
</style>
