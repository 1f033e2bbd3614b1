<script lang="ts">
  import type { PaletteEntry } from '$lib/contract/data';
  import { inkFault, type InkUse } from '$lib/core/colour/inks';
  import NameField from '../components/NameField.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PaletteEditor } from './editor.svelte';

  /** Whether a palette colour is printed in a spot ink: which, how much of it, and whether it prints over others. */
  type Props = { editor: PaletteEditor; entry: PaletteEntry; onproblem: (problem: string | null) => void };
  let { editor, entry, onproblem }: Props = $props();

  /** The palette with another ink for this colour; whether an ink prints over others holds for all of its tints. */
  function withInk(ink: InkUse | null): PaletteEntry[] {
    return editor.doc.colours.map((one) => {
      if (one.id === entry.id) return { ...one, ink };
      const same = ink && one.ink?.name === ink.name;
      return same ? { ...one, ink: { ...one.ink!, overprint: ink.overprint } } : one;
    });
  }
  function set(ink: InkUse | null): string | null {
    const colours = withInk(ink);
    const fault = inkFault(colours)?.message ?? null;
    onproblem(fault);
    if (fault === null) editor.change({ colours });
    return fault;
  }
  /** An ink that has the name already prints over others as it does there. */
  function named(ink: InkUse, name: string): string | null {
    const same = editor.doc.colours.find((one) => one.id !== entry.id && one.ink?.name === name)?.ink;
    return set({ ...ink, name, overprint: same?.overprint ?? ink.overprint });
  }
</script>

<Tick
  label="Printed in a spot ink"
  checked={Boolean(entry.ink)}
  onset={(on) => void set(on ? { name: `${entry.name} ink`, tint: 1, overprint: false } : null)}
/>
{#if entry.ink}
  {@const { ink } = entry}
  <div class="ink">
    <div class="name">
      <span>Ink</span>
      <NameField label="The name of the ink" value={ink.name} onset={(name) => named(ink, name)} />
    </div>
    <Rows>
      <span>Tint</span>
      <NumberField
        label="How much of the ink"
        value={ink.tint}
        kind={{ suffix: '%' }}
        least={0.01}
        most={1}
        digits={0}
        onset={(tint) => void set({ ...ink, tint })}
      />
    </Rows>
    <Tick
      label="Prints over other inks"
      checked={ink.overprint}
      onset={(overprint) => void set({ ...ink, overprint })}
    />
  </div>
{/if}

<style>
  .name {
    display: flex;
    gap: 10px;
    align-items: baseline;
    color: var(--muted);
  }
  .name :global(input) {
    color: var(--ink);
  }
  .ink {
    display: grid;
    gap: 8px;
    width: 100%;
  }
</style>
