<script lang="ts">
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Undo from '@lucide/svelte/icons/undo-2';
  import type { Snippet } from 'svelte';
  import ToolBar from './ToolBar.svelte';

  /** The tools that stage and bench share: undo, redo, fit, keys, with room for more between them. */
  type Props = {
    history: { canUndo: boolean; canRedo: boolean; undo: () => void; redo: () => void };
    zoom: number;
    fitTitle: string;
    onfit: () => void;
    onkeys: () => void;
    more?: Snippet;
  };
  let { history, zoom, fitTitle, onfit, onkeys, more }: Props = $props();
</script>

<ToolBar label="View">
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
  <button type="button" class="mono" title={fitTitle} onclick={onfit}>{Math.round(zoom * 100)} %</button>
  <button type="button" title="Keys (?)" aria-label="Keys" onclick={onkeys}><Keyboard size={16} /></button>
</ToolBar>
