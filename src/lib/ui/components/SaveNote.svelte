<script lang="ts">
  import { line } from '../state/line.svelte';
  import type { SaveState } from '../state/saver.svelte';

  /** The quiet word on whether work is saved, with a retry where it is not. */
  type Props = { state: SaveState; what?: string; onretry: () => void };
  let { state, what = '', onretry }: Props = $props();
  const text = $derived(
    state.kind === 'saved'
      ? what
        ? `${what} saved`
        : 'Saved'
      : state.kind === 'failed'
        ? line.reached
          ? `Not saved: ${state.message}`
          : 'Kept in this browser: the studio cannot be reached'
        : state.kind === 'stale'
          ? 'Not saved: changed elsewhere'
          : 'Saving …',
  );
</script>

<span
  class="note"
  class:problem={state.kind === 'failed' || state.kind === 'stale'}
  role="status"
  title={text}>{text}</span
>
{#if state.kind === 'failed'}<button type="button" onclick={onretry}>Try again</button>{/if}

<style>
  .note {
    max-width: 380px;
    overflow: hidden;
    color: var(--muted);
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .problem {
    color: var(--amber);
    font-weight: 600;
  }
  button {
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
    white-space: nowrap;
  }
</style>
