<script lang="ts">
  import { sayInstead } from './say';
  import type { PatternFinder } from './pattern-finder.svelte';

  /** The field above a list of patterns: what is typed is found. */
  type Props = { finder: PatternFinder; label: string };
  let { finder, label }: Props = $props();
</script>

<input
  type="search"
  placeholder={label}
  aria-label={label}
  value={finder.text}
  oninput={(event) => finder.find(event.currentTarget.value)}
/>
{#each finder.instead as one (one.typed)}<p class="muted" role="status">{sayInstead(one)}</p>{/each}

<style>
  input {
    width: 100%;
    padding: 6px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  p {
    margin-top: 4px;
    font-size: var(--small);
  }
</style>
