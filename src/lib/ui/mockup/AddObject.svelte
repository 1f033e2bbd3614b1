<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import { OBJECT_KINDS, OBJECTS, type ObjectKind } from '$lib/core/mockup/objects';
  import Popover from '../components/Popover.svelte';

  /** Chooses what else stands in a mock-up. */
  let { onadd }: { onadd: (kind: ObjectKind) => void } = $props();
</script>

<Popover label="Put an object there" width={300}>
  {#snippet button()}<span class="add"><Plus size={15} />Object</span>{/snippet}
  {#snippet children(close)}
    <div class="kinds">
      {#each OBJECT_KINDS as kind (kind)}
        <button
          type="button"
          onclick={() => {
            onadd(kind);
            close();
          }}>{OBJECTS[kind].label}</button
        >
      {/each}
    </div>
  {/snippet}
</Popover>

<style>
  .add {
    display: inline-flex;
    align-items: center;
    gap: 4px;
    font-weight: 600;
  }
  .kinds {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 2px;
  }
  button {
    padding: 5px 8px;
    border: 0;
    border-radius: var(--radius);
    background: none;
    text-align: left;
    cursor: pointer;
  }
  button:hover,
  button:focus-visible {
    background: var(--kelp-tint);
  }
</style>
