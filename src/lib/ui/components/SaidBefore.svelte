<script lang="ts">
  import Scroll from '@lucide/svelte/icons/scroll-text';
  import { toasts } from '../state/toasts.svelte';
  import Popover from './Popover.svelte';

  /** The messages of this tab, the last first, so that one that has left can be read again. */
  const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
</script>

<span class="said">
  <Popover label="What was said" title="Messages of this tab, the last first" width={380}>
    {#snippet button()}<Scroll size={16} />{/snippet}
    {#if toasts.said.length === 0}
      <p class="muted">Nothing yet. Messages that have left are listed here.</p>
    {:else}
      <ol aria-label="Messages">
        {#each toasts.said as { message, kind, at } (`${at} ${message}`)}
          <li class={kind}>
            <time class="mono muted" datetime={new Date(at).toISOString()}>{time.format(at)}</time>
            <span>{message}</span>
          </li>
        {/each}
      </ol>
    {/if}
  </Popover>
</span>

<style>
  .said :global(.trigger) {
    padding: 5px;
    color: var(--muted);
  }
  .said :global(.trigger:hover) {
    color: var(--ink);
  }
  ol {
    display: grid;
    gap: 6px;
    margin: 0;
    padding: 0;
    list-style: none;
    white-space: normal;
  }
  li {
    display: grid;
    grid-template-columns: 44px 1fr;
    padding: 4px 8px;
    border-left: 3px solid var(--rule);
    font-size: var(--small);
  }
  .problem {
    border-color: var(--amber);
  }
</style>
