<script lang="ts">
  import Mark from '../people/Mark.svelte';
  import type { Here } from './here.svelte';

  /** Who else is on this layout; a press follows what they see, another one lets go. */
  type Props = { here: Here };
  let { here }: Props = $props();
  const MOST = 5;
  const all = $derived([...here.others.values()]);
</script>

{#if all.length > 0}
  <span class="others" role="group" aria-label="Also here">
    {#each all.slice(0, MOST) as one (one.view)}
      {@const followed = here.followed === one.view}
      <button
        type="button"
        aria-pressed={followed}
        aria-label={followed ? `Stop following ${one.name}` : `Follow what ${one.name} sees`}
        title={followed
          ? `You see what ${one.name} sees`
          : `${one.name} is here. Press to see what they see.`}
        style:--own={one.colour}
        onclick={() => (here.followed = followed ? null : one.view)}
      >
        <Mark name={one.name} colour={one.colour} size={24} />
      </button>
    {/each}
    {#if all.length > MOST}<span class="muted">+{all.length - MOST}</span>{/if}
  </span>
{/if}

<style>
  .others {
    display: flex;
    gap: 4px;
  }
  button {
    display: grid;
    padding: 2px;
    border: 2px solid transparent;
    border-radius: 8px;
    background: none;
    cursor: pointer;
  }
  [aria-pressed='true'] {
    border-color: var(--own);
  }
</style>
