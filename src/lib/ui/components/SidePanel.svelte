<script lang="ts">
  import type { Snippet } from 'svelte';
  import Button from './Button.svelte';

  /** What stands beside a view while it is wanted: its title, its tools, and a way to close it; what is in it scrolls. */
  type Props = { title: string; tools?: Snippet; onclose: () => void; children: Snippet };
  let { title, tools, onclose, children }: Props = $props();

  const close = $derived(`Close the ${title.toLowerCase()}`);
</script>

<div class="panel">
  <header>
    <h2>{title}</h2>
    {@render tools?.()}
    <span class="end"><Button kind="quiet" label={close} title={close} onclick={onclose}>×</Button></span>
  </header>
  {@render children()}
</div>

<style>
  .panel {
    display: flex;
    flex-direction: column;
    min-height: 0;
    background: var(--card);
  }
  header {
    display: flex;
    flex: none;
    align-items: center;
    gap: 10px;
    min-height: 44px;
    padding: 6px 4px 6px 12px;
    border-bottom: 1px solid var(--rule);
  }
  .end {
    margin-left: auto;
  }
</style>
