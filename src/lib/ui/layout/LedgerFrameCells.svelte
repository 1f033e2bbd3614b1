<script lang="ts">
  import { shapeCentre, type Shape } from '$lib/core/recipe/layout';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { moveBy, sizeTo, turnBy, type TransformScope } from '$lib/core/recipe/transform';
  import type { LayoutEditor } from './editor.svelte';
  import LedgerNumber from './LedgerNumber.svelte';

  /** Where a shape lies, each number edited in place. */
  type Props = { editor: LayoutEditor; shape: Shape; targets: () => ReadonlySet<string> };
  let { editor, shape, targets }: Props = $props();

  const length = $derived({ unit: editor.doc.measure });
  /** Numbers of the frame act on the shape, and on its pattern too where the handles move both. */
  const scope = $derived<TransformScope>(editor.scope === 'both' ? 'both' : 'shape');
  const row = $derived({ editor, shape, targets });

  const pairs = $derived([
    {
      between: '·',
      range: LIMITS.place,
      numbers: [
        {
          label: 'Place across of',
          read: (one: Shape) => one.x,
          write: (one: Shape, x: number) => moveBy(one, scope, { x: x - one.x, y: 0 }),
        },
        {
          label: 'Place down of',
          read: (one: Shape) => one.y,
          write: (one: Shape, y: number) => moveBy(one, scope, { x: 0, y: y - one.y }),
        },
      ],
    },
    {
      between: '×',
      range: LIMITS.shapeSide,
      numbers: [
        {
          label: 'Width of',
          read: (one: Shape) => one.width,
          write: (one: Shape, width: number) =>
            sizeTo(one, scope, { x: one.x, y: one.y, width, height: one.height }),
        },
        {
          label: 'Height of',
          read: (one: Shape) => one.height,
          write: (one: Shape, height: number) =>
            sizeTo(one, scope, { x: one.x, y: one.y, width: one.width, height }),
        },
      ],
    },
  ]);
</script>

{#each pairs as { between, range, numbers } (between)}
  <td class="pair">
    {#each numbers as { label, read, write }, index (label)}
      {index > 0 ? ` ${between} ` : ''}
      <LedgerNumber {...row} label="{label} {shape.name}" kind={length} {range} hideUnit {read} {write} />
    {/each}
  </td>
{/each}
<td>
  <LedgerNumber
    {...row}
    label="Turn of {shape.name}"
    kind={{ suffix: '°' }}
    range={LIMITS.angle}
    read={(one) => one.rotation}
    write={(one, value) => turnBy(one, scope, value - one.rotation, shapeCentre(one))}
  />
</td>
