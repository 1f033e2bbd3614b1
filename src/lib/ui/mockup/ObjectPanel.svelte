<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy';
  import Trash from '@lucide/svelte/icons/trash-2';
  import type { PaletteData } from '$lib/contract/data';
  import type { LengthUnit } from '$lib/core/num/length';
  import { fromPx, toPx } from '$lib/core/num/length';
  import { MOCKUP_LIMITS, type Standing } from '$lib/core/mockup/mockup';
  import { MATERIAL_NAMES, MATERIALS, type Material } from '$lib/core/mockup/object-entry';
  import { cutSheet, numberOf, OBJECTS } from '$lib/core/mockup/objects';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NameField from '../components/NameField.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import { toasts } from '../state/toasts.svelte';
  import GoesRound from './GoesRound.svelte';
  import ShownOn from './ShownOn.svelte';
  import type { MockupSession } from './session.svelte';

  /** What one object is, what it shows and where it stands. */
  type Props = { session: MockupSession; one: Standing; palettes: PaletteData[]; measure: LengthUnit };
  let { session, one, palettes, measure }: Props = $props();

  const PLACES = [
    { key: 'x', label: 'To the right' },
    { key: 'z', label: 'To the front' },
  ] as const;
  const entry = $derived(OBJECTS[one.object.kind]);
  const change = (next: Partial<Standing>, live = false): void =>
    session.changeOne(one.id, (held) => ({ ...held, ...next }), live);

  /** A number that makes no object is refused with its sentence; the one before stands. */
  function setNumber(key: string, value: number): void {
    const object = { ...one.object, numbers: { ...one.object.numbers, [key]: value } };
    const cut = cutSheet(object);
    if (cut.ok) change({ object });
    else toasts.problem(cut.message);
  }
  const stretch = $derived.by(() => {
    const share = entry.stretches?.share(numberOf(one.object)) ?? 0;
    return entry.stretches && share > 0.001
      ? { ...entry.stretches, percent: (share * 100).toFixed(0) }
      : null;
  });
</script>

<Panel title={one.name}>
  {#snippet aside()}
    <span class="tools">
      <Button
        kind="quiet"
        title="The same object again, beside it"
        label="Double it"
        onclick={() => session.double(one.id)}><Copy size={14} /></Button
      >
      <Button kind="quiet" title="Take it away" label="Take it away" onclick={() => session.remove(one.id)}
        ><Trash size={14} /></Button
      >
    </span>
  {/snippet}
  <Rows>
    <span>Name</span>
    <span class="name">
      <NameField
        label="The name of the object"
        value={one.name}
        onset={(name) => {
          change({ name });
          return null;
        }}
      />
    </span>
    {#each entry.numbers as { key, label, least, most } (one.object.kind + key)}
      <span title={label}>{label}</span>
      <NumberField
        {label}
        value={toPx(one.object.numbers[key] ?? 0, 'mm')}
        kind={{ unit: measure }}
        least={toPx(least, 'mm')}
        most={toPx(most, 'mm')}
        onset={(value) => setNumber(key, fromPx(value, 'mm'))}
      />
    {/each}
    <span>Printed on</span>
    <Choice
      label="What it is printed on"
      value={one.material}
      options={MATERIALS.map((material): [Material, string] => [material, MATERIAL_NAMES[material]])}
      onset={(material) => change({ material })}
    />
    <span>Bare parts</span>
    <span class="pair">
      {one.bare ?? 'as usual'}
      <ColourWell
        label="The colour of what is not printed"
        colour={one.bare ?? '#f4f0e7'}
        {palettes}
        reset={one.bare === null ? null : { label: 'As usual', run: () => change({ bare: null }) }}
        onlive={(bare) => change({ bare }, true)}
        onset={(bare) => change({ bare })}
      />
    </span>
  </Rows>
  {#if stretch}
    <p class="note">{stretch.why}: lengths on it are true within {stretch.percent} %.</p>
  {/if}
</Panel>

<ShownOn {session} {one} />
<GoesRound {session} {one} />

<Panel title="Where it stands">
  <Rows>
    {#each PLACES as { key, label } (key)}
      <span>{label}</span>
      <NumberField
        {label}
        value={toPx(one[key], 'mm')}
        kind={{ unit: measure }}
        digits={1}
        least={toPx(MOCKUP_LIMITS.place.least, 'mm')}
        most={toPx(MOCKUP_LIMITS.place.most, 'mm')}
        onlive={(value) => change({ [key]: fromPx(value, 'mm') }, true)}
        onset={(value) => change({ [key]: fromPx(value, 'mm') })}
        oncancel={() => session.history.cancel()}
      />
    {/each}
    <span>Turned</span>
    <NumberField
      label="The object is turned by"
      value={one.turn}
      kind={{ suffix: '°' }}
      digits={1}
      {...MOCKUP_LIMITS.turn}
      onlive={(turn) => change({ turn }, true)}
      onset={(turn) => change({ turn })}
      oncancel={() => session.history.cancel()}
    />
  </Rows>
</Panel>

<style>
  .name {
    display: grid;
    width: 158px;
    justify-items: end;
  }
  .tools {
    display: inline-flex;
  }
  .note {
    margin-top: 8px;
    color: var(--muted);
    font-size: var(--small);
  }
</style>
