<script lang="ts">
  import type { Presence } from '$lib/contract/live';
  import Mark from './Mark.svelte';
  import { Presences } from './presences.svelte';

  /** Who else works on a pattern: only one of two drafts can be kept, so that one knows before. */
  type Props = { kind: Presence['kind']; id: string | null };
  let { kind, id }: Props = $props();
  // svelte-ignore state_referenced_locally
  const presences = new Presences(kind, () => id);
  presences.follow();
  const all = $derived([...presences.others.values()]);
</script>

{#if all.length > 0}
  <span class="others" role="status" aria-label="Also here: {all.map(({ name }) => name).join(', ')}">
    {#each all.slice(0, 4) as one (one.view)}<Mark name={one.name} colour={one.colour} size={24} />{/each}
  </span>
{/if}

<style>
  .others {
    display: flex;
    gap: 4px;
  }
</style>
