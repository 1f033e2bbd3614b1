<script lang="ts">
  import { untrack } from 'svelte';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Lock from '@lucide/svelte/icons/lock';
  import LockOpen from '@lucide/svelte/icons/lock-open';
  import type { Shape, ShapeGroup } from '$lib/core/recipe/layout';
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import NameField from '../components/NameField.svelte';
  import { moveInStack } from './doc';
  import type { LayoutEditor } from './editor.svelte';
  import { hold, holdGroup, membersOf } from './arrange';
  import { sayFill } from './fills';
  import { ledgerItems, matches } from './ledger';
  import LedgerCells from './LedgerCells.svelte';
  import { MANY } from './preview';

  /** All shapes and their fills, front first. An edit in a selected row changes all selected rows. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();

  /** Rows are this high; only those in sight and a few around them are built, since each holds many fields. */
  const ROW = 30;
  const AROUND = 4;

  /** While many fills move the rows wait; the fill bar shows the numbers meanwhile. */
  const doc = $derived(
    editor.history.inGesture && editor.selected.size >= MANY ? editor.history.settled : editor.doc,
  );
  let filter = $state('');
  let folded: ReadonlySet<string> = $state.raw(new Set());
  const shows = $derived(
    matches(doc, filter, (fill) => {
      const way =
        fill.kind === 'pattern'
          ? editor.colourwaysOf(fill).find(({ id }) => id === fill.colourway)
          : undefined;
      return way ? `${sayFill(fill, editor)} ${way.name}` : sayFill(fill, editor);
    }),
  );
  const rows = $derived(ledgerItems(doc, folded, shows));
  const shapeRows = $derived(rows.flatMap((row) => (row.kind === 'shape' ? [row.shape] : [])));
  let box: HTMLDivElement | undefined = $state();
  let height = $state(200);
  let scrolled = $state(0);
  const first = $derived(Math.max(0, Math.min(Math.floor(scrolled / ROW) - AROUND, rows.length - 1)));
  const last = $derived(Math.min(rows.length, first + Math.ceil(height / ROW) + 2 * AROUND));
  const inSight = $derived(rows.slice(first, last));

  /** The row of a shape that was selected elsewhere comes into sight. */
  $effect(() => {
    const id = editor.single?.id;
    untrack(() => {
      const index = rows.findIndex((row) => row.id === id);
      if (!box || index < 0) return;
      const top = index * ROW;
      if (top < box.scrollTop || top + 2 * ROW > box.scrollTop + height) box.scrollTop = top - height / 3;
    });
  });
  let anchor: string | null = null;
  let dragged: string | null = $state(null);
  let over: string | null = $state(null);

  function fold(id: string): void {
    const next = new Set(folded);
    if (!next.delete(id)) next.add(id);
    folded = next;
  }

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

  function rowKey(event: KeyboardEvent & { currentTarget: HTMLTableRowElement }, shape: Shape): void {
    if (event.target !== event.currentTarget) return;
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      event.preventDefault();
      event.stopPropagation();
      const next =
        step > 0 ? event.currentTarget.nextElementSibling : event.currentTarget.previousElementSibling;
      (next as HTMLElement | null)?.focus();
      const index = shapeRows.findIndex((row) => row.id === shape.id) + step;
      const target = shapeRows[index];
      if (target) {
        if (event.shiftKey) editor.select([...editor.selected, target.id]);
        else editor.select([target.id]);
      }
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      event.stopPropagation();
      if (event.ctrlKey || event.metaKey) editor.toggle(shape.id);
      else editor.select([shape.id]);
    }
  }

  function drop(target: Shape): void {
    const id = dragged;
    dragged = over = null;
    if (!id || id === target.id) return;
    const rest = editor.doc.shapes.filter((shape) => shape.id !== id);
    const place = rest.findIndex((shape) => shape.id === target.id);
    const wasBelow =
      editor.doc.shapes.findIndex((shape) => shape.id === id) <
      editor.doc.shapes.findIndex((shape) => shape.id === target.id);
    editor.history.commit(moveInStack(editor.history.doc, id, wasBelow ? place + 1 : place));
  }
</script>

<div
  class="ledger"
  bind:this={box}
  bind:clientHeight={height}
  onscroll={() => (scrolled = box?.scrollTop ?? 0)}
>
  <table>
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
          {@render groupRow(row.group, row.depth)}
        {:else}
          {@render shapeRow(row.shape, row.depth)}
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

{#snippet holder(name: string, locked: boolean, hidden: boolean, onhold: (by: 'locked' | 'hidden') => void)}
  <button
    type="button"
    class:held={locked}
    aria-label={locked ? `Unlock ${name}` : `Lock ${name}`}
    title={locked ? 'Unlock' : 'Lock'}
    aria-pressed={locked}
    onclick={() => onhold('locked')}
    >{#if locked}<Lock size={12} />{:else}<LockOpen size={12} />{/if}</button
  >
  <button
    type="button"
    class:held={hidden}
    aria-label={hidden ? `Show ${name}` : `Hide ${name}`}
    title={hidden ? 'Show' : 'Hide'}
    aria-pressed={hidden}
    onclick={() => onhold('hidden')}
    >{#if hidden}<EyeOff size={12} />{:else}<Eye size={12} />{/if}</button
  >
{/snippet}

{#snippet groupRow(group: ShapeGroup, depth: number)}
  <tr
    class="group"
    aria-selected={[...membersOf(doc, group.id)].every((id) => editor.selected.has(id))}
    onclick={(event) => {
      if (!(event.target as Element).closest('input, button')) editor.select(membersOf(doc, group.id));
    }}
  >
    <td class="shape" style:padding-left="{4 + depth * 16}px">
      <button
        type="button"
        class="grip"
        aria-label="{folded.has(group.id) ? 'Unfold' : 'Fold'} {group.name}"
        aria-expanded={!folded.has(group.id)}
        onclick={() => fold(group.id)}
        >{#if folded.has(group.id)}<ChevronRight size={13} />{:else}<ChevronDown size={13} />{/if}</button
      >
      <NameField
        label="The name of the group"
        value={group.name}
        onset={(name) => {
          const groups = editor.history.doc.groups.map((one) =>
            one.id === group.id ? { ...one, name } : one,
          );
          editor.history.commit({ ...editor.history.doc, groups });
          return null;
        }}
      />
      <span class="holds">
        {@render holder(group.name, group.locked, group.hidden, (by) => holdGroup(editor, group.id, by))}
      </span>
    </td>
    <td colspan="10" class="muted">
      <button type="button" class="choose" onclick={() => editor.select(membersOf(doc, group.id))}
        >select all {membersOf(doc, group.id).size}</button
      >
    </td>
  </tr>
{/snippet}

{#snippet shapeRow(shape: Shape, depth: number)}
  <tr
    tabindex="0"
    aria-selected={editor.selected.has(shape.id)}
    class:over={over === shape.id}
    onclick={(event) => press(event, shape)}
    onkeydown={(event) => rowKey(event, shape)}
    ondragover={(event) => {
      if (!dragged) return;
      event.preventDefault();
      over = shape.id;
    }}
    ondrop={(event) => {
      event.preventDefault();
      drop(shape);
    }}
  >
    <td class="shape" style:padding-left="{4 + depth * 16}px">
      <button
        type="button"
        class="grip"
        draggable="true"
        aria-label="Move {shape.name} in the stack: drag, or arrow keys"
        title="Drag to change the stack"
        ondragstart={(event) => {
          event.dataTransfer?.setData('application/x-isle-shape', shape.id);
          dragged = shape.id;
        }}
        ondragend={() => (dragged = over = null)}
        onkeydown={(event) => {
          if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
          event.preventDefault();
          event.stopPropagation();
          editor.select([shape.id]);
          editor.restack(event.key === 'ArrowUp' ? 'front' : 'back');
        }}><GripVertical size={13} /></button
      >
      <NameField
        label="The name of the shape"
        value={shape.name}
        onset={(name) => {
          editor.change((one) => ({ ...one, name }), { ids: new Set([shape.id]) });
          return null;
        }}
      />
      <span class="holds">
        {@render holder(shape.name, shape.locked, shape.hidden, (by) =>
          hold(editor, by, new Set([shape.id])),
        )}
      </span>
    </td>
    <LedgerCells {editor} {shape} />
  </tr>
{/snippet}

<style>
  .holds {
    display: inline-flex;
    margin-left: auto;
    padding-left: 8px;
    visibility: hidden;
  }
  tr:hover .holds,
  tr:focus-within .holds,
  .holds:has(.held) {
    visibility: visible;
  }
  .holds button,
  .choose {
    display: inline-flex;
    padding: 2px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
  .holds .held,
  .choose {
    color: var(--kelp);
  }
  .choose {
    font-size: var(--small);
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
  .group {
    background: var(--card);
    font-weight: 600;
  }
  .ledger {
    height: 100%;
    overflow: auto;
    border-top: 1px solid var(--rule);
    background: var(--paper);
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
  td {
    height: 30px;
    padding: 0 9px;
    border-bottom: 1px solid var(--rule);
  }
  td :global(.field) {
    font-size: 12px;
  }
  .shape {
    display: flex;
    align-items: center;
    gap: 2px;
    padding-left: 4px;
  }
  th.shape {
    min-width: 176px;
    display: table-cell;
    padding-left: 24px;
  }
  tbody tr {
    cursor: default;
  }
  tbody tr:hover {
    background: var(--card);
  }
  [aria-selected='true'],
  tbody [aria-selected='true']:hover {
    background: var(--kelp-tint);
  }
  tr:focus-visible {
    outline-offset: -2px;
  }
  .over td {
    box-shadow: inset 0 2px var(--kelp);
  }
  .grip {
    display: inline-flex;
    padding: 2px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: grab;
  }
  .none td {
    padding: 14px;
  }
</style>
