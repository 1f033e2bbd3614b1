<script lang="ts">
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { isPlaced, type Fill, type PlacedFill } from '$lib/core/recipe/fill';
  import { withFill, type Shape } from '$lib/core/recipe/layout';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { LayoutEditor } from './editor.svelte';
  import { unitsOver } from './ledger';
  import LedgerNumber from './LedgerNumber.svelte';

  /** How a fill lies, each number edited in place. */
  type Props = {
    editor: LayoutEditor;
    shape: Shape;
    /** What the row is called in the names of its fields. */
    name: string;
    /** The fill of a shape that the row's numbers belong to. */
    of: (one: Shape) => Fill | null;
    targets: () => ReadonlySet<string>;
  };
  let { editor, shape, name, of, targets }: Props = $props();

  const fill = $derived(of(shape));
  const use = $derived(fill?.kind === 'pattern' ? fill : null);
  const pattern = $derived(use ? editor.lookup(use) : null);
  const length = $derived({ unit: editor.doc.measure });
  const PERCENT = { suffix: '%' } as const;
  const DEGREES = { suffix: '°' } as const;

  const ofFill = <T extends Fill>(
    fits: (fill: Fill) => fill is T,
    read: (one: T) => number,
    write: (one: T, value: number) => T,
  ) => ({
    read: (one: Shape) => {
      const held = of(one);
      return held && fits(held) ? read(held) : null;
    },
    write: (one: Shape, value: number) => {
      const held = of(one);
      return held && fits(held) ? withFill(one, held.id, () => write(held, value)) : one;
    },
  });
  const placed = (read: (one: PlacedFill) => number, write: (one: PlacedFill, value: number) => PlacedFill) =>
    ofFill(isPlaced, read, write);

  const scale = placed(
    (one) => one.scaleX,
    (one, value) => ({ ...one, scaleX: value, scaleY: (value * one.scaleY) / one.scaleX }),
  );
  const turn = placed(
    (one) => one.rotation,
    (one, value) => ({ ...one, rotation: wrapDegrees(value) }),
  );
  const offsets = (['x', 'y'] as const).map((axis) => ({
    way: axis === 'x' ? 'across' : 'down',
    number: placed(
      ({ offset }) => offset[axis],
      (one, value) => ({ ...one, offset: { ...one.offset, [axis]: value } }),
    ),
  }));
  const opacity = ofFill(
    (one): one is Fill => Boolean(one),
    (one) => one.opacity,
    (one, value) => ({ ...one, opacity: value }),
  );
  const row = $derived({ editor, shape, targets });
</script>

{#if fill && isPlaced(fill)}
  <td>
    <LedgerNumber {...row} label="Scale of {name}" kind={PERCENT} range={LIMITS.scale} {...scale} />
  </td>
  <td>
    <LedgerNumber
      {...row}
      label="Rotation of {name}’s pattern"
      kind={DEGREES}
      range={LIMITS.angle}
      {...turn}
    />
  </td>
  <td class="pair">
    {#each offsets as { way, number }, index (way)}
      {index > 0 ? ' · ' : ''}
      <LedgerNumber
        {...row}
        label="Offset {way} of {name}"
        kind={length}
        range={LIMITS.place}
        hideUnit
        {...number}
      />
    {/each}
  </td>
{:else}
  <td colspan="3" class="muted">–</td>
{/if}
{#if fill}
  <td>
    <LedgerNumber
      {...row}
      label="Opacity of {name}"
      kind={PERCENT}
      range={{ least: 0, most: 1 }}
      {...opacity}
    />
  </td>
{:else}
  <td class="muted">–</td>
{/if}
{#if use}
  <td>
    {#if use.ground.kind === 'colour'}<span class="plain" style:background={use.ground.colour}></span>{use
        .ground.colour}{:else}{use.ground.kind}{/if}
  </td>
  <td class="mono">{pattern ? unitsOver(shape, use, pattern) : '–'}</td>
{:else}
  <td class="muted">–</td>
  <td class="muted">–</td>
{/if}
