<script lang="ts">
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Lock from '@lucide/svelte/icons/lock';
  import LockOpen from '@lucide/svelte/icons/lock-open';

  /** The lock and the eye of a shape or a group. */
  type Props = { name: string; locked: boolean; hidden: boolean; onhold: (by: 'locked' | 'hidden') => void };
  let { name, locked, hidden, onhold }: Props = $props();
</script>

<span class="holds">
  <button
    type="button"
    class:held={locked}
    aria-label={locked ? `Unlock ${name}` : `Lock ${name}`}
    title={locked ? 'Unlock' : 'Lock'}
    aria-pressed={locked}
    onclick={() => onhold('locked')}
    >{#if locked}<Lock size={12} />{:else}<LockOpen size={12} />{/if}</button
  >
  <button
    type="button"
    class:held={hidden}
    aria-label={hidden ? `Show ${name}` : `Hide ${name}`}
    title={hidden ? 'Show' : 'Hide'}
    aria-pressed={hidden}
    onclick={() => onhold('hidden')}
    >{#if hidden}<EyeOff size={12} />{:else}<Eye size={12} />{/if}</button
  >
</span>

<style>
  .holds {
    display: inline-flex;
    margin-left: auto;
    padding-left: 8px;
    visibility: hidden;
  }
  :global(tr:hover) .holds,
  :global(tr:focus-within) .holds,
  .holds:has(.held) {
    visibility: visible;
  }
  button {
    display: inline-flex;
    padding: 2px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
  .held {
    color: var(--kelp);
  }
</style>
