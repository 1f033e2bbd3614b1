<script lang="ts">
  import OptionRow from '../components/OptionRow.svelte';
  import type { LayoutSummary, PatternSummary } from '$lib/contract/data';
  import { PatternFinder } from '../library/pattern-finder.svelte';
  import PatternSearch from '../library/PatternSearch.svelte';
  import { swatchUrl } from '../library/say';
  import { listKeys } from '../state/list-keys';

  /** What a shape can be filled with: a plain colour, a gradient, a picture from a file, one of the patterns, or another layout. */
  type Props = {
    patterns: PatternSummary[];
    /** The other layouts of the project. */
    layouts: readonly LayoutSummary[];
    used: string | null;
    onpattern: (id: string) => void;
    oncolour: () => void;
    ongradient: () => void;
    onpicture: (file: File) => void;
    onlayout: (id: string) => void;
    onnothing?: () => void;
  };
  let { patterns, layouts, used, onpattern, oncolour, ongradient, onpicture, onlayout, onnothing }: Props =
    $props();
  let file: HTMLInputElement | undefined = $state();
  const finder = new PatternFinder(() => patterns, 30);
  /** What is not a pattern is found by its words too. */
  const plain = $derived(
    [
      { text: 'A plain colour', run: oncolour },
      { text: 'A gradient', run: ongradient },
      { text: 'A picture …', run: () => file?.click() },
      ...(onnothing ? [{ text: 'Nothing', run: onnothing }] : []),
    ].filter(({ text }) => text.toLowerCase().includes(finder.text.trim().toLowerCase())),
  );
  const pages = $derived(
    layouts.filter(({ name }) => name.toLowerCase().includes(finder.text.trim().toLowerCase())),
  );
</script>

<div class="choices" {@attach listKeys(() => finder.ready)}>
  <PatternSearch {finder} label="Find what fills it" />
  <div data-list>
    {#each plain as { text, run } (text)}
      <OptionRow onclick={run}>{text}</OptionRow>
    {/each}
    {#each finder.shown as pattern (pattern.id)}
      <OptionRow pressed={pattern.id === used} onclick={() => onpattern(pattern.id)}
        ><span class="pattern">
          <img
            src={swatchUrl(pattern, 212, 58, 0.5)}
            alt=""
            width="56"
            height="24"
            loading="lazy"
          />{pattern.name}</span
        >
      </OptionRow>
    {/each}
    {#if pages.length > 0}
      <p class="muted none">Layouts of the project, as they are now</p>
      {#each pages as { id, name } (id)}
        <OptionRow pressed={id === used} onclick={() => onlayout(id)}>{name}</OptionRow>
      {/each}
    {/if}
    {#if plain.length + finder.shown.length + pages.length === 0}
      <p class="muted none">{finder.problem ?? `Nothing is called “${finder.text.trim()}”.`}</p>
    {/if}
  </div>
  <input
    bind:this={file}
    type="file"
    accept="image/png,image/jpeg,image/webp"
    aria-label="Picture file"
    hidden
    onchange={(event) => {
      const [chosen] = event.currentTarget.files ?? [];
      event.currentTarget.value = '';
      if (chosen) onpicture(chosen);
    }}
  />
</div>

<style>
  .choices {
    display: grid;
    gap: 2px;
  }
  .choices > :global(input[type='search']) {
    position: sticky;
    top: -12px;
    z-index: 1;
  }
  .none {
    padding: 6px 8px;
  }
  .pattern {
    display: flex;
    align-items: center;
    gap: 10px;
  }
  img {
    object-fit: cover;
    object-position: 0 0;
  }
</style>
