<script lang="ts">
  import type { LayoutSummary, PaletteData, PatternSummary } from '$lib/contract/data';
  import type { Standing } from '$lib/core/mockup/mockup';
  import Button from '../components/Button.svelte';
  import type { LayoutEditor } from '../layout/editor.svelte';
  import FillBar from '../layout/FillBar.svelte';

  /** What the chosen object shows: the fill bar of what is selected on it, else its shapes to choose from. */
  type Props = {
    editor: LayoutEditor | null;
    one: Standing | null;
    palettes: PaletteData[];
    patterns: PatternSummary[];
    layouts: readonly LayoutSummary[];
  };
  let { editor, one, palettes, patterns, layouts }: Props = $props();
</script>

{#if editor}
  {#key editor.id}
    {#if editor.chosen.length > 0}
      <FillBar {editor} narrow {patterns} {palettes} {layouts} />
    {:else}
      <div class="parts">
        <span class="muted">On it:</span>
        {#each editor.doc.shapes.toReversed() as shape (shape.id)}
          <Button kind="quiet" onclick={() => editor.select([shape.id])}>{shape.name}</Button>
        {:else}
          <span class="muted">nothing is drawn on “{editor.doc.name}” yet.</span>
        {/each}
      </div>
    {/if}
  {/key}
{:else}
  <div class="parts muted">
    {one ? 'It shows nothing yet: press a hanger, or choose a layout at the right.' : 'No object is chosen.'}
  </div>
{/if}

<style>
  .parts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 4px;
    min-height: 46px;
    padding: 8px 12px;
  }
</style>
