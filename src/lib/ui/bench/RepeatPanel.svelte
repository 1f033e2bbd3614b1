<script lang="ts" module>
  import { toPx, type LengthUnit } from '$lib/core/num/length';

  const kindPx = (unit: LengthUnit): number => toPx(1, unit);
</script>

<script lang="ts">
  import { fractionText } from '$lib/core/num/fraction';
  import { LENGTH_UNITS, isLengthUnit } from '$lib/core/num/length';
  import {
    PLANE_GROUPS,
    groupUnit,
    isPlaneGroup,
    latticeKind,
    shortSymbol,
    type PlaneGroup,
  } from '$lib/core/lattice/groups';
  import { hasMirrors } from '$lib/core/lattice/chamber';
  import type { Front, Repeat } from '$lib/core/lattice/repeat';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { ComposedRecipe } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { REPEAT_ICONS } from './repeat-icons';
  import type { BenchShow } from './show.svelte';

  /** How units are laid: repeat, step, unit size, gaps, what lies in front. */
  type Props = { editor: BenchEditor; show: BenchShow };
  let { editor, show }: Props = $props();

  let margin = $state(0);
  const recipe = $derived(editor.still);
  const kind = $derived({ unit: recipe.measure });
  const repeat = $derived(recipe.repeat);
  const group = $derived(repeat.kind === 'group' ? repeat.group : null);
  const lattice = $derived(group ? latticeKind(group) : null);

  const STEPS = [1 / 2, 1 / 3, 1 / 4, 1 / 5, 2 / 3, 3 / 4];
  const GROUP_OPTIONS = PLANE_GROUPS.map((one): [PlaneGroup, string] => [
    one,
    shortSymbol(one) === one ? one : `${shortSymbol(one)} (${one})`,
  ]);
  const LATTICES: Record<string, string> = {
    oblique: 'any cell',
    rectangular: 'a rectangular cell',
    'centred rectangular': 'a centred rectangular cell',
    square: 'a square cell',
    hexagonal: 'a hexagonal cell',
  };

  function setKind(next: Repeat['kind']): void {
    if (next === repeat.kind) return;
    const shifted = 'step' in repeat ? repeat : { step: 0.5, run: 'progressive' as const };
    if (next === 'group') return setGroup('p4mm');
    const to: Repeat =
      next === 'brick' || next === 'half-drop'
        ? { kind: next, step: shifted.step, run: shifted.run }
        : next === 'mirror'
          ? { kind: next, cut: true }
          : { kind: next };
    editor.commit({ ...recipe, repeat: to });
  }
  function setGroup(next: string): void {
    if (!isPlaneGroup(next)) return;
    const { slant, cut = false } = repeat.kind === 'group' ? repeat : { slant: 0, cut: true };
    const unit = latticeKind(next) === 'square' ? { ...recipe.unit, height: recipe.unit.width } : recipe.unit;
    editor.commit({ ...recipe, unit, repeat: { kind: 'group', group: next, slant, cut } });
  }
  /** Handlers of a number of the recipe: shown live, then one step. */
  function set(write: (from: ComposedRecipe, value: number) => ComposedRecipe) {
    return {
      onlive: (value: number) => editor.history.live(write(editor.settled, value)),
      onset: (value: number) => editor.commit(write(editor.settled, value)),
      oncancel: () => editor.history.cancel(),
    };
  }
  const shifted = (
    from: ComposedRecipe,
    change: { step?: number; run?: 'progressive' | 'alternating' },
  ): ComposedRecipe => ('step' in from.repeat ? { ...from, repeat: { ...from.repeat, ...change } } : from);
  const setFront = (change: Partial<Front>): void =>
    editor.commit({ ...recipe, front: { ...recipe.front, ...change } });
</script>

<Panel title="Repeat">
  <div class="kinds" role="radiogroup" aria-label="Repeat">
    {#each REPEAT_ICONS as option (option.kind)}
      <button
        type="button"
        role="radio"
        aria-checked={repeat.kind === option.kind}
        title={option.title}
        onclick={() => setKind(option.kind)}
      >
        <svg viewBox="0 0 25 20" width="34" height="26" aria-hidden="true">
          {#each option.paths as d (d)}<path {d} />{/each}
        </svg>
        {option.label}
      </button>
    {/each}
  </div>
  <Rows>
    {#if 'step' in repeat}
      <span>Step {repeat.kind === 'brick' ? 'along the row' : 'down the column'}</span>
      <span class="pair">
        <select
          class="steps"
          aria-label="Usual steps"
          value={STEPS.findIndex((step) => Math.abs(step - repeat.step) < 1e-9)}
          onchange={(event) => {
            const step = STEPS[Number(event.currentTarget.value)];
            if (step) editor.commit(shifted(recipe, { step }));
          }}
        >
          <option value={-1} hidden></option>
          {#each STEPS as step, index (step)}<option value={index}>{fractionText(step)}</option>{/each}
        </select>
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
      </span>
      {#if Math.abs(repeat.step - 0.5) > 1e-9}
        <span>Each {repeat.kind === 'brick' ? 'row' : 'column'}</span>
        <Choice
          label="How rows shift"
          value={repeat.run}
          options={[
            ['progressive', 'shifts further'],
            ['alternating', 'back and forth'],
          ]}
          onset={(run) => editor.commit(shifted(recipe, { run }))}
        />
      {/if}
    {/if}
    {#if repeat.kind === 'group' && lattice}
      <span>Plane group</span>
      <Choice label="Plane group" value={repeat.group} options={GROUP_OPTIONS} onset={setGroup} />
    {/if}
    <span>{group ? 'Cell' : 'Unit'} width</span>
    <NumberField
      label="Unit width"
      value={recipe.unit.width}
      {kind}
      {...LIMITS.unitSide}
      {...set((from, width) => ({ ...from, unit: { ...from.unit, width } }))}
    />
    <span>{group ? 'Cell' : 'Unit'} height</span>
    {#if group && (lattice === 'square' || lattice === 'hexagonal')}
      <span class="mono muted" title="This plane group needs {LATTICES[lattice]}"
        >{Number((groupUnit(group, recipe.unit).height / kindPx(recipe.measure)).toFixed(2))}
        {recipe.measure}</span
      >
    {:else}
      <NumberField
        label="Unit height"
        value={recipe.unit.height}
        {kind}
        {...LIMITS.unitSide}
        {...set((from, height) => ({ ...from, unit: { ...from.unit, height } }))}
      />
    {/if}
    {#if repeat.kind === 'group'}
      {#if lattice === 'oblique'}
        <span>Slant</span>
        <NumberField
          label="Slant of the cell"
          value={repeat.slant}
          kind={{ suffix: '%' }}
          least={-2}
          most={2}
          {...set((from, slant) =>
            from.repeat.kind === 'group' ? { ...from, repeat: { ...from.repeat, slant } } : from,
          )}
        />
      {/if}
    {:else}
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
    {/if}
    <span>In front</span>
    <span class="pair">
      <Choice
        label="In front, down"
        value={recipe.front.down}
        options={[
          ['lower', 'lower'],
          ['upper', 'upper'],
        ]}
        onset={(down) => setFront({ down })}
      />
      <Choice
        label="In front, across"
        value={recipe.front.across}
        options={[
          ['right', 'right'],
          ['left', 'left'],
        ]}
        onset={(across) => setFront({ across })}
      />
    </span>
    <span>Measured in</span>
    <Choice
      label="Unit of length"
      value={recipe.measure}
      options={LENGTH_UNITS.map((unit) => [unit, unit] as const)}
      onset={(unit) => isLengthUnit(unit) && editor.commit({ ...recipe, measure: unit })}
    />
  </Rows>
  {#if repeat.kind === 'mirror' || repeat.kind === 'group'}
    {#if hasMirrors(repeat)}
      <div class="cut">
        <Tick
          label="Art ends at the mirror lines"
          checked={repeat.cut ?? false}
          onset={(cut) => editor.commit({ ...recipe, repeat: { ...repeat, cut } })}
        />
      </div>
    {/if}
  {/if}
  {#if repeat.kind === 'group' && lattice}
    <p class="muted note">
      {shortSymbol(repeat.group)} needs {LATTICES[lattice]}. Draw in the outlined part; the rest follows.
    </p>
    <Tick label="Show its symmetry" checked={show.symmetry} onset={(value) => (show.symmetry = value)} />
  {:else}
    <div class="fit">
      <Button kind="quiet" onclick={() => editor.fit(margin)}>Fit the unit to the art</Button>
      <span class="muted"
        >and
        <NumberField
          label="Margin round the art"
          value={margin}
          {kind}
          least={-1000}
          most={LIMITS.gap.most}
          onset={(value) => (margin = value)}
        /></span
      >
    </div>
  {/if}
</Panel>

<style>
  .kinds {
    display: grid;
    grid-template-columns: repeat(5, 1fr);
    gap: 4px;
    margin-bottom: 10px;
  }
  .kinds button {
    display: grid;
    gap: 3px;
    justify-items: center;
    min-width: 0;
    padding: 6px 0 4px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    color: var(--muted);
    font-size: 10.5px;
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
  .steps {
    width: 20px;
    border: 0;
    background: none;
  }
  .cut {
    margin-top: 8px;
  }
  .note {
    margin: 8px 0 4px;
    font-size: var(--small);
  }
  .fit {
    display: flex;
    align-items: baseline;
    gap: 2px;
    margin: 6px 0 -4px -6px;
    white-space: nowrap;
  }
</style>
