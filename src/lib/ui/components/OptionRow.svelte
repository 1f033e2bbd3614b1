<script lang="ts">
  import type { Snippet } from 'svelte';

  /** One of several choices in a panel, over its whole width. */
  type Props = { pressed?: boolean; disabled?: boolean; onclick: () => void; children: Snippet };
  let { pressed, disabled = false, onclick, children }: Props = $props();
</script>

<button type="button" aria-pressed={pressed} {disabled} {onclick}>{@render children()}</button>

<style>
  button {
    display: grid;
    gap: 1px;
    width: 100%;
    padding: 5px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    font-size: 13px;
    text-align: left;
    cursor: pointer;
  }
  button:hover:enabled,
  [aria-pressed='true'] {
    background: var(--kelp-tint);
  }
  button:disabled {
    opacity: 0.5;
    cursor: default;
  }
</style>
