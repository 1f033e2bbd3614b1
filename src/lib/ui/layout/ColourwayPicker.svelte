<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { Colourway } from '$lib/core/colour/colourway';
  import type { PatternFill } from '$lib/core/recipe/fill';
  import Popover from '../components/Popover.svelte';
  import { swatchUrl } from '../library/say';
  import type { LayoutEditor } from './editor.svelte';

  /** Which of its pattern's colourways a use shows; single slots may have colours of their own over it. */
  type Props = { editor: LayoutEditor; fill: PatternFill; ways: readonly Colourway[] };
  let { editor, fill, ways }: Props = $props();

  const shown = $derived(ways.find((way) => way.id === fill.colourway) ?? null);
  const pattern = $derived(editor.patterns.get(fill.pattern));

  /** A colourway chosen anew shows all its colours: those of single slots go. */
  function choose(id: string | null): void {
    editor.changeFill((one) => (one.pattern === fill.pattern ? { ...one, colourway: id, colours: {} } : one));
  }
</script>

<Popover label="Choose the colourway: {shown?.name ?? 'its own colours'}" width={214}>
  {#snippet button()}<span class="text">{shown?.name ?? 'its own'}</span><ChevronDown size={13} />{/snippet}
  {#snippet children(close)}
    <div class="choices">
      {#each [null, ...ways] as way (way?.id ?? '')}
        <button
          type="button"
          aria-pressed={fill.colourway === (way?.id ?? null)}
          onclick={() => {
            choose(way?.id ?? null);
            close();
          }}
        >
          {#if pattern}
            <img src={swatchUrl(pattern, 190, 44, 0.4, way ?? undefined)} alt="" width="190" height="44" />
          {/if}
          {way?.name ?? 'Its own colours'}
        </button>
      {/each}
    </div>
  {/snippet}
</Popover>

<style>
  .text {
    max-width: 110px;
    overflow: hidden;
    border-bottom: 1px dotted var(--rule-strong);
    font-weight: 600;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .choices {
    display: grid;
    gap: 6px;
  }
  button {
    display: grid;
    gap: 2px;
    padding: 2px;
    border: 0;
    border-radius: 4px;
    background: none;
    font-size: 12.5px;
    text-align: left;
    cursor: pointer;
  }
  button:hover,
  [aria-pressed='true'] {
    background: var(--kelp-tint);
  }
  img {
    display: block;
    background: var(--surround);
  }
</style>
