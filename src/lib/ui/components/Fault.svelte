<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Something stored that cannot be shown: why, and what can be done about it. */
  type Props = { title: string; message: string; children?: Snippet };
  let { title, message, children }: Props = $props();
</script>

<div class="fault" role="alert">
  <h2>{title}</h2>
  <p>{message}</p>
  {#if children}<div class="ways">{@render children()}</div>{/if}
</div>

<style>
  .fault {
    display: grid;
    gap: 10px;
    align-content: center;
    justify-items: start;
    max-width: 520px;
    margin: auto;
    padding: 24px;
    border-radius: 6px;
    background: var(--card);
  }
  h2 {
    margin: 0;
    font-size: 18px;
  }
  p {
    margin: 0;
    color: var(--muted);
  }
  .ways {
    display: flex;
    gap: 8px;
  }
</style>
