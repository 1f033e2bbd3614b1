<script lang="ts">
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import ScanSearch from '@lucide/svelte/icons/scan-search';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import type { Snippet } from 'svelte';
  import ToolBar from './ToolBar.svelte';

  /** The tools that stage and bench share: undo, redo, fit, keys, with room for more between them. */
  type Props = {
    history: { canUndo: boolean; canRedo: boolean; undo: () => void; redo: () => void };
    zoom?: number;
    fitTitle?: string;
    /** Without it there is nothing to fit. */
    onfit?: () => void;
    onkeys: () => void;
    /** Asks whether a line of what is shown is real. */
    online?: () => void;
    more?: Snippet;
    before?: Snippet;
    /** At the foot of the stage, where its head has no room. */
    low?: boolean;
  };
  let { history, zoom = 1, fitTitle, onfit, onkeys, online, more, before, low = false }: Props = $props();
</script>

<ToolBar label="View" place={low ? 'foot' : 'right'}>
  {@render before?.()}
  <button
    type="button"
    title="Undo"
    aria-label="Undo"
    disabled={!history.canUndo}
    onclick={() => history.undo()}><Undo size={16} /></button
  >
  <button
    type="button"
    title="Redo"
    aria-label="Redo"
    disabled={!history.canRedo}
    onclick={() => history.redo()}><Redo size={16} /></button
  >
  {@render more?.()}
  {#if online}
    <button
      type="button"
      title="Is this line real? Press one, and see whether the pattern has it or only the screen"
      aria-label="Is this line real?"
      onclick={online}><ScanSearch size={16} /></button
    >
  {/if}
  {#if onfit}<button type="button" class="mono" title={fitTitle} onclick={onfit}
      >{Math.round(zoom * 100)} %</button
    >{/if}
  <button type="button" title="Keys (?)" aria-label="Keys" onclick={onkeys}><Keyboard size={16} /></button>
</ToolBar>
