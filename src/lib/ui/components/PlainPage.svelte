<script lang="ts">
  import type { Snippet } from 'svelte';
  import TopBar from './TopBar.svelte';

  /** A page of sections under each other, below the bar. */
  type Props = { here: string; children: Snippet };
  let { here, children }: Props = $props();
</script>

<div class="page">
  <TopBar>
    {#snippet trail()}<strong>{here}</strong>{/snippet}
  </TopBar>
  <main>{@render children()}</main>
</div>

<style>
  .page {
    display: flex;
    flex-direction: column;
    height: 100vh;
  }
  main {
    display: grid;
    align-content: start;
    gap: 32px;
    flex: 1;
    overflow: auto;
    padding: 24px;
  }
</style>
