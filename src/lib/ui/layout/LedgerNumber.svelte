<script lang="ts">
  import type { Shape } from '$lib/core/recipe/layout';
  import type { QuantityKind } from '$lib/core/num/quantity';
  import NumberField from '../components/NumberField.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** A number of the ledger: all rows that it changes take the value, live and then as one step, or each its own change. */
  type Props = {
    editor: LayoutEditor;
    label: string;
    kind: QuantityKind;
    range: { least: number; most: number };
    hideUnit?: boolean;
    /** The shape of this row, and which shapes an edit changes. */
    shape: Shape;
    targets: () => ReadonlySet<string>;
    /** The number as a shape has it, `null` where it has none; and the shape with another one. */
    read: (one: Shape) => number | null;
    write: (one: Shape, value: number) => Shape;
  };
  let { editor, label, kind, range, hideUnit = false, shape, targets, read, write }: Props = $props();

  const show = (value: number): void =>
    editor.change((one) => (read(one) === null ? one : write(one, value)), { live: true, ids: targets() });
</script>

<NumberField
  {label}
  value={read(shape) ?? 0}
  {kind}
  {...range}
  {hideUnit}
  onlive={show}
  onset={(value) => {
    show(value);
    editor.history.commit();
  }}
  oncancel={() => editor.history.cancel()}
  onrelative={(change) =>
    editor.change(
      (one) => {
        const held = read(one);
        return held === null ? one : write(one, change(held));
      },
      { ids: targets() },
    )}
/>
