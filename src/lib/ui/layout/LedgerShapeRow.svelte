<script lang="ts">
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import { allFills, leadingFill, type Shape } from '$lib/core/recipe/layout';
  import NameField from '../components/NameField.svelte';
  import { hold } from './arrange';
  import type { LayoutEditor } from './editor.svelte';
  import { inkCss, sayFill } from './fills';
  import LedgerFillCells from './LedgerFillCells.svelte';
  import LedgerFrameCells from './LedgerFrameCells.svelte';
  import LedgerHolds from './LedgerHolds.svelte';

  /** A shape with the fill that leads, or that is worked on. An edit in a selected row changes all selected rows. */
  type Props = {
    editor: LayoutEditor;
    shape: Shape;
    depth: number;
    /** Whether each of its fills has a row below. */
    open: boolean;
    onopen: () => void;
    onpress: (event: MouseEvent) => void;
    onstep: (step: -1 | 1, extend: boolean) => void;
    /** A row is dragged by its grip; told where it is dropped. */
    dragged: string | null;
    ondragged: (id: string | null) => void;
    onmoved: () => void;
  };
  let { editor, shape, depth, open, onopen, onpress, onstep, dragged, ondragged, onmoved }: Props = $props();

  const fills = $derived([...allFills(shape)].reverse());
  const of = (one: Shape) => (editor.selected.has(one.id) ? editor.activeOf(one) : leadingFill(one));
  const fill = $derived(of(shape));
  const targets = (): ReadonlySet<string> =>
    editor.selected.has(shape.id) ? editor.selected : new Set([shape.id]);
  let over = $state(false);

  function onkey(event: KeyboardEvent & { currentTarget: HTMLTableRowElement }): void {
    if (event.target !== event.currentTarget) return;
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) onstep(step, event.shiftKey);
    else if (event.key === 'Enter' || event.key === ' ') {
      if (event.ctrlKey || event.metaKey) editor.toggle(shape.id);
      else editor.select([shape.id]);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<tr
  tabindex="0"
  data-row={shape.id}
  aria-selected={editor.selected.has(shape.id)}
  class:over={over && dragged !== null}
  onclick={onpress}
  onkeydown={onkey}
  ondragover={(event) => {
    if (!dragged) return;
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(event) => {
    event.preventDefault();
    over = false;
    onmoved();
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
        ondragged(shape.id);
      }}
      ondragend={() => ondragged(null)}
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
    <LedgerHolds
      name={shape.name}
      locked={shape.locked}
      hidden={shape.hidden}
      onhold={(by) => hold(editor, by, new Set([shape.id]))}
    />
  </td>
  <td class="filled">
    {#if !fill}<span class="muted">nothing</span>{:else}
      {#if fills.length > 1}
        <button
          type="button"
          class="more"
          aria-expanded={open}
          aria-label="{open ? 'Fold' : 'Show'} the {fills.length} fills of {shape.name}"
          title="{open ? 'Fold' : 'Show'} all {fills.length} fills"
          onclick={onopen}
        >
          {#each fills as one (one.id)}<span class="plain" style:background={inkCss(one, editor)}
            ></span>{/each}
        </button>
      {:else if fill.kind === 'colour'}<span class="plain" style:background={fill.colour}
        ></span>{/if}{sayFill(fill, editor)}
    {/if}
  </td>
  <LedgerFillCells {editor} {shape} name={shape.name} {of} {targets} />
  <LedgerFrameCells {editor} {shape} {targets} />
</tr>

<style>
  .over :global(td) {
    box-shadow: inset 0 2px var(--kelp);
  }
  .grip {
    cursor: grab;
  }
  .more {
    display: inline-flex;
    margin: 0 6px 0 0;
    padding: 2px 3px 2px 7px;
    border: 1px solid var(--rule);
    border-radius: 9px;
    background: var(--card);
    cursor: pointer;
    vertical-align: -3px;
  }
  .more:hover,
  .more[aria-expanded='true'] {
    border-color: var(--kelp);
  }
  .more .plain {
    margin: 0 0 0 -4px;
  }
</style>
