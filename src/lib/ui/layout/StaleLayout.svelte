<script lang="ts">
  import type { LayoutData } from '$lib/contract/data';
  import StaleDialog from '../components/StaleDialog.svelte';
  import { docOf } from './doc';
  import type { LayoutEditor } from './editor.svelte';

  /** Asks which of two versions to keep, where somebody else saved the layout meanwhile. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();

  const stale = $derived(editor.saver.state.kind === 'stale' ? editor.saver.state.failure : null);
  function keepMine(): void {
    const current = stale?.current as LayoutData | undefined;
    if (current) editor.saver.rebase(docOf(current), current.version);
  }
  function takeTheirs(): void {
    const current = stale?.current as LayoutData | undefined;
    if (!current) return;
    const doc = docOf(current);
    editor.history.commit(doc);
    editor.saver.want(doc);
    editor.saver.rebase(doc, current.version);
    void editor.refreshPatterns();
  }
</script>

{#if stale}<StaleDialog message={stale.message} onmine={keepMine} ontheirs={takeTheirs} />{/if}
