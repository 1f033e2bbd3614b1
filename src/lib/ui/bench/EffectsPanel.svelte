<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Motif, MotifEffects, ReliefEffect, ShadowEffect } from '$lib/core/recipe/recipe';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { BenchEditor } from './editor.svelte';

  /** Relief and shadows of a motif; all its placings show them, with the light from one side however they are turned. */
  type Props = { editor: BenchEditor; motif: Motif };
  let { editor, motif }: Props = $props();

  const recipe = $derived(editor.composed);
  const effects = $derived(motif.effects ?? {});
  const kind = $derived({ unit: recipe.measure });
  const slots = $derived(recipe.slots.map((slot) => [slot.id, slot.name] as const));
  const darkest = $derived(
    [...recipe.slots].sort((one, other) => (one.colour < other.colour ? -1 : 1))[0]?.id ?? '',
  );
  /** Starting sizes that fit the motif. */
  const size = $derived(Math.max(1, Math.min(recipe.unit.width, recipe.unit.height) / 60));

  function write(next: MotifEffects, live = false): void {
    const entries = Object.entries(next).filter(([, value]) => value !== undefined);
    const put = (held: Motif): Motif => {
      const { effects: _old, ...rest } = held;
      return entries.length === 0 ? rest : { ...rest, effects: Object.fromEntries(entries) as MotifEffects };
    };
    editor.setMotif(motif.id, put, live);
  }
  const shadow = (): ShadowEffect => ({ slot: darkest, angle: 45, distance: size, blur: size, opacity: 0.4 });
  const relief = (): ReliefEffect => ({ angle: 225, height: size / 2, softness: size / 2, strength: 0.6 });

  function on(key: keyof MotifEffects, value: boolean): void {
    const { [key]: _old, ...rest } = effects;
    if (!value) write(rest);
    else write({ ...rest, [key]: key === 'relief' ? relief() : shadow() });
  }
  function number<K extends keyof MotifEffects>(
    key: K,
    change: (value: number) => NonNullable<MotifEffects[K]>,
  ) {
    return {
      onlive: (value: number) => write({ ...effects, [key]: change(value) }, true),
      onset: (value: number) => write({ ...effects, [key]: change(value) }),
      oncancel: () => editor.history.cancel(),
    };
  }
  const degrees = { kind: { suffix: '°' }, least: -360, most: 360 } as const;
  const SHADOWS = [
    ['drop', 'Drop shadow'],
    ['inner', 'Inner shadow'],
  ] as const;
</script>

<Panel title="Relief and shadow" folded={!motif.effects}>
  <Tick label="Relief" checked={effects.relief !== undefined} onset={(value) => on('relief', value)} />
  {#if effects.relief}
    {@const held = effects.relief}
    <Rows>
      <span>Light from</span>
      <NumberField
        label="Light from"
        value={held.angle}
        {...degrees}
        {...number('relief', (angle) => ({ ...held, angle }))}
      />
      <span>Height</span>
      <NumberField
        label="Height of the relief"
        value={held.height}
        {kind}
        {...LIMITS.effect}
        {...number('relief', (height) => ({ ...held, height }))}
      />
      <span title="0 is a hard edge">Softness</span>
      <NumberField
        label="Softness of the relief"
        value={held.softness}
        {kind}
        {...LIMITS.effect}
        {...number('relief', (softness) => ({ ...held, softness }))}
      />
      <span>Strength</span>
      <NumberField
        label="Strength of the relief"
        value={held.strength}
        kind={{ suffix: '%' }}
        least={0}
        most={1}
        {...number('relief', (strength) => ({ ...held, strength }))}
      />
    </Rows>
  {/if}
  {#each SHADOWS as [key, label] (key)}
    {@const held = effects[key]}
    <Tick {label} checked={held !== undefined} onset={(value) => on(key, value)} />
    {#if held}
      <Rows>
        <span>Colour</span>
        <Choice
          label="Colour of the {label.toLowerCase()}"
          value={held.slot}
          options={slots}
          onset={(slot) => write({ ...effects, [key]: { ...held, slot } })}
        />
        <span>Falls to</span>
        <NumberField
          label="Direction of the {label.toLowerCase()}"
          value={held.angle}
          {...degrees}
          {...number(key, (angle) => ({ ...held, angle }))}
        />
        <span>Distance</span>
        <NumberField
          label="Distance of the {label.toLowerCase()}"
          value={held.distance}
          {kind}
          {...LIMITS.effect}
          {...number(key, (distance) => ({ ...held, distance }))}
        />
        <span>Softness</span>
        <NumberField
          label="Softness of the {label.toLowerCase()}"
          value={held.blur}
          {kind}
          {...LIMITS.effect}
          {...number(key, (blur) => ({ ...held, blur }))}
        />
        <span>Opacity</span>
        <NumberField
          label="Opacity of the {label.toLowerCase()}"
          value={held.opacity}
          kind={{ suffix: '%' }}
          least={0}
          most={1}
          {...number(key, (opacity) => ({ ...held, opacity }))}
        />
      </Rows>
    {/if}
  {/each}
</Panel>
