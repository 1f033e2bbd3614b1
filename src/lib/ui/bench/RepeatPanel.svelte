<script lang="ts">
  import { fractionText } from '$lib/core/num/fraction';
  import { LENGTH_UNITS, isLengthUnit } from '$lib/core/num/length';
  import type { Repeat } from '$lib/core/lattice/repeat';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import type { BenchEditor } from './editor.svelte';

  /** How units are laid: repeat, step, unit size, gaps. */
  type Props = { editor: BenchEditor };
  let { editor }: Props = $props();

  const recipe = $derived(editor.recipe);
  const kind = $derived({ unit: recipe.measure });
  const repeat = $derived(recipe.repeat);

  const KINDS: { kind: Repeat['kind']; label: string; rects: [number, number][] }[] = [
    {
      kind: 'straight',
      label: 'Straight',
      rects: [
        [1, 1],
        [13, 1],
        [1, 11],
        [13, 11],
      ],
    },
    {
      kind: 'brick',
      label: 'Brick',
      rects: [
        [1, 1],
        [13, 1],
        [-5, 11],
        [7, 11],
        [19, 11],
      ],
    },
    {
      kind: 'half-drop',
      label: 'Half-drop',
      rects: [
        [1, 1],
        [1, 11],
        [13, -4],
        [13, 6],
        [13, 16],
      ],
    },
  ];

  function setKind(next: Repeat['kind']): void {
    const step = repeat.kind === 'straight' ? 0.5 : repeat.step;
    const run = repeat.kind === 'straight' ? 'progressive' : repeat.run;
    editor.commit({ ...recipe, repeat: next === 'straight' ? { kind: next } : { kind: next, step, run } });
  }
  /** Handlers of a number of the recipe: shown live, then one step. */
  function set(write: (from: Recipe, value: number) => Recipe) {
    return {
      onlive: (value: number) => editor.history.live(write(editor.history.settled, value)),
      onset: (value: number) => editor.commit(write(editor.history.settled, value)),
      oncancel: () => editor.history.cancel(),
    };
  }
  const shifted = (from: Recipe, change: { step?: number; run?: 'progressive' | 'alternating' }): Recipe =>
    from.repeat.kind === 'straight' ? from : { ...from, repeat: { ...from.repeat, ...change } };
</script>

<section>
  <h2>Repeat</h2>
  <div class="kinds" role="radiogroup" aria-label="Repeat">
    {#each KINDS as option (option.kind)}
      <button
        type="button"
        role="radio"
        aria-checked={repeat.kind === option.kind}
        onclick={() => setKind(option.kind)}
      >
        <svg viewBox="0 0 26 20" width="34" height="26" aria-hidden="true">
          {#each option.rects as [x, y], index (index)}<rect {x} {y} width="11" height="8.5" />{/each}
        </svg>
        {option.label}
      </button>
    {/each}
  </div>
  <div class="rows">
    {#if repeat.kind !== 'straight'}
      <span>{repeat.kind === 'brick' ? 'Step along the row' : 'Step down the column'}</span>
      <NumberField
        label="Step"
        value={repeat.step}
        kind={{ suffix: '' }}
        least={0}
        most={1}
        digits={4}
        show={fractionText}
        {...set((from, step) => shifted(from, { step }))}
      />
      {#if Math.abs(repeat.step - 0.5) > 1e-9}
        <span>Each {repeat.kind === 'brick' ? 'row' : 'column'}</span>
        <select
          aria-label="How rows shift"
          value={repeat.run}
          onchange={(event) =>
            editor.commit(
              shifted(recipe, { run: event.currentTarget.value as 'progressive' | 'alternating' }),
            )}
        >
          <option value="progressive">shifts further</option><option value="alternating"
            >back and forth</option
          >
        </select>
      {/if}
    {/if}
    <span>Unit width</span>
    <NumberField
      label="Unit width"
      value={recipe.unit.width}
      {kind}
      {...LIMITS.unitSide}
      {...set((from, width) => ({ ...from, unit: { ...from.unit, width } }))}
    />
    <span>Unit height</span>
    <NumberField
      label="Unit height"
      value={recipe.unit.height}
      {kind}
      {...LIMITS.unitSide}
      {...set((from, height) => ({ ...from, unit: { ...from.unit, height } }))}
    />
    <span>Gap across · down</span>
    <span class="pair">
      <NumberField
        label="Gap across"
        value={recipe.gap.across}
        {kind}
        {...LIMITS.gap}
        hideUnit
        {...set((from, across) => ({ ...from, gap: { ...from.gap, across } }))}
      /> ·
      <NumberField
        label="Gap down"
        value={recipe.gap.down}
        {kind}
        {...LIMITS.gap}
        {...set((from, down) => ({ ...from, gap: { ...from.gap, down } }))}
      />
    </span>
    <span>Measured in</span>
    <select
      aria-label="Unit of length"
      value={recipe.measure}
      onchange={(event) =>
        isLengthUnit(event.currentTarget.value) &&
        editor.commit({ ...recipe, measure: event.currentTarget.value })}
    >
      {#each LENGTH_UNITS as unit (unit)}<option value={unit}>{unit}</option>{/each}
    </select>
  </div>
  <Button kind="quiet" onclick={() => editor.fit()}>Fit the unit to the art</Button>
</section>

<style>
  section {
    padding: 14px 12px 10px;
    border-bottom: 1px solid var(--rule);
  }
  .kinds {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 6px;
    margin: 8px 0 10px;
  }
  .kinds button {
    display: grid;
    gap: 4px;
    justify-items: center;
    padding: 7px 2px 4px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    color: var(--muted);
    font-size: 12px;
    cursor: pointer;
  }
  svg {
    overflow: hidden;
    fill: var(--rule-strong);
  }
  [aria-checked='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    color: var(--kelp);
    font-weight: 650;
  }
  [aria-checked='true'] svg {
    fill: var(--kelp);
  }
  .rows {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 5px 10px;
    align-items: baseline;
    justify-items: end;
    margin-bottom: 6px;
  }
  .rows > span:nth-child(odd) {
    color: var(--muted);
    justify-self: start;
  }
  .pair {
    color: var(--muted);
    white-space: nowrap;
  }
  .pair :global(input) {
    color: var(--ink);
  }
  select {
    padding: 1px 4px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    background: var(--card);
  }
  section > :global(.button) {
    margin-left: -6px;
  }
</style>
