<script lang="ts">
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { isPlaced, type Fill, type PlacedFill } from '$lib/core/recipe/fill';
  import { allFills, leadingFill, shapeCentre, withFill, type Shape } from '$lib/core/recipe/layout';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { moveBy, sizeTo, turnBy, type TransformScope } from '$lib/core/recipe/transform';
  import NumberField from '../components/NumberField.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { sayFill } from './fills';
  import { unitsOver } from './ledger';

  /** What fills a shape and where it lies, each number edited in place. An edit in a selected row changes all selected rows. */
  type Props = { editor: LayoutEditor; shape: Shape };
  let { editor, shape }: Props = $props();

  const kind = $derived({ unit: editor.doc.measure });
  const fill = $derived(fillOf(shape));
  const use = $derived(fill?.kind === 'pattern' ? fill : null);
  const pattern = $derived(use ? editor.lookup(use) : null);
  const count = $derived(allFills(shape).length);
  /** Numbers of the frame act on the shape, and on its pattern too where the handles move both. */
  const frameScope = $derived<TransformScope>(editor.scope === 'both' ? 'both' : 'shape');

  /** A row shows the leading fill of its shape; that of a selected row is the one that is worked on. */
  function fillOf(one: Shape): Fill | null {
    return editor.selected.has(one.id) ? editor.activeOf(one) : leadingFill(one);
  }
  const targets = (): ReadonlySet<string> =>
    editor.selected.has(shape.id) ? editor.selected : new Set([shape.id]);

  /** Handlers of a number: all rows that it changes take the value, live and then as one step, or each its own change. */
  function number(read: (one: Shape) => number | null, write: (one: Shape, value: number) => Shape) {
    const show = (value: number): void =>
      editor.change((one) => write(one, value), { live: true, ids: targets() });
    return {
      onlive: show,
      onset: (value: number) => {
        show(value);
        editor.history.commit();
      },
      oncancel: () => editor.history.cancel(),
      onrelative: (change: (held: number) => number) =>
        editor.change(
          (one) => {
            const held = read(one);
            return held === null ? one : write(one, change(held));
          },
          { ids: targets() },
        ),
    };
  }
  const fillNumber = (read: (one: Fill) => number | null, write: (one: Fill, value: number) => Fill) =>
    number(
      (one) => {
        const held = fillOf(one);
        return held && read(held);
      },
      (one, value) => {
        const held = fillOf(one);
        return held ? withFill(one, held.id, (active) => write(active, value)) : one;
      },
    );
  const placedNumber = (
    read: (one: PlacedFill) => number,
    write: (one: PlacedFill, value: number) => PlacedFill,
  ) =>
    fillNumber(
      (one) => (isPlaced(one) ? read(one) : null),
      (one, value) => (isPlaced(one) ? write(one, value) : one),
    );
</script>

<td class="filled">
  {#if !fill}<span class="muted">nothing</span>{:else}
    {#if fill.kind === 'colour'}<span class="plain" style:background={fill.colour}></span>{/if}{sayFill(
      fill,
      editor,
    )}{#if count > 1}<span class="more" title="{count} fills">+{count - 1}</span>{/if}
  {/if}
</td>
{#if fill && isPlaced(fill)}
  <td>
    <NumberField
      label="Scale of {shape.name}"
      value={fill.scaleX}
      kind={{ suffix: '%' }}
      {...LIMITS.scale}
      {...placedNumber(
        (one) => one.scaleX,
        (one, value) => ({
          ...one,
          scaleX: value,
          scaleY: (value * one.scaleY) / one.scaleX,
        }),
      )}
    />
  </td>
  <td>
    <NumberField
      label="Rotation of {shape.name}’s pattern"
      value={fill.rotation}
      kind={{ suffix: '°' }}
      {...LIMITS.angle}
      {...placedNumber(
        (one) => one.rotation,
        (one, value) => ({ ...one, rotation: wrapDegrees(value) }),
      )}
    />
  </td>
  <td class="pair">
    <NumberField
      label="Offset across of {shape.name}"
      value={fill.offset.x}
      {kind}
      {...LIMITS.place}
      hideUnit
      {...placedNumber(
        (one) => one.offset.x,
        (one, value) => ({ ...one, offset: { ...one.offset, x: value } }),
      )}
    />
    ·
    <NumberField
      label="Offset down of {shape.name}"
      value={fill.offset.y}
      {kind}
      {...LIMITS.place}
      hideUnit
      {...placedNumber(
        (one) => one.offset.y,
        (one, value) => ({ ...one, offset: { ...one.offset, y: value } }),
      )}
    />
  </td>
  <td>
    <NumberField
      label="Opacity of {shape.name}"
      value={fill.opacity}
      kind={{ suffix: '%' }}
      least={0}
      most={1}
      {...fillNumber(
        (one) => one.opacity,
        (one, value) => ({ ...one, opacity: value }),
      )}
    />
  </td>
  <td>
    {#if !use}<span class="muted">–</span>{:else if use.ground.kind === 'colour'}<span
        class="plain"
        style:background={use.ground.colour}
      ></span>{use.ground.colour}{:else}{use.ground.kind}{/if}
  </td>
  <td class="mono">{use && pattern ? unitsOver(shape, use, pattern) : '–'}</td>
{:else if fill}
  <td colspan="3" class="muted">–</td>
  <td>
    <NumberField
      label="Opacity of {shape.name}"
      value={fill.opacity}
      kind={{ suffix: '%' }}
      least={0}
      most={1}
      {...fillNumber(
        (one) => one.opacity,
        (one, value) => ({ ...one, opacity: value }),
      )}
    />
  </td>
  <td colspan="2" class="muted">–</td>
{:else}
  <td colspan="6" class="muted">–</td>
{/if}
<td class="pair">
  <NumberField
    label="Place across of {shape.name}"
    value={shape.x}
    {kind}
    {...LIMITS.place}
    hideUnit
    {...number(
      (one) => one.x,
      (one, value) => moveBy(one, frameScope, { x: value - one.x, y: 0 }),
    )}
  />
  ·
  <NumberField
    label="Place down of {shape.name}"
    value={shape.y}
    {kind}
    {...LIMITS.place}
    hideUnit
    {...number(
      (one) => one.y,
      (one, value) => moveBy(one, frameScope, { x: 0, y: value - one.y }),
    )}
  />
</td>
<td class="pair">
  <NumberField
    label="Width of {shape.name}"
    value={shape.width}
    {kind}
    {...LIMITS.shapeSide}
    hideUnit
    {...number(
      (one) => one.width,
      (one, value) => sizeTo(one, frameScope, { x: one.x, y: one.y, width: value, height: one.height }),
    )}
  />
  ×
  <NumberField
    label="Height of {shape.name}"
    value={shape.height}
    {kind}
    {...LIMITS.shapeSide}
    hideUnit
    {...number(
      (one) => one.height,
      (one, value) => sizeTo(one, frameScope, { x: one.x, y: one.y, width: one.width, height: value }),
    )}
  />
</td>
<td>
  <NumberField
    label="Turn of {shape.name}"
    value={shape.rotation}
    kind={{ suffix: '°' }}
    {...LIMITS.angle}
    {...number(
      (one) => one.rotation,
      (one, value) => turnBy(one, frameScope, value - one.rotation, shapeCentre(one)),
    )}
  />
</td>

<style>
  td {
    height: 30px;
    padding: 0 9px;
    border-bottom: 1px solid var(--rule);
  }
  td :global(.field) {
    font-size: 12px;
  }
  .more {
    margin-left: 6px;
    padding: 0 5px;
    border-radius: 8px;
    background: var(--rule);
    font-size: 11px;
  }
  .plain {
    display: inline-block;
    width: 12px;
    height: 12px;
    margin-right: 6px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
    vertical-align: -1px;
  }
  .pair {
    color: var(--muted);
  }
  .pair :global(input) {
    color: var(--ink);
  }
</style>
