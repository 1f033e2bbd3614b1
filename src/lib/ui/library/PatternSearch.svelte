<script lang="ts">
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

<style>
  input {
    width: 100%;
    padding: 6px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
</style>
