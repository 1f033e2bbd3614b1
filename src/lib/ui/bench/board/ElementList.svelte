<script lang="ts">
  import type { DrawingElement } from '$lib/core/recipe/recipe';
  import Panel from '../../components/Panel.svelte';
  import ElementIcon from './ElementIcon.svelte';
  import type { Board } from './board.svelte';

  /** The elements of the motif, front first. */
  type Props = { board: Board };
  let { board }: Props = $props();

  const rows = $derived([...board.elements.entries()].reverse());
  function nameOf({ source, picture, fill }: DrawingElement): string {
    if (picture) return 'Picture';
    if (source?.kind === 'text') return `“${source.text}”`;
    if (source?.kind === 'form') {
      const { kind } = source.form;
      return kind.charAt(0).toUpperCase() + kind.slice(1);
    }
    return fill === null ? 'Line' : 'Shape';
  }
</script>

<Panel title="Elements">
  {#snippet aside()}{board.elements.length}{/snippet}
  <ul>
    {#each rows as [index, element] (index)}
      <li>
        <button
          type="button"
          aria-pressed={board.selected.includes(index)}
          onclick={(event) => (event.shiftKey ? board.toggle(index) : board.select([index]))}
        >
          <ElementIcon {element} colours={board.editor.colours} />
          {nameOf(element)}
        </button>
      </li>
    {:else}
      <li class="muted">Nothing drawn yet.</li>
    {/each}
  </ul>
</Panel>

<style>
  ul {
    max-height: 260px;
    overflow: auto;
  }
  button {
    display: flex;
    align-items: center;
    gap: 8px;
    width: 100%;
    padding: 2px 5px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  [aria-pressed='true'] {
    background: var(--kelp-tint);
  }
</style>
