<script lang="ts">
  import OptionRow from '../components/OptionRow.svelte';
  import type { PatternSummary } from '$lib/contract/data';
  import { swatchUrl } from '../library/say';

  /** What a shape can be filled with: a plain colour, a gradient, a picture from a file, or one of the patterns. */
  type Props = {
    patterns: PatternSummary[];
    used: string | null;
    onpattern: (id: string) => void;
    oncolour: () => void;
    ongradient: () => void;
    onpicture: (file: File) => void;
    onnothing?: () => void;
  };
  let { patterns, used, onpattern, oncolour, ongradient, onpicture, onnothing }: Props = $props();
  let file: HTMLInputElement | undefined = $state();
</script>

<div class="choices">
  <OptionRow onclick={oncolour}>A plain colour</OptionRow>
  <OptionRow onclick={ongradient}>A gradient</OptionRow>
  <OptionRow onclick={() => file?.click()}>A picture …</OptionRow>
  {#if onnothing}<OptionRow onclick={onnothing}>Nothing</OptionRow>{/if}
  {#each patterns as pattern (pattern.id)}
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
