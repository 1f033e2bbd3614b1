<script lang="ts">
  import type { PathOperation } from '$lib/core/geom/boolean';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { mapBy, transformMap, NO_TRANSFORM } from '$lib/core/recipe/transform';
  import AlignRow from '../bench/AlignRow.svelte';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';
  import { align, combine, grid, group, hold, sameSize, selectionBox, ungroup } from './arrange';
  import type { LayoutEditor } from './editor.svelte';

  /** What can be done to the selected shapes together. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();

  let to: 'selection' | 'page' = $state('selection');
  let columns = $state(3);
  let rows = $state(1);
  // svelte-ignore state_referenced_locally
  const box = selectionBox(editor) ?? { x: 0, y: 0, width: 100, height: 100 };
  let across = $state(box.width);
  let down = $state(box.height);
  const count = $derived(editor.selected.size);
  const kind = $derived({ unit: editor.doc.measure });
  const inGroup = $derived(editor.chosen.some((shape) => shape.group !== null));
  const COMBINE: [PathOperation, string][] = [
    ['unite', 'Unite'],
    ['subtract', 'Cut the front from the back'],
    ['intersect', 'Keep what all share'],
    ['exclude', 'Keep what only one covers'],
  ];

  function mirror(isAcross: boolean): void {
    const whole = selectionBox(editor);
    if (!whole) return;
    const middle = { x: whole.x + whole.width / 2, y: whole.y + whole.height / 2 };
    const map = transformMap({ ...NO_TRANSFORM, reflectX: isAcross, reflectY: !isAcross }, middle);
    editor.change((shape) => mapBy(shape, editor.scope, map, editor.activeOf(shape)?.id));
  }
</script>

<div class="panel">
  <h3>Line up</h3>
  <Switch
    label="Line up with"
    value={to}
    options={[
      { value: 'selection', label: 'Each other' },
      { value: 'page', label: 'The page' },
    ]}
    onset={(value) => (to = value)}
  />
  <AlignRow {count} onalign={(how) => align(editor, how, to)} onmirror={mirror} />
  <h3>Same size as the frontmost</h3>
  <div class="row">
    <Button disabled={count < 2} onclick={() => sameSize(editor, 'width')}>Width</Button>
    <Button disabled={count < 2} onclick={() => sameSize(editor, 'height')}>Height</Button>
    <Button disabled={count < 2} onclick={() => sameSize(editor, 'both')}>Both</Button>
  </div>
  <h3>One outline of several</h3>
  <div class="row wrap">
    {#each COMBINE as [operation, label] (operation)}
      <Button disabled={count < 2} onclick={() => combine(editor, operation)}>{label}</Button>
    {/each}
  </div>
  <h3>Keep together</h3>
  <div class="row wrap">
    <Button disabled={count < 1} onclick={() => group(editor)}>Group</Button>
    <Button disabled={!inGroup} onclick={() => ungroup(editor)}>Ungroup</Button>
    <Button onclick={() => hold(editor, 'locked')}>Lock</Button>
    <Button onclick={() => hold(editor, 'hidden')}>Hide</Button>
  </div>
  <h3>Rows and columns of copies</h3>
  <div class="row fields">
    <span
      ><NumberField
        label="Columns"
        value={columns}
        kind={{ suffix: '' }}
        least={1}
        most={100}
        digits={0}
        onset={(value) => (columns = Math.round(value))}
      /> ×
      <NumberField
        label="Rows"
        value={rows}
        kind={{ suffix: '' }}
        least={1}
        most={100}
        digits={0}
        onset={(value) => (rows = Math.round(value))}
      /></span
    >
    <span
      >every <NumberField
        label="Distance across"
        value={across}
        {kind}
        {...LIMITS.place}
        hideUnit
        onset={(value) => (across = value)}
      /> ·
      <NumberField
        label="Distance down"
        value={down}
        {kind}
        {...LIMITS.place}
        onset={(value) => (down = value)}
      /></span
    >
    <Button disabled={columns * rows < 2} onclick={() => grid(editor, columns, rows, { x: across, y: down })}
      >Copy</Button
    >
  </div>
</div>

<style>
  .panel {
    display: grid;
    justify-items: start;
    gap: 6px;
  }
  h3 {
    margin: 4px 0 0;
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
  }
  .row {
    display: flex;
    align-items: center;
    gap: 6px;
  }
  .wrap {
    flex-wrap: wrap;
  }
  .fields {
    justify-content: space-between;
    width: 100%;
  }
</style>
