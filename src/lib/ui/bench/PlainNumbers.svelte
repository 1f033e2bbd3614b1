<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Motif, MotifContent } from '$lib/core/recipe/recipe';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import type { BenchEditor } from './editor.svelte';

  /** The numbers of a motif that is one plain form or line; all its placings follow. */
  type Props = { editor: BenchEditor; motif: Motif; content: Exclude<MotifContent, { kind: 'drawing' }> };
  let { editor, motif, content }: Props = $props();

  const kind = $derived({ unit: editor.measure });
  const set = (next: MotifContent): void => editor.setMotif(motif.id, (held) => ({ ...held, content: next }));
</script>

<Panel title={motif.name}>
  {#snippet aside()}all placings follow{/snippet}
  <Rows>
    {#if content.kind === 'form'}
      <span>Width</span>
      <NumberField
        label="Width of the motif"
        value={content.width}
        {kind}
        {...LIMITS.shapeSide}
        onset={(width) => set({ ...content, width })}
      />
      <span>Height</span>
      <NumberField
        label="Height of the motif"
        value={content.height}
        {kind}
        {...LIMITS.shapeSide}
        onset={(height) => set({ ...content, height })}
      />
      {#if content.form.kind === 'rectangle'}
        <span>Corner radius</span>
        <NumberField
          label="Corner radius"
          value={content.form.radius}
          {kind}
          least={0}
          most={1e5}
          onset={(radius) => set({ ...content, form: { kind: 'rectangle', radius } })}
        />
      {:else if content.form.kind === 'polygon'}
        <span>Sides</span>
        <NumberField
          label="Sides"
          value={content.form.sides}
          kind={{ suffix: '' }}
          {...LIMITS.sides}
          digits={0}
          onset={(sides) => set({ ...content, form: { kind: 'polygon', sides: Math.round(sides) } })}
        />
      {:else if content.form.kind === 'star'}
        {@const star = content.form}
        <span>Points</span>
        <NumberField
          label="Points"
          value={star.points}
          kind={{ suffix: '' }}
          {...LIMITS.starPoints}
          digits={0}
          onset={(points) => set({ ...content, form: { ...star, points: Math.round(points) } })}
        />
        <span>Inner radius</span>
        <NumberField
          label="Inner radius"
          value={star.inner}
          kind={{ suffix: '%' }}
          {...LIMITS.starInner}
          onset={(inner) => set({ ...content, form: { ...star, inner } })}
        />
      {/if}
    {:else}
      <span>Length</span>
      <NumberField
        label="Length of the line"
        value={content.length}
        {kind}
        {...LIMITS.shapeSide}
        onset={(length) => set({ ...content, length })}
      />
      <span>Thickness</span>
      <NumberField
        label="Thickness of the line"
        value={content.thickness}
        {kind}
        {...LIMITS.shapeSide}
        onset={(thickness) => set({ ...content, thickness })}
      />
      <span>Ends</span>
      <select
        aria-label="Ends of the line"
        value={content.cap}
        onchange={(event) =>
          set({ ...content, cap: event.currentTarget.value as 'butt' | 'round' | 'square' })}
      >
        <option value="butt">flat</option><option value="round">round</option><option value="square"
          >square</option
        >
      </select>
    {/if}
    <span>Colour</span>
    <select
      aria-label="Colour of the motif"
      value={content.slot}
      onchange={(event) => set({ ...content, slot: event.currentTarget.value })}
    >
      {#each editor.still.slots as slot (slot.id)}<option value={slot.id}>{slot.name}</option>{/each}
    </select>
  </Rows>
</Panel>

<style>
  select {
    max-width: 120px;
    padding: 1px 4px;
  }
</style>
