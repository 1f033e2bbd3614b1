<script lang="ts">
  import { allFills } from '$lib/core/recipe/layout';
  import Button from '../components/Button.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** How the file came in that a chosen shape was made from, or that one of its fills or masks shows. */
  let { editor }: { editor: LayoutEditor } = $props();

  const key = $derived(
    editor.chosen
      .flatMap((shape) => [
        shape.id,
        ...[shape.mask, ...allFills(shape).flatMap((fill) => [fill, fill.mask])].flatMap((part) =>
          part?.kind === 'picture' ? [part.asset] : [],
        ),
      ])
      .find((id) => editor.cameIn.has(id)),
  );
  const came = $derived(key === undefined ? undefined : editor.cameIn.get(key));
  function understood(): void {
    for (const [id, one] of editor.cameIn) if (one === came) editor.cameIn.delete(id);
  }
</script>

{#if came}
  <div class="came" role="note">
    <p><strong>How “{came.file}” came in</strong> {came.notes.join(' ')}</p>
    <Button kind="quiet" onclick={understood}>Understood</Button>
  </div>
{/if}

<style>
  .came {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 12px;
    padding: 6px 12px;
    border-left: 3px solid var(--amber);
    background: var(--amber-tint);
    font-size: var(--small);
  }
  p {
    margin: 0;
  }
</style>
