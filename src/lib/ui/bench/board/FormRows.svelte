<script lang="ts">
  import type { LengthUnit } from '$lib/core/num/length';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { ElementSource } from '$lib/core/recipe/recipe';
  import NumberField from '../../components/NumberField.svelte';
  import FontChoice from '../../components/FontChoice.svelte';

  /** The numbers that a form or a text was made from, still open to change. */
  type Props = {
    source: ElementSource;
    measure: LengthUnit;
    onset: (source: ElementSource, live: boolean) => void;
    oncancel: () => void;
  };
  let { source, measure, onset, oncancel }: Props = $props();
  const kind = $derived({ unit: measure });

  function number(write: (value: number) => ElementSource) {
    return {
      onlive: (value: number) => onset(write(value), true),
      onset: (value: number) => onset(write(value), false),
      oncancel,
    };
  }
</script>

{#if source.kind === 'form'}
  {@const { form } = source}
  <span>Width · height</span>
  <span class="pair">
    <NumberField
      label="Width of the element"
      value={source.width}
      {kind}
      {...LIMITS.shapeSide}
      digits={3}
      hideUnit
      {...number((width) => ({ ...source, width }))}
    /> ·
    <NumberField
      label="Height of the element"
      value={source.height}
      {kind}
      {...LIMITS.shapeSide}
      digits={3}
      {...number((height) => ({ ...source, height }))}
    />
  </span>
  {#if form.kind === 'rectangle'}
    <span>Corner radius</span>
    <NumberField
      label="Corner radius"
      value={form.radius}
      {kind}
      least={0}
      most={1e5}
      digits={3}
      {...number((radius) => ({ ...source, form: { kind: 'rectangle', radius } }))}
    />
  {:else if form.kind === 'polygon'}
    <span>Sides</span>
    <NumberField
      label="Sides"
      value={form.sides}
      kind={{ suffix: '' }}
      {...LIMITS.sides}
      digits={0}
      {...number((sides) => ({ ...source, form: { kind: 'polygon', sides: Math.round(sides) } }))}
    />
  {:else if form.kind === 'star'}
    <span>Points · inner radius</span>
    <span class="pair">
      <NumberField
        label="Points of the star"
        value={form.points}
        kind={{ suffix: '' }}
        {...LIMITS.starPoints}
        digits={0}
        {...number((points) => ({ ...source, form: { ...form, points: Math.round(points) } }))}
      /> ·
      <NumberField
        label="Inner radius"
        value={form.inner}
        kind={{ suffix: '%' }}
        {...LIMITS.starInner}
        {...number((inner) => ({ ...source, form: { ...form, inner } }))}
      />
    </span>
  {/if}
{:else}
  <span>Text</span>
  <input
    type="text"
    aria-label="Text"
    maxlength="200"
    value={source.text}
    onchange={(event) =>
      event.currentTarget.value && onset({ ...source, text: event.currentTarget.value }, false)}
  />
  <span>Font</span>
  <FontChoice value={source.font} onset={(font) => onset({ ...source, font }, false)} />
  <span>Size</span>
  <NumberField
    label="Size of the text"
    value={source.size}
    {kind}
    least={0.1}
    most={1e5}
    onset={(size) => onset({ ...source, size }, false)}
  />
{/if}
<span>Rotation</span>
<NumberField
  label="Rotation of the element"
  value={source.rotation}
  kind={{ suffix: '°' }}
  {...LIMITS.angle}
  onset={(rotation) => onset({ ...source, rotation }, false)}
/>

<style>
  input {
    width: 110px;
    padding: 1px 5px;
    border: 1px solid var(--rule);
    border-radius: 4px;
  }
</style>
