<script lang="ts">
  import type { LastParcel, LayoutSummary, ParcelWish } from '$lib/contract/data';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Tick from '../components/Tick.svelte';
  import Ticks from '../components/Ticks.svelte';
  import PdfTicks, { NO_WISHES } from '../layout/PdfTicks.svelte';
  import LayoutTicks from '../layout/LayoutTicks.svelte';
  import { call } from '../state/api';
  import { ExportRun } from '../state/export-job.svelte';

  /** Hands a project over as one parcel: what goes in is remembered, and what is another since the last one is told. */
  type Props = { project: string; layouts: readonly LayoutSummary[]; press: boolean; onclose: () => void };
  let { project, layouts, press, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  let wish: ParcelWish = $state.raw({
    ...{ layouts: layouts.slice(0, LIMITS.parcelLayouts).map(({ id }) => id), ppi: 300 },
    ...{ pdf: true, png: true, svg: true, bleed: true, marks: false, register: false },
    ...{ patterns: true, palettes: true, spec: true },
  });
  let last: LastParcel | null = $state.raw(null);
  const run = new ExportRun();

  function make(): Promise<void> {
    const body = { ...wish, exchange: press && wish.exchange === true };
    return run.run(() => call('POST /projects/{id}/parcels', { id: project, body }));
  }

  // svelte-ignore state_referenced_locally
  void call('GET /projects/{id}/parcels', { id: project }).then((found) => {
    if (!found.ok || !found.value) return;
    last = found.value;
    const before = new Set(found.value.wish.layouts);
    // What was chosen last time, and what is new since.
    const fresh = new Set(last.changed.filter(({ how }) => how === 'new').map(({ name }) => name));
    wish = {
      ...wish,
      ...found.value.wish,
      layouts: layouts.filter(({ id, name }) => before.has(id) || fresh.has(name)).map(({ id }) => id),
    };
  });

  const LAYOUT_FILES = [
    { key: 'pdf', label: 'PDF' },
    { key: 'png', label: 'PNG' },
    { key: 'svg', label: 'SVG' },
  ] as const;
  const BESIDE = [
    { key: 'patterns', label: 'The patterns they use: tiles, swatches, style sheets, facts' },
    { key: 'palettes', label: 'Palettes as tokens, CSS, CSV and SVG' },
    { key: 'spec', label: 'A spec sheet, as PDF and as a page' },
  ] as const;
  const empty = $derived(
    !wish.patterns &&
      !wish.palettes &&
      !wish.spec &&
      (wish.layouts.length === 0 || !(wish.pdf || wish.png || wish.svg)),
  );
  const when = (at: number): string =>
    new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });
  const HOW = { changed: 'changed', new: 'new', gone: 'not in it any more' } as const;
  const done = $derived(run.job?.state === 'done' ? run.job : null);
</script>

<Dialog title="Hand the project over" width={520} {onclose}>
  <LayoutTicks
    label="Layouts"
    {layouts}
    chosen={wish.layouts}
    onset={(ids) => (wish = { ...wish, layouts: ids })}
  />
  <div class="row" role="group" aria-label="Layouts as">
    <span>Layouts as</span>
    {#each LAYOUT_FILES as { key, label } (key)}
      <Tick {label} checked={wish[key]} onset={(on) => (wish = { ...wish, [key]: on })} />
    {/each}
    <span class="ppi"
      >at <NumberField
        label="Resolution"
        value={wish.ppi}
        kind={{ suffix: 'ppi' }}
        {...LIMITS.ppi}
        onset={(ppi) => (wish = { ...wish, ppi })}
      /></span
    >
  </div>
  <PdfTicks
    wishes={{ ...NO_WISHES, ...wish }}
    {press}
    disabled={!wish.pdf}
    onset={(wishes) => (wish = { ...wish, ...wishes })}
  >
    <Tick
      label="With the bleed round each page that has one"
      checked={wish.bleed}
      onset={(bleed) => (wish = { ...wish, bleed })}
    />
  </PdfTicks>
  <Ticks>
    {#each BESIDE as { key, label } (key)}
      <Tick {label} checked={wish[key]} onset={(on) => (wish = { ...wish, [key]: on })} />
    {/each}
  </Ticks>
  {#if last}
    <p class="since">
      {#if last.changed.length === 0}
        Nothing has changed since the parcel of {when(last.madeAt)}.
      {:else}
        Since the parcel of {when(last.madeAt)}: {#each last.changed.slice(0, 8) as { name, how }, at (at)}{at >
          0
            ? '; '
            : ''}“{name}” {HOW[how]}{/each}{last.changed.length > 8
          ? `; and ${last.changed.length - 8} more`
          : ''}.
      {/if}
    </p>
  {/if}
  {#if run.working && run.job}
    <p role="status">
      {run.job.ahead ? `Waits: ${run.job.ahead} before it.` : 'Making the parcel …'}
    </p>
    <progress max="1" value={run.job.progress} aria-label="How much of the parcel is made"></progress>
  {:else if done}
    <p role="status">Done: {(done.bytes / 1e6).toFixed(1)} MB.</p>
  {/if}
  {#if run.problem}<p class="problem" role="alert">{run.problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    {#if run.working}
      <Button onclick={() => void run.stop()}>Stop</Button>
    {:else}
      <Button kind="main" disabled={empty} onclick={() => void make()}>Make the parcel</Button>
    {/if}
  {/snippet}
</Dialog>

<style>
  .row {
    display: flex;
    align-items: baseline;
    gap: 16px;
    margin-bottom: 6px;
  }
  .row > span:first-child,
  .ppi {
    color: var(--muted);
  }
  .ppi {
    margin-left: auto;
    white-space: nowrap;
  }
  .since {
    padding: 8px 10px;
    border-radius: var(--radius);
    background: var(--paper);
  }
  progress {
    width: 100%;
    accent-color: var(--kelp);
  }
</style>
