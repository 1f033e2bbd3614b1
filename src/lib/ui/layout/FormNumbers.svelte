<script lang="ts">
  import type { LayoutForm } from '$lib/core/recipe/form';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import type { BrushNumbers } from './shapes';
  import type { LayoutEditor } from './editor.svelte';
  import FontChoice from '../components/FontChoice.svelte';
  import { restyleText } from './text-writer.svelte';

  /** The numbers of the selected shape's own form: corner radius, sides, points. */
  type Props = {
    editor: LayoutEditor;
    brush: BrushNumbers;
    onbrush: (brush: BrushNumbers) => void;
    /** Opens the words of a text, or the points of an outline. */
    onopen: () => void;
  };
  let { editor, brush, onbrush, onopen }: Props = $props();
  const form = $derived(editor.single?.form ?? null);
  /** The numbers of the selected text, or of the next one. */
  const text = $derived(form?.kind === 'text' ? form : editor.tool === 'text' ? editor.textNumbers : null);
  const set = (next: LayoutForm): void => editor.change((shape) => ({ ...shape, form: next }));
</script>

{#if editor.tool === 'brush' || form?.kind === 'brush'}
  {@const of = editor.tool !== 'brush' && form?.kind === 'brush' ? form : null}
  <span class="numbers"
    >{#if !of}Size <NumberField
        label="Size of the brush"
        value={brush.size}
        kind={{ unit: editor.doc.measure }}
        least={0.1}
        most={LIMITS.shapeSide.most}
        onset={(size) => onbrush({ ...brush, size })}
      />{/if}
    Softness <NumberField
      label="Softness of the brush"
      value={of?.softness ?? brush.softness}
      kind={{ suffix: '%' }}
      least={0}
      most={1}
      onset={(softness) => (of ? set({ ...of, softness }) : onbrush({ ...brush, softness }))}
    /></span
  >
{/if}
{#if editor.editingPoints}
  <span class="numbers"
    ><Button kind="quiet" onclick={() => (editor.editingPoints = false)}>Points are done</Button></span
  >
{:else if text}
  <span class="numbers">
    <FontChoice width={104} value={text.font} onset={(font) => restyleText(editor, { font })} />
    Size <NumberField
      label="Size of the text"
      value={text.size}
      kind={{ unit: editor.doc.measure }}
      least={0.1}
      most={1e5}
      onset={(size) => restyleText(editor, { size })}
    />
    <Choice
      label="How lines stand"
      value={text.align}
      options={[
        ['start', 'Left'],
        ['middle', 'Centred'],
        ['end', 'Right'],
      ]}
      onset={(align) => restyleText(editor, { align })}
    />
    {#if form?.kind === 'text'}<Button kind="quiet" onclick={onopen}>Words …</Button>{/if}
  </span>
{:else if form?.kind === 'path'}
  <span class="numbers"><Button kind="quiet" onclick={onopen}>Edit points</Button></span>
{/if}

{#if form?.kind === 'rectangle'}
  <span class="numbers"
    >Corner radius <NumberField
      label="Corner radius"
      value={form.radius}
      kind={{ unit: editor.doc.measure }}
      least={0}
      most={1e5}
      onset={(radius) => set({ ...form, radius })}
    /></span
  >
{:else if form?.kind === 'polygon'}
  <span class="numbers"
    >Sides <NumberField
      label="Sides"
      value={form.sides}
      kind={{ suffix: '' }}
      {...LIMITS.sides}
      digits={0}
      onset={(sides) => set({ ...form, sides: Math.round(sides) })}
    /></span
  >
{:else if form?.kind === 'star'}
  <span class="numbers"
    >Points <NumberField
      label="Points"
      value={form.points}
      kind={{ suffix: '' }}
      {...LIMITS.starPoints}
      digits={0}
      onset={(points) => set({ ...form, points: Math.round(points) })}
    />
    Inner radius <NumberField
      label="Inner radius"
      value={form.inner}
      kind={{ suffix: '%' }}
      {...LIMITS.starInner}
      onset={(inner) => set({ ...form, inner })}
    /></span
  >
{/if}

<style>
  .numbers {
    display: inline-flex;
    align-items: baseline;
    gap: 8px;
    padding: 0 10px;
    border-left: 1px solid var(--rule);
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
  .numbers :global(input) {
    color: var(--ink);
  }
</style>
