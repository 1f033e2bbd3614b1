<script lang="ts">
  import type { ShapeStroke } from '$lib/core/recipe/layout';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import Rows from '../components/Rows.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { gestureOf } from './numbers';

  /** The numbers of a stroke: its width, ends, corners and dashes. */
  type Props = { editor: LayoutEditor; stroke: ShapeStroke };
  let { editor, stroke }: Props = $props();

  const setWidth = $derived(gestureOf(editor, (width) => editor.setStroke({ width }, true)));
  const kind = $derived({ unit: editor.doc.measure });
  const dash = $derived(stroke.dashes[0] ?? 0);
  const space = $derived(stroke.dashes[1] ?? dash);
  const setDash = (on: number, off: number): void =>
    editor.setStroke({ dashes: on > 0 && off > 0 ? [on, off] : [] });
</script>

<div class="cell">
  <span>Stroke width</span>
  <div class="values">
    <NumberField
      label="Width of the stroke"
      value={stroke.width}
      {kind}
      {...LIMITS.strokeWidth}
      {...setWidth}
    />
    <Popover label="Ends, corners and dashes of the stroke" width={230}>
      {#snippet button()}<span class="more">ends …</span>{/snippet}
      <Rows>
        <span>Ends</span>
        <Choice
          label="Ends"
          value={stroke.cap}
          options={[
            ['butt', 'cut'],
            ['round', 'round'],
            ['square', 'square'],
          ]}
          onset={(cap) => editor.setStroke({ cap })}
        />
        <span>Corners</span>
        <Choice
          label="Corners"
          value={stroke.join}
          options={[
            ['miter', 'pointed'],
            ['round', 'round'],
            ['bevel', 'cut'],
          ]}
          onset={(join) => editor.setStroke({ join })}
        />
        <span>Dash</span>
        <NumberField
          label="Length of a dash"
          value={dash}
          {kind}
          least={0}
          most={1e5}
          onset={(value) => setDash(value, space || value)}
        />
        <span>Space</span>
        <NumberField
          label="Space between dashes"
          value={space}
          {kind}
          least={0}
          most={1e5}
          onset={(value) => setDash(dash || value, value)}
        />
      </Rows>
      <Button kind="quiet" onclick={() => editor.removeStroke()}>Take the stroke away</Button>
    </Popover>
  </div>
</div>

<style>
  .more {
    color: var(--kelp);
    font-size: var(--small);
  }
</style>
