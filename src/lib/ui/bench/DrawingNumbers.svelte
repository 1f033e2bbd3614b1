<script lang="ts">
  import { scaling } from '$lib/core/geom/affine';
  import { renameElement, slotsOf } from '$lib/core/recipe/edit';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Motif } from '$lib/core/recipe/recipe';
  import { drawingOf, transformElement, type DrawingContent } from '$lib/core/scene/drawing';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import type { BenchEditor } from './editor.svelte';

  /** Size and colours of a drawn motif; all its placings follow. */
  type Props = { editor: BenchEditor; motif: Motif; content: DrawingContent };
  let { editor, motif, content }: Props = $props();

  const slots = $derived(editor.still.slots.map((slot) => [slot.id, slot.name] as const));
  const used = $derived(slotsOf(content));
  const empty = $derived(content.elements.length === 0);

  /** The drawing as it was before the gesture, sized so that one side has the number; both sides keep their ratio. */
  function sized(side: 'width' | 'height', value: number, live: boolean): void {
    editor.setMotif(
      motif.id,
      (held) => {
        if (held.content.kind !== 'drawing') return held;
        const { elements, asset } = held.content;
        const factor = value / Math.max(held.content[side], 1e-6);
        return {
          ...held,
          content: drawingOf(
            elements.map((element) => transformElement(element, scaling(factor))),
            asset,
          ),
        };
      },
      live,
    );
  }
  const handlers = (side: 'width' | 'height') => ({
    onlive: (value: number) => sized(side, value, true),
    onset: (value: number) => sized(side, value, false),
    oncancel: () => editor.history.cancel(),
  });
  function repaint(from: string, to: string): void {
    editor.setMotif(motif.id, (held) => {
      if (held.content.kind !== 'drawing') return held;
      const elements = held.content.elements.map((element) =>
        renameElement(element, (slot) => (slot === from ? to : slot)),
      );
      return { ...held, content: { ...held.content, elements } };
    });
  }
</script>

<Panel title={motif.name}>
  {#snippet aside()}all placings follow{/snippet}
  {#if empty}
    <p class="muted">Nothing is drawn yet; press the pencil beside its name.</p>
  {:else}
    <Rows>
      <span>Width · height</span>
      <span class="pair">
        <NumberField
          label="Width of the motif"
          value={content.width}
          kind={{ unit: editor.measure }}
          {...LIMITS.shapeSide}
          hideUnit
          {...handlers('width')}
        /> ·
        <NumberField
          label="Height of the motif"
          value={content.height}
          kind={{ unit: editor.measure }}
          {...LIMITS.shapeSide}
          {...handlers('height')}
        />
      </span>
      {#each used as slot, index (slot)}
        <span>Colour {index + 1}</span>
        <Choice
          label="Colour {index + 1} of the motif"
          value={slot}
          options={slots}
          onset={(to) => repaint(slot, to)}
        />
      {/each}
    </Rows>
  {/if}
</Panel>
