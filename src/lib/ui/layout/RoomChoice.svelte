<script lang="ts">
  import Maximize from '@lucide/svelte/icons/layout-panel-left';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import Tick from '../components/Tick.svelte';
  import type { Room } from '../state/room.svelte';

  /** What stands beside the stage: each part shown or folded away, or only the stage. */
  type Props = {
    room: Room<'hangers' | 'fills' | 'ledger'>;
    /** The height of the fill bar where nobody has given it one, px. */
    fills: number;
  };
  let { room, fills }: Props = $props();

  const PARTS = [
    { part: 'hangers', label: 'Hangers', key: '2' },
    { part: 'fills', label: 'Fill bar', key: '3' },
    { part: 'ledger', label: 'Ledger', key: '4' },
  ] as const;
</script>

<Popover label="Room" title="What stands beside the stage" width={190}>
  {#snippet button()}<Maximize size={16} />{/snippet}
  <div class="parts">
    {#each PARTS as { part, label, key } (part)}
      <Tick label="{label} ({key})" checked={!room.isFolded(part)} onset={(on) => room.fold(part, !on)} />
    {/each}
    <div class="sizes">
      {#each PARTS as { part, label } (part)}
        <span class="muted">{label}</span>
        <NumberField
          label="Room of the {label.toLowerCase()}"
          value={part === 'fills' && !room.isSized(part) ? fills : room.size(part)}
          kind={{ unit: 'px' }}
          {...room.limits(part)}
          onset={(size) => room.resize(part, size)}
        />
      {/each}
    </div>
    <Tick label="Only the stage (5)" checked={room.onlyStage} onset={(on) => room.foldAll(on)} />
    <Button kind="quiet" onclick={() => PARTS.forEach(({ part }) => room.asUsual(part))}
      >The usual sizes</Button
    >
  </div>
</Popover>

<style>
  .parts {
    display: grid;
    justify-items: start;
    gap: 8px;
  }
  .sizes {
    display: grid;
    grid-template-columns: auto auto;
    gap: 6px 14px;
    padding: 4px 0 6px;
  }
</style>
