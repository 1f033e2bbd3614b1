<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { tintOf } from '$lib/core/colour/tint';
  import { roundTo, wrapDegrees } from '$lib/core/num/tolerance';
  import {
    gradientAngle,
    gradientAtAngle,
    gradientOfKind,
    sortedStops,
    type Gradient,
    type GradientStop,
  } from '$lib/core/recipe/gradient';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Shape } from '$lib/core/recipe/layout';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';

  /** A gradient of a fill: its kind, direction and stops. Without `colours` only the opacities count, as in a mask. */
  type Props = {
    gradient: Gradient;
    shape: Shape;
    palettes: PaletteData[];
    colours?: boolean;
    onset: (gradient: Gradient, live: boolean) => void;
    oncancel: () => void;
  };
  let { gradient, shape, palettes, colours = true, onset, oncancel }: Props = $props();

  const css = $derived(
    sortedStops(gradient)
      .map(({ at, colour, opacity }) => {
        const alpha = Math.round(opacity * 255)
          .toString(16)
          .padStart(2, '0');
        return `${colours ? colour : '#14211f'}${alpha} ${at * 100}%`;
      })
      .join(', '),
  );
  const angle = $derived(gradientAngle(gradient, shape.width, shape.height));
  const share = { suffix: '%' as const };

  const put = (index: number, change: Partial<GradientStop>): Gradient => ({
    ...gradient,
    stops: gradient.stops.map((stop, at) => (at === index ? { ...stop, ...change } : stop)),
  });
  function recolour(index: number, colour: string, link?: string): Gradient {
    const stops = gradient.stops.map(({ at, opacity, ...tint }, place) => ({
      ...(place === index ? tintOf(colour, link) : tint),
      at,
      opacity,
    }));
    return { ...gradient, stops };
  }
  const number = (make: (value: number) => Gradient) => ({
    onlive: (value: number) => onset(make(value), true),
    onset: (value: number) => onset(make(value), false),
    oncancel,
  });
  function addStop(): void {
    const stops = sortedStops(gradient);
    const gaps = stops.slice(1).map((stop, index) => stop.at - (stops[index]?.at ?? 0));
    const widest = Math.max(0, gaps.indexOf(Math.max(...gaps)));
    const [before, after] = [stops[widest], stops[widest + 1]];
    if (!before || !after) return;
    const at = roundTo((before.at + after.at) / 2, 4);
    onset(
      { ...gradient, stops: [...stops.slice(0, widest + 1), { ...before, at }, ...stops.slice(widest + 1)] },
      false,
    );
  }
</script>

<div class="gradient">
  <div class="bar" style:--stops="linear-gradient(to right, {css})"></div>
  <div class="row">
    <Switch
      label="Form of the gradient"
      value={gradient.kind}
      options={[
        { value: 'linear', label: 'Straight' },
        { value: 'radial', label: 'Round' },
      ]}
      onset={(kind) => onset(gradientOfKind(gradient, kind), false)}
    />
    {#if gradient.kind === 'linear'}
      <span class="angle"
        >Direction <NumberField
          label="Direction of the gradient"
          value={roundTo(angle, 2)}
          kind={{ suffix: '°' }}
          {...LIMITS.angle}
          {...number((value) => gradientAtAngle(gradient, wrapDegrees(value), shape.width, shape.height))}
        /></span
      >
    {/if}
  </div>
  <div class="ends">
    {#each ['from', 'to'] as const as end (end)}
      <span
        >{end === 'from'
          ? gradient.kind === 'radial'
            ? 'Middle'
            : 'From'
          : gradient.kind === 'radial'
            ? 'Rim'
            : 'To'}
        <NumberField
          label="{end === 'from' ? 'Start' : 'End'} across"
          value={gradient[end].x}
          kind={share}
          least={-100}
          most={100}
          hideUnit
          {...number((x) => ({ ...gradient, [end]: { ...gradient[end], x } }))}
        /> ·
        <NumberField
          label="{end === 'from' ? 'Start' : 'End'} down"
          value={gradient[end].y}
          kind={share}
          least={-100}
          most={100}
          {...number((y) => ({ ...gradient, [end]: { ...gradient[end], y } }))}
        /></span
      >
    {/each}
  </div>
  <ul>
    {#each gradient.stops as stop, index (index)}
      <li>
        {#if colours}
          <ColourWell
            colour={stop.colour}
            link={stop.link}
            label="Stop {index + 1}"
            {palettes}
            size={20}
            onlive={(colour) => onset(recolour(index, colour), true)}
            onset={(colour, link) => onset(recolour(index, colour, link), false)}
          />
        {/if}
        <span
          >at <NumberField
            label="Place of stop {index + 1}"
            value={stop.at}
            kind={share}
            least={0}
            most={1}
            {...number((at) => put(index, { at }))}
          /></span
        >
        <span
          >{colours ? 'opacity' : 'shows'}
          <NumberField
            label="Opacity of stop {index + 1}"
            value={stop.opacity}
            kind={share}
            least={0}
            most={1}
            {...number((opacity) => put(index, { opacity }))}
          /></span
        >
        {#if gradient.stops.length > 2}
          <Button
            kind="quiet"
            label="Take out stop {index + 1}"
            onclick={() =>
              onset({ ...gradient, stops: gradient.stops.filter((_, place) => place !== index) }, false)}
            >Take out</Button
          >
        {/if}
      </li>
    {/each}
  </ul>
  <Button kind="quiet" disabled={gradient.stops.length >= LIMITS.gradientStops} onclick={addStop}
    >Add a stop</Button
  >
</div>

<style>
  .gradient {
    display: grid;
    justify-items: start;
    gap: 8px;
  }
  .bar {
    width: 100%;
    height: 26px;
    border-radius: 4px;
    background:
      var(--stops),
      repeating-conic-gradient(#c8cbc8 0 25%, #fff 0 50%) 0 0 / 12px 12px;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 20%);
  }
  .row,
  .ends,
  li {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  .ends,
  li,
  .angle {
    color: var(--muted);
    font-size: 12.5px;
  }
  ul {
    display: grid;
    gap: 5px;
  }
</style>
