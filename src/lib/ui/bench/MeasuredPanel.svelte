<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import X from '@lucide/svelte/icons/x';
  import { fractionText } from '$lib/core/num/fraction';
  import { LENGTH_UNITS, isLengthUnit } from '$lib/core/num/length';
  import type { QuantityKind } from '$lib/core/num/quantity';
  import { LIMITS } from '$lib/core/recipe/limits';
  import {
    MEASURED,
    MEASURED_FORMS,
    type Band,
    type Measured,
    type MeasuredForm,
    type NumberSpec,
  } from '$lib/core/recipe/measured';
  import type { MeasuredRecipe } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import MeasuredIcon from './MeasuredIcon.svelte';
  import { rememberMeasured, startRecipe, withChoice } from './measured-start';

  /** The kind and the numbers of a measured pattern; every change is remembered for the next one. */
  type Props = {
    recipe: MeasuredRecipe;
    settled: MeasuredRecipe;
    /** The share that is inked: `null` while it is counted; left out where nobody counts it. */
    coverage?: number | null;
    onlive: (recipe: MeasuredRecipe) => void;
    onset: (recipe: MeasuredRecipe) => void;
    oncancel: () => void;
    onplacings?: () => void;
  };
  let { recipe, settled, coverage, onlive, onset, oncancel, onplacings }: Props = $props();

  const measured = $derived(recipe.measured);
  const spec = $derived(MEASURED[measured.form]);
  const numbers = $derived(
    spec.numbers.filter(({ when }) => !when || measured.choices[when.key] === when.is),
  );
  const slots = $derived(recipe.slots.map((slot) => [slot.id, slot.name] as const));

  function keep(next: MeasuredRecipe): void {
    rememberMeasured(next);
    onset(next);
  }
  const change = (from: MeasuredRecipe, part: Partial<Measured>): MeasuredRecipe => ({
    ...from,
    measured: { ...from.measured, ...part },
  });
  const withNumber = (key: string, value: number): MeasuredRecipe =>
    change(settled, { numbers: { ...settled.measured.numbers, [key]: value } });
  const withBand = (index: number, band: Partial<Band>, from = settled): MeasuredRecipe =>
    change(from, {
      bands: from.measured.bands.map((held, at) => (at === index ? { ...held, ...band } : held)),
    });
  function kindOf({ kind }: NumberSpec): QuantityKind {
    if (kind === 'length') return { unit: recipe.measure };
    return { suffix: kind === 'angle' ? '°' : kind === 'share' ? '%' : '' };
  }
</script>

<Panel title="Measured">
  <div class="forms" role="radiogroup" aria-label="Kind of measured pattern">
    {#each MEASURED_FORMS as form (form)}
      <button
        type="button"
        role="radio"
        aria-checked={form === measured.form}
        title={MEASURED[form].label}
        aria-label={MEASURED[form].label}
        onclick={() => keep(startRecipe(form as MeasuredForm, recipe))}><MeasuredIcon {form} /></button
      >
    {/each}
  </div>
  <h3>{spec.label}</h3>
  <Rows>
    {#each numbers as number (number.key)}
      <span>{number.label}</span>
      <NumberField
        label={number.label}
        value={measured.numbers[number.key] ?? number.start}
        kind={kindOf(number)}
        least={number.least}
        most={number.most}
        digits={number.kind === 'count' ? 0 : number.kind === 'fraction' ? 4 : 3}
        show={number.kind === 'fraction' ? fractionText : undefined}
        onlive={(value) => onlive(withNumber(number.key, value))}
        onset={(value) => keep(withNumber(number.key, value))}
        {oncancel}
      />
    {/each}
    {#each spec.choices as choice (choice.key)}
      <span>{choice.label}</span>
      <Choice
        label={choice.label}
        value={measured.choices[choice.key] ?? ''}
        options={choice.options}
        onset={(value) => keep(withChoice(recipe, choice.key, value))}
      />
    {/each}
    {#each spec.inks as ink (ink.key)}
      <span>{ink.label} colour</span>
      <Choice
        label="{ink.label} colour"
        value={measured.inks[ink.key] ?? ''}
        options={slots}
        onset={(slot) => keep(change(recipe, { inks: { ...measured.inks, [ink.key]: slot } }))}
      />
    {/each}
    <span>Measured in</span>
    <Choice
      label="Unit of length"
      value={recipe.measure}
      options={LENGTH_UNITS.map((unit) => [unit, unit] as const)}
      onset={(unit) => isLengthUnit(unit) && keep({ ...recipe, measure: unit })}
    />
  </Rows>
  {#if spec.hasBands}
    <ol>
      {#each measured.bands as band, index (index)}
        <li>
          <span class="muted">{index + 1}</span>
          <NumberField
            label="Width of band {index + 1}"
            value={band.width}
            kind={{ unit: recipe.measure }}
            least={0.01}
            most={LIMITS.unitSide.most}
            onlive={(width) => onlive(withBand(index, { width }))}
            onset={(width) => keep(withBand(index, { width }))}
            {oncancel}
          />
          <Choice
            label="Colour of band {index + 1}"
            value={band.slot ?? ''}
            options={[['', 'ground'] as const, ...slots]}
            onset={(slot) => keep(withBand(index, { slot: slot === '' ? null : slot }, recipe))}
          />
          <button
            type="button"
            class="tool"
            aria-label="Remove band {index + 1}"
            title="Remove band {index + 1}"
            disabled={measured.bands.length < 2}
            onclick={() => keep(change(recipe, { bands: measured.bands.filter((_, at) => at !== index) }))}
            ><X size={14} /></button
          >
        </li>
      {/each}
    </ol>
    <Button
      kind="quiet"
      disabled={measured.bands.length >= LIMITS.bands}
      onclick={() => {
        const last = measured.bands.at(-1) ?? { width: 10, slot: null };
        keep(change(recipe, { bands: [...measured.bands, last] }));
      }}><Plus size={14} /> Add a band</Button
    >
  {/if}
  {#if coverage !== undefined}
    <p class="coverage">
      <span class="muted">Coverage</span>
      <span class="mono">{coverage === null ? '…' : `${(coverage * 100).toFixed(2)} %`}</span>
    </p>
  {/if}
  {#if onplacings}
    <Button kind="quiet" onclick={onplacings}>Go on by hand, as motifs</Button>
  {/if}
</Panel>

<style>
  .forms {
    display: grid;
    grid-template-columns: repeat(6, 1fr);
    gap: 3px;
    margin-bottom: 10px;
  }
  .forms button {
    padding: 2px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    background: var(--card);
    color: var(--muted);
    cursor: pointer;
  }
  .forms [aria-checked='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    color: var(--kelp);
  }
  h3 {
    margin-bottom: 6px;
    font-size: 13px;
    font-weight: 650;
  }
  ol {
    margin: 8px 0 2px;
  }
  li {
    display: grid;
    grid-template-columns: 14px 1fr auto auto;
    gap: 6px;
    align-items: baseline;
    padding: 2px 0;
  }
  li :global(select) {
    max-width: 84px;
  }
  .tool {
    display: inline-flex;
    padding: 2px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
  .coverage {
    display: flex;
    justify-content: space-between;
    margin: 10px 0 4px;
    padding-top: 8px;
    border-top: 1px solid var(--rule);
  }
</style>
