<script lang="ts">
  import ReflectDown from '@lucide/svelte/icons/triangles-centerline-dashed-horizontal';
  import ReflectAcross from '@lucide/svelte/icons/triangles-centerline-dashed-vertical';
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { isPlaced, type PatternFill, type PlacedFill } from '$lib/core/recipe/fill';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Shape } from '$lib/core/recipe/layout';
  import { reflectFill } from '$lib/core/recipe/transform';
  import NumberField from '../components/NumberField.svelte';
  import AnchorPicker from './AnchorPicker.svelte';
  import FillReset from './FillReset.svelte';
  import WholeRepeats from './WholeRepeats.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { gestureOf } from './numbers';

  /** How a pattern or picture lies on its shape, each number edited in place for all that is worked on. */
  type Props = { editor: LayoutEditor; fill: PlacedFill; shape: Shape };
  let { editor, fill, shape }: Props = $props();

  const fills = $derived(
    editor.chosen.flatMap((one) => {
      const active = editor.activeOf(one);
      return active && isPlaced(active) ? [active] : [];
    }),
  );
  const pattern = $derived<PatternFill | null>(fill.kind === 'pattern' ? fill : null);
  const linked = $derived(Math.abs(fill.scaleX - fill.scaleY) < 1e-9);
  let splitScale = $state(false);
  const showSplit = $derived(splitScale || !linked);
  const measure = $derived({ unit: editor.doc.measure });

  const mixed = (read: (one: PlacedFill) => number): boolean =>
    fills.some((one) => Math.abs(read(one) - read(fill)) > 1e-9);
  const number = (write: (one: PlacedFill, value: number) => PlacedFill) =>
    gestureOf(editor, (value) => editor.changePlaced((one) => write(one, value), true));
  const setScale = number((one, value) => ({ ...one, scaleX: value, scaleY: value }));
  const setScaleX = number((one, value) => ({ ...one, scaleX: value }));
  const setScaleY = number((one, value) => ({ ...one, scaleY: value }));
  const setRotation = number((one, value) => ({ ...one, rotation: wrapDegrees(value) }));
  const setSkew = number((one, value) => ({ ...one, skew: value }));
  const setOffsetX = number((one, value) => ({ ...one, offset: { ...one.offset, x: value } }));
  const setOffsetY = number((one, value) => ({ ...one, offset: { ...one.offset, y: value } }));
  const reset = (values: Partial<PlacedFill>) => () =>
    editor.changePlaced((one) => ({ ...one, ...values }) as PlacedFill);
</script>

<div class="cell">
  <FillReset
    name={showSplit ? 'Scale across · down' : 'Scale'}
    plain="100 %"
    changed={fills.some((one) => one.scaleX !== 1 || one.scaleY !== 1)}
    onreset={reset({ scaleX: 1, scaleY: 1 })}
  />
  <div class="values">
    {#if showSplit}
      <NumberField
        label="Scale across"
        value={fill.scaleX}
        kind={{ suffix: '%' }}
        {...LIMITS.scale}
        mixed={mixed((one) => one.scaleX)}
        hideUnit
        {...setScaleX}
      />
      <span class="dot">·</span>
      <NumberField
        label="Scale down"
        value={fill.scaleY}
        kind={{ suffix: '%' }}
        {...LIMITS.scale}
        mixed={mixed((one) => one.scaleY)}
        {...setScaleY}
      />
    {:else}
      <NumberField
        label="Scale"
        value={fill.scaleX}
        kind={{ suffix: '%' }}
        {...LIMITS.scale}
        mixed={mixed((one) => one.scaleX)}
        {...setScale}
      />
    {/if}
    <button
      type="button"
      class="link"
      aria-pressed={!showSplit}
      title={showSplit ? 'Use one scale for both directions' : 'Scale each direction on its own'}
      onclick={() => {
        if (showSplit && !linked) editor.changePlaced((one) => ({ ...one, scaleY: one.scaleX }));
        splitScale = !showSplit;
      }}>{showSplit ? 'join' : 'part'}</button
    >
    {#if pattern}<WholeRepeats {editor} {shape} fill={pattern} />{/if}
  </div>
</div>
<div class="cell">
  <FillReset
    name="Rotation"
    plain="0°"
    changed={fills.some((one) => one.rotation !== 0 || one.reflectX || one.reflectY)}
    onreset={reset({ rotation: 0, reflectX: false, reflectY: false })}
  />
  <div class="values">
    <NumberField
      label="Rotation"
      value={fill.rotation}
      kind={{ suffix: '°' }}
      {...LIMITS.angle}
      mixed={mixed((one) => one.rotation)}
      {...setRotation}
    />
    <button
      type="button"
      class="reflect"
      aria-label="Reflect the pattern across"
      title="Reflect across: left and right exchanged"
      aria-pressed={fill.reflectX}
      onclick={() => editor.changePlaced((one, holder) => reflectFill(holder, one, 'across'))}
      ><ReflectAcross size={14} /></button
    >
    <button
      type="button"
      class="reflect"
      aria-label="Reflect the pattern down"
      title="Reflect down: up and down exchanged"
      aria-pressed={fill.reflectY}
      onclick={() => editor.changePlaced((one, holder) => reflectFill(holder, one, 'down'))}
      ><ReflectDown size={14} /></button
    >
  </div>
</div>
<div class="cell">
  <FillReset
    name="Skew"
    plain="0°"
    changed={fills.some((one) => one.skew !== 0)}
    onreset={reset({ skew: 0 })}
  />
  <NumberField
    label="Skew"
    value={fill.skew}
    kind={{ suffix: '°' }}
    {...LIMITS.skew}
    mixed={mixed((one) => one.skew)}
    {...setSkew}
  />
</div>
<div class="cell">
  <div class="values heading">
    <FillReset
      name="Offset"
      plain="0 · 0"
      changed={fills.some((one) => one.offset.x !== 0 || one.offset.y !== 0)}
      onreset={reset({ offset: { x: 0, y: 0 } })}
    />
    <AnchorPicker {editor} {fill} />
  </div>
  <div class="values">
    <NumberField
      label="Offset across"
      value={fill.offset.x}
      kind={measure}
      {...LIMITS.place}
      mixed={mixed((one) => one.offset.x)}
      hideUnit
      {...setOffsetX}
    />
    <span class="dot">·</span>
    <NumberField
      label="Offset down"
      value={fill.offset.y}
      kind={measure}
      {...LIMITS.place}
      mixed={mixed((one) => one.offset.y)}
      {...setOffsetY}
    />
  </div>
</div>

<style>
  .link {
    margin-left: 4px;
    padding: 0 2px;
    border: 0;
    background: none;
    color: var(--kelp);
    font-size: var(--small);
    cursor: pointer;
  }
  .reflect {
    display: inline-flex;
    align-self: center;
    padding: 4px;
    border: 1px solid transparent;
    border-radius: 4px;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
  .reflect:hover {
    border-color: var(--rule);
  }
  .reflect[aria-pressed='true'] {
    background: var(--signal-tint);
    color: var(--signal);
  }
</style>
