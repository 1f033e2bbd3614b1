<script lang="ts">
  import type { PlacedFill } from '$lib/core/recipe/fill';
  import OptionRow from '../components/OptionRow.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** Where the offset is measured from: the shape, with which the pattern then moves, or the page, on which it stays. */
  type Props = { editor: LayoutEditor; fill: PlacedFill };
  let { editor, fill }: Props = $props();
</script>

<Popover label="Offset from the {fill.anchored}" width={270} text="from the {fill.anchored}">
  {#snippet children(close)}
    <div class="options">
      <OptionRow
        pressed={fill.anchored === 'shape'}
        onclick={() => {
          editor.anchor('shape');
          close();
        }}><strong>The shape</strong><span>Moving the shape takes the pattern along.</span></OptionRow
      >
      <OptionRow
        pressed={fill.anchored === 'page'}
        onclick={() => {
          editor.anchor('page');
          close();
        }}><strong>The page</strong><span>The shape moves over a pattern that stands still.</span></OptionRow
      >
      {#if editor.selected.size > 1}
        <OptionRow
          onclick={() => {
            editor.continueFirst();
            close();
          }}
          ><strong>Continue one pattern</strong><span
            >All selected shapes show one plane, laid as in the backmost.</span
          ></OptionRow
        >
      {/if}
    </div>
  {/snippet}
</Popover>

<style>
  .options {
    display: grid;
    gap: 2px;
  }
  span {
    color: var(--muted);
    font-size: 12.5px;
  }
</style>
