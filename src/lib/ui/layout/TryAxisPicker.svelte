<script lang="ts">
  import type { PaletteData, PatternSummary } from '$lib/contract/data';
  import type { Colourway } from '$lib/core/colour/colourway';
  import type { Fill } from '$lib/core/recipe/fill';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { TryAxis, TryGround, TryProperty } from '$lib/core/recipe/strike-off';
  import { PatternFinder } from '../library/pattern-finder.svelte';
  import PatternSearch from '../library/PatternSearch.svelte';
  import Choice from '../components/Choice.svelte';
  import Tick from '../components/Tick.svelte';
  import { freshAxis, isNumbers, readNumbers, triesOf, TRY_NAMES, typedNumbers } from './tries';

  /** What is tried along one side of a sheet, and with which values. */
  type Props = {
    label: string;
    axis: TryAxis | null;
    fill: Fill;
    ways: readonly Colourway[];
    patterns: PatternSummary[];
    palettes: PaletteData[];
    optional?: boolean;
    taken: TryProperty | null;
    onset: (axis: TryAxis | null) => void;
  };
  let { label, axis, fill, ways, patterns, palettes, optional = false, taken, onset }: Props = $props();

  let problem: string | null = $state(null);
  const finder = new PatternFinder(() => patterns, 30);
  /** What is tried already stands in front of what is found. */
  function listed(tried: readonly string[]): PatternSummary[] {
    if (finder.isAnswer) return [...finder.shown];
    const held = patterns.filter(({ id }) => tried.includes(id));
    return [...held, ...patterns.filter((one) => !held.includes(one))];
  }
  const properties = $derived(triesOf(fill, ways.length).filter((one) => one !== taken));
  const options = $derived([
    ...(optional ? [['none', 'nothing more'] as const] : []),
    ...properties.map((one) => [one, TRY_NAMES[one]] as const),
  ]);
  const grounds = $derived<TryGround[]>([
    'own',
    'none',
    ...new Set(palettes.flatMap((palette) => palette.colours.map(({ hex }) => hex))),
  ]);
  const wayIds = $derived([null, ...ways.map(({ id }) => id)]);

  function take(text: string): void {
    if (!axis || !isNumbers(axis)) return;
    const read = readNumbers(axis.property, text);
    problem = read.ok ? null : read.message;
    if (read.ok) onset(read.axis);
  }
  function toggled<T>(values: readonly T[], value: T, all: readonly T[]): T[] {
    const next = values.includes(value) ? values.filter((one) => one !== value) : [...values, value];
    return all.filter((one) => next.includes(one)).slice(0, LIMITS.tries);
  }
</script>

<div class="axis" role="group" aria-label={label}>
  <span class="head"
    >{label}
    <Choice
      {label}
      value={axis?.property ?? 'none'}
      {options}
      onset={(property) => {
        problem = null;
        onset(
          property === 'none'
            ? null
            : freshAxis(
                property,
                fill,
                ways.map(({ id }) => id),
              ),
        );
      }}
    /></span
  >
  {#if axis && isNumbers(axis)}
    <input
      type="text"
      aria-label="Values of {TRY_NAMES[axis.property].toLowerCase()}"
      value={typedNumbers(axis)}
      aria-invalid={problem !== null}
      onkeydown={(event) => {
        // Values that were typed are tried first; nothing else is done by that.
        if (event.key !== 'Enter' || event.currentTarget.value === typedNumbers(axis)) return;
        event.preventDefault();
        take(event.currentTarget.value);
      }}
      onchange={(event) => take(event.currentTarget.value)}
    />
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {:else if axis?.property === 'colourway'}
    <div class="ticks">
      {#each wayIds as id (id)}
        <Tick
          label={id === null ? 'own colours' : (ways.find((way) => way.id === id)?.name ?? '')}
          checked={axis.values.includes(id)}
          onset={() => {
            const values = toggled(axis.values, id, wayIds);
            if (values.length > 0) onset({ ...axis, values });
          }}
        />
      {/each}
    </div>
  {:else if axis?.property === 'pattern'}
    <PatternSearch {finder} label="Find a pattern to try" />
    <div class="ticks">
      {#each listed(axis.values) as pattern (pattern.id)}
        <Tick
          label={pattern.name}
          checked={axis.values.includes(pattern.id)}
          onset={() => {
            const values = toggled(axis.values, pattern.id, [...new Set([...axis.values, pattern.id])]);
            if (values.length > 0) onset({ ...axis, values });
          }}
        />
      {:else}
        <span class="muted">{finder.problem ?? `Nothing is called “${finder.text.trim()}”.`}</span>
      {/each}
    </div>
  {:else if axis?.property === 'ground'}
    <div class="ticks">
      {#each grounds as ground (ground)}
        <Tick
          label={ground === 'own' ? 'own ground' : ground === 'none' ? 'no ground' : ground}
          checked={axis.values.includes(ground)}
          onset={() => {
            const values = toggled(axis.values, ground, grounds);
            if (values.length > 0) onset({ ...axis, values });
          }}
        />
      {/each}
    </div>
  {/if}
</div>

<style>
  .axis {
    display: grid;
    align-content: start;
    gap: 6px;
    min-width: 0;
  }
  .head {
    display: flex;
    align-items: center;
    gap: 8px;
    color: var(--muted);
  }
  input {
    width: 100%;
    padding: 4px 8px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    font: 500 13px var(--mono);
  }
  .ticks {
    display: flex;
    flex-wrap: wrap;
    gap: 3px 14px;
    max-height: 78px;
    overflow: auto;
  }
</style>
