<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A titled part of a side panel, with room for an action or a note beside its title. */
  type Props = {
    title: string;
    aside?: Snippet;
    /** Given: the panel can be folded, and starts so or not. */
    folded?: boolean;
    children: Snippet;
  };
  let { title, aside, folded, children }: Props = $props();
  // svelte-ignore state_referenced_locally
  let open = $state(!folded);
</script>

<section>
  <header>
    {#if folded === undefined}
      <h2>{title}</h2>
    {:else}
      <h2>
        <button type="button" aria-expanded={open} onclick={() => (open = !open)}
          ><span aria-hidden="true">{open ? '▾' : '▸'}</span> {title}</button
        >
      </h2>
    {/if}
    {#if aside}<div class="aside">{@render aside()}</div>{/if}
  </header>
  {#if open}{@render children()}{/if}
</section>

<style>
  section {
    padding: 14px 12px;
    border-bottom: 1px solid var(--rule);
  }
  header {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 8px;
  }
  button {
    padding: 0;
    border: 0;
    background: none;
    font-weight: 650;
    cursor: pointer;
  }
  h2 {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  header:not(:last-child) {
    margin-bottom: 8px;
  }
  .aside {
    color: var(--muted);
    white-space: nowrap;
  }
  .aside :global(.add) {
    color: var(--kelp);
    font-weight: 600;
  }
</style>
