<script lang="ts">
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
  <button type="button" onclick={oncolour}>A plain colour</button>
  <button type="button" onclick={ongradient}>A gradient</button>
  <button type="button" onclick={() => file?.click()}>A picture …</button>
  {#if onnothing}<button type="button" onclick={onnothing}>Nothing</button>{/if}
  {#each patterns as pattern (pattern.id)}
    <button type="button" class:used={pattern.id === used} onclick={() => onpattern(pattern.id)}>
      <img
        src={swatchUrl(pattern, 212, 58, 0.5)}
        alt=""
        width="56"
        height="24"
        loading="lazy"
      />{pattern.name}
    </button>
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
  button {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 5px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  button:hover,
  .used {
    background: var(--kelp-tint);
  }
  img {
    object-fit: cover;
    object-position: 0 0;
  }
</style>
