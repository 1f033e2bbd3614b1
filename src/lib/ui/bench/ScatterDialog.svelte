<script lang="ts">
  import type { ScatterPlan } from '$lib/core/scene/scatter';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { BenchWorker } from '$lib/workers/client';
  import { Stopped } from '$lib/workers/client';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import { toasts } from '../state/toasts.svelte';
  import type { BenchEditor } from './editor.svelte';
  import MotifIcon from './MotifIcon.svelte';

  /** Puts many placings at random places that keep their distance: a start that is then edited. */
  type Props = { editor: BenchEditor; worker: BenchWorker; onclose: () => void };
  let { editor, worker, onclose }: Props = $props();

  const recipe = $derived(editor.composed);
  // svelte-ignore state_referenced_locally
  let chosen: string[] = $state(
    editor.motif ? [editor.motif] : editor.composed.motifs.map((motif) => motif.id),
  );
  let count = $state(24);
  let seed = $state(1);
  // svelte-ignore state_referenced_locally
  let spacing = $state(Math.min(editor.composed.unit.width, editor.composed.unit.height) / 40);
  let size = $state({ from: 0.8, to: 1.2 });
  let angle = $state({ from: 0, to: 360 });
  let replace = $state(false);
  let busy = $state(false);
  let problem: string | null = $state(null);

  async function run(): Promise<void> {
    problem = null;
    busy = true;
    const placings = replace
      ? recipe.placings.filter(({ motif }) => !chosen.includes(motif))
      : recipe.placings;
    const base = { ...recipe, placings };
    const plan: ScatterPlan = { motifs: chosen, count, seed, spacing, size, angle };
    try {
      const made = await worker.ask('scatter', {
        recipe: $state.snapshot(base) as typeof base,
        plan: $state.snapshot(plan),
      });
      if (made.placings.length === 0) {
        problem = 'No piece found room. Make the pieces smaller, the spacing less, or the unit larger.';
        return;
      }
      if (replace) editor.history.live(base);
      editor.addPlacings(made.placings);
      if (made.missed > 0)
        toasts.show(
          `${made.placings.length} pieces were laid; ${made.missed} found no room at this spacing.`,
          { kind: 'problem' },
        );
      onclose();
    } catch (error) {
      if (!(error instanceof Stopped)) throw error;
      problem = 'The scatter was stopped; nothing was laid.';
    } finally {
      busy = false;
    }
  }
</script>

<Dialog title="Scatter motifs" width={380} {onclose}>
  <p class="muted">
    Random places over the unit and its edges, none nearer to another than the spacing. The same seed lays the
    same places.
  </p>
  <div class="motifs">
    {#each recipe.motifs as motif (motif.id)}
      <label class:on={chosen.includes(motif.id)}>
        <input type="checkbox" value={motif.id} bind:group={chosen} />
        <MotifIcon {motif} colours={editor.colours} ground={editor.ground?.colour ?? null} />
        <span>{motif.name}</span>
      </label>
    {/each}
  </div>
  <Rows>
    <span>Pieces</span>
    <NumberField
      label="Number of pieces"
      value={count}
      kind={{ suffix: '' }}
      least={1}
      most={2000}
      digits={0}
      onset={(value) => (count = Math.round(value))}
    />
    <span>Spacing at least</span>
    <NumberField
      label="Spacing"
      value={spacing}
      kind={{ unit: recipe.measure }}
      {...LIMITS.gap}
      onset={(value) => (spacing = value)}
    />
    <span>Size from · to</span>
    <span class="pair">
      <NumberField
        label="Smallest size"
        value={size.from}
        kind={{ suffix: '%' }}
        least={0.01}
        most={20}
        hideUnit
        onset={(from) => (size = { from, to: Math.max(from, size.to) })}
      /> ·
      <NumberField
        label="Largest size"
        value={size.to}
        kind={{ suffix: '%' }}
        least={0.01}
        most={20}
        onset={(to) => (size = { from: Math.min(to, size.from), to })}
      />
    </span>
    <span>Angle from · to</span>
    <span class="pair">
      <NumberField
        label="Smallest angle"
        value={angle.from}
        kind={{ suffix: '°' }}
        least={-360}
        most={360}
        hideUnit
        onset={(from) => (angle = { from, to: Math.max(from, angle.to) })}
      /> ·
      <NumberField
        label="Largest angle"
        value={angle.to}
        kind={{ suffix: '°' }}
        least={-360}
        most={360}
        onset={(to) => (angle = { from: Math.min(to, angle.from), to })}
      />
    </span>
    <span>Seed</span>
    <NumberField
      label="Seed"
      value={seed}
      kind={{ suffix: '' }}
      least={0}
      most={1e6}
      digits={0}
      onset={(value) => (seed = Math.round(value))}
    />
  </Rows>
  <Tick
    label="Take away the present placings of these motifs"
    checked={replace}
    onset={(value) => (replace = value)}
  />
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    {#if busy}<Button onclick={() => worker.stop()}>Stop</Button>{:else}<Button onclick={onclose}
        >Cancel</Button
      >{/if}
    <Button kind="main" disabled={busy || chosen.length === 0} onclick={run}
      >{busy ? 'Laying …' : `Scatter ${count} pieces`}</Button
    >
  {/snippet}
</Dialog>

<style>
  .motifs {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    max-height: 160px;
    overflow: auto;
  }
  .motifs label {
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 4px 8px 4px 6px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    cursor: pointer;
  }
  .motifs .on {
    border-color: var(--kelp);
    background: var(--kelp-tint);
  }
  input {
    accent-color: var(--kelp);
  }
</style>
