<script lang="ts">
  import { fractionText } from '$lib/core/num/fraction';
  import { isLengthUnit, LENGTH_UNITS } from '$lib/core/num/length';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { madeSize, ownSize } from '$lib/core/recipe/made';
  import { grows, PICTURED_LIMITS } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import type { PictureEditor } from './editor.svelte';
  import { ppiOf } from './pictured-recipes';
  import { fieldsOf, percent } from './fields';

  /** How the units are laid, how large one is, and how finely it is made. */
  let { editor }: { editor: PictureEditor } = $props();

  const recipe = $derived(editor.pictured);
  const steps = $derived(recipe.pictured);
  const { symmetry, size } = $derived(steps);
  const own = $derived(ownSize(steps));
  const made = $derived(madeSize(steps));
  const kind = $derived({ unit: recipe.measure });
  const ppi = $derived(ppiOf(recipe));
  // svelte-ignore state_referenced_locally
  const { fields } = fieldsOf(editor);
  /** What print asks for (common practice, no source). */
  const PRINT_PPI = 300;
  const LAYS = { straight: 'straight', brick: 'in brick', 'half-drop': 'half-drop' } as const;
</script>

<Panel title="Laid">
  <Rows>
    <span>Units</span>
    <Choice
      label="How the units are laid"
      value={recipe.lay.kind}
      options={symmetry.on || grows(steps)
        ? [['straight', LAYS.straight] as const]
        : (Object.entries(LAYS) as [keyof typeof LAYS, string][])}
      onset={(lay) =>
        editor.change((from) => ({
          ...from,
          lay: lay === 'straight' ? { kind: lay } : { kind: lay, step: 0.5 },
        }))}
    />
    {#if recipe.lay.kind !== 'straight'}
      <span>Step</span>
      <NumberField
        label="Step"
        value={recipe.lay.step}
        kind={{ suffix: '' }}
        least={0}
        most={1}
        digits={4}
        show={fractionText}
        {...fields((step, live) =>
          editor.change(
            (from) => (from.lay.kind === 'straight' ? from : { ...from, lay: { ...from.lay, step } }),
            live,
          ),
        )}
      />
    {/if}
  </Rows>
</Panel>

<Panel title="Size">
  <Rows>
    <span>Unit</span>
    <span class="pair">
      <NumberField
        label="Unit width"
        value={recipe.unit.width}
        {kind}
        {...LIMITS.unitSide}
        hideUnit
        {...fields((width, live) => editor.setWidth(width, live))}
      /> ×
      <NumberField
        label="Unit height"
        value={recipe.unit.height}
        {kind}
        {...LIMITS.unitSide}
        {...fields((height, live) => editor.setHeight(height, live))}
      />
    </span>
    <span>Resolution</span>
    <NumberField
      label="Resolution of the repeat"
      value={ppi}
      kind={{ suffix: 'ppi' }}
      digits={0}
      {...LIMITS.ppi}
      {...fields((value, live) => editor.setPpi(value, live))}
    />
    <span>Made of</span>
    {#if size?.on}
      <span class="pair">
        <NumberField
          label="Pixels across"
          value={made.width}
          kind={{ suffix: 'px' }}
          digits={0}
          hideUnit
          {...PICTURED_LIMITS.size}
          {...fields((width, live) =>
            editor.setSize((from) => ({ ...from, width: Math.round(width) }), live),
          )}
        /> ×
        <span class="mono">{made.height} px</span>
      </span>
    {:else}
      <span class="mono">{made.width} × {made.height} px</span>
    {/if}
    <span>Resampled</span>
    <Choice
      label="How it is resampled"
      value={size?.on ? size.filter : 'not'}
      options={[
        ['not', 'not at all'],
        ['lanczos', 'sharp'],
        ['mitchell', 'soft'],
      ]}
      onset={(filter) =>
        editor.setSize((from) =>
          filter === 'not'
            ? { ...from, on: false }
            : { ...from, on: true, filter, width: from.on ? from.width : made.width },
        )}
    />
    <span>Under 300 ppi above</span>
    <span class="mono">{percent(ppi / 300)}</span>
    <span>Under 150 ppi above</span>
    <span class="mono">{percent(ppi / 150)}</span>
    <span>Measured in</span>
    <Choice
      label="Unit of length"
      value={recipe.measure}
      options={LENGTH_UNITS.map((unit) => [unit, unit] as const)}
      onset={(measure) => isLengthUnit(measure) && editor.change((from) => ({ ...from, measure }))}
    />
  </Rows>
  {#if size?.on && Math.abs(ppi - PRINT_PPI) > 0.5}
    <Button
      kind="quiet"
      onclick={() =>
        editor.setSize((from) => ({ ...from, width: Math.round((made.width * PRINT_PPI) / ppi) }))}
      >Make it of {PRINT_PPI} ppi</Button
    >
  {/if}
  {#if size?.on && made.width > own.width}
    <p class="muted note">
      The region has {own.width} × {own.height} px; more of them show no more of it.
    </p>
  {/if}
</Panel>

<style>
  .note {
    margin: 6px 0 0;
    font-size: var(--small);
  }
</style>
