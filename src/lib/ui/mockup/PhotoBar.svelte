<script lang="ts">
  import type { BrushStroke } from '$lib/core/geom/brush-stroke';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';
  import { STROKE_LIMITS } from '$lib/core/recipe/stroke';

  /** What the hand does on a photograph: move handles, paint what lies in front, or only look. */
  type Tool = 'handles' | 'front' | 'look';
  type Brush = Omit<BrushStroke, 'points'>;
  type Mode = 'erase' | 'restore';
  type Props = {
    tool: Tool;
    brush: Brush;
    mode: Mode;
    strokes: number;
    ontool: (tool: Tool) => void;
    onbrush: (brush: Brush, mode: Mode) => void;
    onclear: () => void;
  };
  let { tool, brush, mode, strokes, ontool, onbrush, onclear }: Props = $props();
</script>

<div class="tools">
  <Switch
    label="What the hand does"
    value={tool}
    options={[
      { value: 'handles', label: 'handles', title: 'Move the handles of the surfaces' },
      { value: 'front', label: 'in front', title: 'Paint what lies in front of the surfaces' },
      { value: 'look', label: 'look', title: 'The picture alone' },
    ]}
    onset={ontool}
  />
  {#if tool === 'front'}
    <Switch
      label="What the brush does"
      value={mode}
      options={[
        { value: 'erase', label: 'lies in front', tone: 'signal' },
        { value: 'restore', label: 'give back' },
      ]}
      onset={(next) => onbrush(brush, next)}
    />
    <span class="muted">brush</span>
    <NumberField
      label="Width of the brush"
      value={brush.size}
      kind={{ suffix: 'px' }}
      digits={0}
      least={1}
      most={STROKE_LIMITS.size.most}
      onset={(size) => onbrush({ ...brush, size }, mode)}
    />
    <span class="muted">soft</span>
    <NumberField
      label="Softness of the brush"
      value={brush.softness}
      kind={{ suffix: '%' }}
      digits={0}
      least={0}
      most={1}
      onset={(softness) => onbrush({ ...brush, softness }, mode)}
    />
    {#if strokes > 0}<Button kind="quiet" onclick={onclear}>Take all back</Button>{/if}
  {/if}
</div>

<style>
  .tools {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
    padding: 6px 10px;
  }
</style>
