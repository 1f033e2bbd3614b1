<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Shape } from '$lib/core/recipe/layout';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { paintedMaskOf, type MaskBrushNumbers } from './mask-brush';

  /** The numbers of the mask's brush, at the foot of the stage. */
  type Props = {
    editor: LayoutEditor;
    shape: Shape;
    brush: MaskBrushNumbers;
    onset: (brush: MaskBrushNumbers) => void;
  };
  let { editor, shape, brush, onset }: Props = $props();

  const mask = $derived(paintedMaskOf(editor, shape));
  const SHARES = [
    { name: 'Softness', key: 'softness', least: 0 },
    { name: 'Strength', key: 'strength', least: 0.01 },
  ] as const;
</script>

<div class="tools" role="group" aria-label="Mask brush">
  <Switch
    label="What the brush does"
    value={brush.mode}
    options={[
      { value: 'erase', label: 'Erase' },
      { value: 'restore', label: 'Restore' },
    ]}
    onset={(mode) => onset({ ...brush, mode })}
  />
  <span
    >Size <NumberField
      label="Size of the brush"
      value={brush.size}
      kind={{ unit: editor.doc.measure }}
      least={0.1}
      most={LIMITS.shapeSide.most}
      onlive={(size) => onset({ ...brush, size })}
      onset={(size) => onset({ ...brush, size })}
    /></span
  >
  {#each SHARES as { name, key, least } (key)}
    {@const set = (value: number) => onset({ ...brush, [key]: value })}
    <span
      >{name}
      <NumberField
        label="{name} of the brush"
        value={brush[key]}
        kind={{ suffix: '%' }}
        {least}
        most={1}
        onlive={set}
        onset={set}
      /></span
    >
  {/each}
  <Button
    kind="quiet"
    disabled={mask.strokes.length === 0}
    onclick={() => editor.setMask(editor.painting ?? 'fill', { ...mask, strokes: mask.strokes.slice(0, -1) })}
    >Take the last stroke away</Button
  >
  <Button kind="main" onclick={() => (editor.painting = null)}>Done</Button>
</div>

<style>
  .tools {
    position: absolute;
    bottom: 8px;
    left: 50%;
    display: flex;
    transform: translateX(-50%);
    align-items: center;
    justify-content: space-between;
    gap: 12px;
    height: 40px;
    padding: 0 10px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
    font-size: 12.5px;
    white-space: nowrap;
  }
  .tools span {
    color: var(--muted);
  }
</style>
