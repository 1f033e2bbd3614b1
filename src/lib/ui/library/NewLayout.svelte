<script lang="ts">
  import { untrack } from 'svelte';
  import { goto } from '$app/navigation';
  import {
    LENGTH_UNITS,
    devicePixels,
    toPx,
    fromPx,
    isLengthUnit,
    type LengthUnit,
  } from '$lib/core/num/length';
  import { cutSheet, freshNumbers, OBJECT_KINDS, OBJECTS, type ObjectKind } from '$lib/core/mockup/objects';
  import type { ObjectNumbers } from '$lib/core/mockup/object-entry';
  import { freeName } from '$lib/core/recipe/edit';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { PAGE_PRESETS, startingPage } from '$lib/core/recipe/pages';
  import { call } from '../state/api';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { nanoid } from 'nanoid';
  import { shapesOf } from '$lib/core/mockup/cut-shapes';
  import CutSheet from './CutSheet.svelte';

  /** Asks for name, size and resolution of a new layout, from a preset, exact numbers or an object whose cut sheet it is, and opens it. */
  type Props = { projectId: string; unit: LengthUnit; names: string[]; onclose: () => void };
  let { projectId, unit, names, onclose }: Props = $props();

  const first = untrack(() => startingPage(unit));
  let name = $state(untrack(() => freeName('Layout 1', names)));
  let measure: LengthUnit = $state(untrack(() => unit));
  let width = $state(toPx(first.width, first.measure));
  let height = $state(toPx(first.height, first.measure));
  let ppi = $state(first.ppi);
  let problem: string | null = $state(null);
  let busy = $state(false);

  const pixels = $derived(
    `${Math.round(devicePixels(width, ppi))} × ${Math.round(devicePixels(height, ppi))} px when exported at ${ppi} ppi`,
  );
  /** The object whose cut sheet the page is, and its numbers in mm. */
  let object: ObjectKind | null = $state(null);
  let numbers: ObjectNumbers = $state.raw({});
  const cut = $derived.by(() => (object ? cutSheet({ kind: object, numbers }) : null));
  const preset = $derived(
    PAGE_PRESETS.find(
      (preset) =>
        preset.measure === measure &&
        Math.abs(fromPx(width, measure) - preset.width) < 1e-6 &&
        Math.abs(fromPx(height, measure) - preset.height) < 1e-6,
    )?.id ?? '',
  );

  const chosen = $derived.by(() => (object ? OBJECT + object : preset));
  const OBJECT = 'object ';

  function take(id: string): void {
    object = OBJECT_KINDS.find((kind) => id === OBJECT + kind) ?? null;
    if (object) {
      if (measure === 'px') measure = 'mm';
      ppi = 300;
      return setNumbers(freshNumbers(object));
    }
    const preset = PAGE_PRESETS.find((known) => known.id === id);
    if (!preset) return;
    measure = preset.measure;
    width = toPx(preset.width, preset.measure);
    height = toPx(preset.height, preset.measure);
    ppi = preset.ppi;
  }

  function setNumbers(next: ObjectNumbers): void {
    numbers = next;
    const made = object && cutSheet({ kind: object, numbers: next });
    problem = made && !made.ok ? made.message : null;
    if (made?.ok) [width, height] = [toPx(made.sheet.width, 'mm'), toPx(made.sheet.height, 'mm')];
  }

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (name.trim() === '') {
      problem = 'The name of the layout must not be empty.';
      return;
    }
    if (cut && !cut.ok) {
      problem = cut.message;
      return;
    }
    busy = true;
    const made = await call('POST /projects/{id}/layouts', {
      id: projectId,
      body: {
        name: name.trim(),
        width,
        height,
        measure,
        ppi,
        ...(object && cut?.ok
          ? { object: { kind: object, numbers }, shapes: shapesOf(cut.sheet, () => nanoid(12)) }
          : {}),
      },
    });
    busy = false;
    if (!made.ok) problem = made.failure.message;
    else await goto(`/projects/${projectId}/layouts/${made.value.id}`);
  }
</script>

<Dialog title="New layout" width={460} {onclose}>
  <form onsubmit={submit}>
    <Field label="Name" bind:value={name} {problem} autofocus />
    <label class="row" for="preset"
      ><span>Size</span>
      <select id="preset" value={chosen} onchange={(event) => take(event.currentTarget.value)}>
        <option value="" disabled>Own size</option>
        {#each PAGE_PRESETS as preset (preset.id)}
          <option value={preset.id}>{preset.name}, {preset.width} × {preset.height} {preset.measure}</option>
        {/each}
        <optgroup label="Cut for an object">
          {#each OBJECT_KINDS as kind (kind)}<option value={OBJECT + kind}>{OBJECTS[kind].label}</option
            >{/each}
        </optgroup>
      </select>
    </label>
    {#if object}
      {#if cut?.ok}<CutSheet object={{ kind: object, numbers }} />{/if}
      <div class="numbers">
        {#each OBJECTS[object].numbers as { key, label, least, most } (object + key)}
          <span>{label}</span>
          <NumberField
            {label}
            value={toPx(numbers[key] ?? 0, 'mm')}
            kind={{ unit: measure }}
            least={toPx(least, 'mm')}
            most={toPx(most, 'mm')}
            onset={(value) => setNumbers({ ...numbers, [key]: fromPx(value, 'mm') })}
          />
        {/each}
      </div>
    {:else}
      <div class="row">
        <span>Width × height</span>
        <NumberField
          label="Width of the page"
          value={width}
          kind={{ unit: measure }}
          least={LIMITS.pageSide.least}
          most={LIMITS.pageSide.most}
          hideUnit
          onset={(value) => (width = value)}
        />
        ×
        <NumberField
          label="Height of the page"
          value={height}
          kind={{ unit: measure }}
          least={LIMITS.pageSide.least}
          most={LIMITS.pageSide.most}
          hideUnit
          onset={(value) => (height = value)}
        />
        <select
          aria-label="Unit of length"
          value={measure}
          onchange={(event) =>
            isLengthUnit(event.currentTarget.value) && (measure = event.currentTarget.value)}
        >
          {#each LENGTH_UNITS as unit (unit)}<option value={unit}>{unit}</option>{/each}
        </select>
        <Button kind="quiet" onclick={() => ([width, height] = [height, width])}>Turn the page</Button>
      </div>
    {/if}
    <div class="row">
      <span>Resolution</span>
      <NumberField
        label="Resolution"
        value={ppi}
        kind={{ suffix: '' }}
        least={LIMITS.ppi.least}
        most={LIMITS.ppi.most}
        digits={0}
        onset={(value) => (ppi = value)}
      />
      <span class="muted">ppi</span>
    </div>
    <p class="muted">{pixels}</p>
    <div class="actions">
      <Button onclick={onclose}>Cancel</Button>
      <Button kind="main" type="submit" disabled={busy}>Make layout</Button>
    </div>
  </form>
</Dialog>

<style>
  form {
    display: grid;
    gap: 12px;
  }
  .row {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .row > span:first-child {
    width: 110px;
    color: var(--muted);
    font-size: var(--small);
  }
  .numbers {
    display: grid;
    grid-template-columns: 1fr auto 1fr auto;
    gap: 8px 16px;
    align-items: baseline;
    color: var(--muted);
    font-size: var(--small);
  }
  select {
    padding: 5px 8px;
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
    margin-top: 8px;
  }
</style>
