<script lang="ts">
  import type { PlacedFill } from '$lib/core/recipe/fill';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** Where the offset is measured from: the shape, with which the pattern then moves, or the page, on which it stays. */
  type Props = { editor: LayoutEditor; fill: PlacedFill };
  let { editor, fill }: Props = $props();
</script>

<Popover label="Offset from the {fill.anchored}" width={270}>
  {#snippet button()}<span class="text">from the {fill.anchored}</span>{/snippet}
  {#snippet children(close)}
    <div class="options">
      <button
        type="button"
        aria-pressed={fill.anchored === 'shape'}
        onclick={() => {
          editor.anchor('shape');
          close();
        }}><strong>The shape</strong><span>Moving the shape takes the pattern along.</span></button
      >
      <button
        type="button"
        aria-pressed={fill.anchored === 'page'}
        onclick={() => {
          editor.anchor('page');
          close();
        }}><strong>The page</strong><span>The shape moves over a pattern that stands still.</span></button
      >
      {#if editor.selected.size > 1}
        <button
          type="button"
          onclick={() => {
            editor.continueFirst();
            close();
          }}
          ><strong>Continue one pattern</strong><span
            >All selected shapes show one plane, laid as in the backmost.</span
          ></button
        >
      {/if}
    </div>
  {/snippet}
</Popover>

<style>
  .text {
    color: var(--kelp);
    font-size: var(--small);
    white-space: nowrap;
  }
  .options {
    display: grid;
    gap: 2px;
  }
  button {
    display: grid;
    gap: 1px;
    padding: 5px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  button:hover,
  [aria-pressed='true'] {
    background: var(--kelp-tint);
  }
  button span {
    color: var(--muted);
    font-size: 12.5px;
  }
</style>
