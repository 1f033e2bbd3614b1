<script lang="ts">
  import { multiply, scaling, translation, meanScale } from '$lib/core/geom/affine';
  import type { CutFrom } from '$lib/core/recipe/cut-out';
  import { renameElement, slotsOf } from '$lib/core/recipe/edit';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Motif } from '$lib/core/recipe/recipe';
  import { CSS_PPI } from '$lib/core/num/length';
  import {
    drawingOf,
    lonePicture,
    pictureElement,
    transformElement,
    type DrawingContent,
  } from '$lib/core/scene/drawing';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import type { BenchEditor } from './editor.svelte';
  import CutOutDialog from '../picture/CutOutDialog.svelte';
  import TraceDialog from './TraceDialog.svelte';

  /** Size and colours of a drawn motif; all its placings follow. */
  type Props = { editor: BenchEditor; motif: Motif; content: DrawingContent };
  let { editor, motif, content }: Props = $props();

  let tracing = $state(false);
  let cutting = $state(false);
  const slots = $derived(editor.still.slots.map((slot) => [slot.id, slot.name] as const));
  const used = $derived(slotsOf(content));
  const empty = $derived(content.elements.length === 0);

  /** Pixels to an inch that a picture has at the motif's size, and as the chosen piece shows it. */
  const picture = $derived(lonePicture(content));
  const ppi = $derived(picture ? CSS_PPI / meanScale(picture.matrix) : null);
  const placedScale = $derived(
    editor.single?.motif === motif.id
      ? Math.max(...[editor.single.scaleX, editor.single.scaleY].map(Math.abs))
      : 1,
  );

  /** Puts what was cut out where it lay in the picture that it was cut out of. */
  function takeCut(made: { asset: string; width: number; height: number }, from: CutFrom): void {
    if (!picture) return;
    const { cut, matrix } = picture;
    const whole = cut ? multiply(matrix, translation(-cut.x, -cut.y)) : matrix;
    const element = pictureElement({
      ...{ ...made, clear: true, cut: from },
      matrix: multiply(whole, translation(from.x, from.y)),
    });
    editor.replaceContent(motif.id, drawingOf([element], content.asset), []);
  }

  /** The drawing as it was before the gesture, scaled by what is found for it; both sides keep their ratio. */
  function sized(factorOf: (before: DrawingContent) => number, live: boolean): void {
    editor.setMotif(
      motif.id,
      (held) => {
        if (held.content.kind !== 'drawing') return held;
        const { elements, asset } = held.content;
        const factor = factorOf(held.content);
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
  const numbers = (factor: (before: DrawingContent, value: number) => number) => ({
    onlive: (value: number) => sized((before) => factor(before, value), true),
    onset: (value: number) => sized((before) => factor(before, value), false),
    oncancel: () => editor.history.cancel(),
  });
  const handlers = (side: 'width' | 'height') =>
    numbers((before, value) => value / Math.max(before[side], 1e-6));
  const byPpi = numbers((before, value) => {
    const held = lonePicture(before);
    return held ? CSS_PPI / meanScale(held.matrix) / value : 1;
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
      {#if ppi !== null}
        <span>Resolution</span>
        <span class="pair"
          ><NumberField
            label="Resolution of the picture"
            value={ppi}
            kind={{ suffix: '' }}
            {...LIMITS.ppi}
            {...byPpi}
          /> <span class="muted">ppi</span>{#if Math.abs(placedScale - 1) > 1e-9}<span class="muted"
              >, {Math.round(ppi / placedScale)} as placed</span
            >{/if}</span
        >
      {/if}
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
    {#if picture}
      <Button kind="quiet" onclick={() => (cutting = true)}>Cut out …</Button>
      <Button kind="quiet" onclick={() => (tracing = true)}>Trace …</Button>
    {/if}
  {/if}
</Panel>
{#if cutting && picture}
  <CutOutDialog name={motif.name} {picture} ontake={takeCut} onclose={() => (cutting = false)} />
{/if}
{#if tracing && picture}<TraceDialog {editor} {motif} {picture} onclose={() => (tracing = false)} />{/if}
