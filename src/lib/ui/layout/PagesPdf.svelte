<script lang="ts">
  import type { LayoutSummary } from '$lib/contract/data';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Tick from '../components/Tick.svelte';
  import PicturePpi from './PicturePpi.svelte';
  import { saySize } from '../library/say';
  import { fetchFile } from '../state/save-file';

  /** Saves layouts of a project as one PDF, a page to each of those that are ticked. */
  type Props = { project: string; layouts: readonly LayoutSummary[]; onclose: () => void };
  let { project, layouts, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  let chosen: readonly string[] = $state.raw(layouts.slice(0, LIMITS.pdfPages).map(({ id }) => id));
  let bleed = $state(true);
  let marks = $state(false);
  let ppi = $state(300);
  let writing = $state(false);
  let problem: string | null = $state(null);

  function tick(id: string, on: boolean): void {
    const wanted = new Set(on ? [...chosen, id] : chosen.filter((one) => one !== id));
    chosen = layouts.map((one) => one.id).filter((one) => wanted.has(one));
  }
  async function save(): Promise<void> {
    writing = true;
    problem = await fetchFile(
      `/projects/${project}/pdf?layouts=${chosen.join(',')}&bleed=${bleed}&marks=${marks}&ppi=${ppi}`,
    );
    writing = false;
    if (problem === null) onclose();
  }
</script>

<Dialog title="Layouts as PDF" width={440} {onclose}>
  <div class="list" role="group" aria-label="Pages">
    {#each layouts as layout (layout.id)}
      <div class="one">
        <Tick label={layout.name} checked={chosen.includes(layout.id)} onset={(on) => tick(layout.id, on)} />
        <span class="mono">{saySize(layout, layout.measure)}</span>
      </div>
    {/each}
  </div>
  <Tick label="With the bleed round each page that has one" checked={bleed} onset={(on) => (bleed = on)} />
  <Tick label="Crop marks at the corners" checked={marks} onset={(on) => (marks = on)} />
  <PicturePpi {ppi} onset={(value) => (ppi = value)} />
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    <Button kind="main" disabled={writing || chosen.length === 0} onclick={save}
      >{writing ? 'Writing …' : chosen.length === 1 ? 'Save one page' : `Save ${chosen.length} pages`}</Button
    >
  {/snippet}
</Dialog>

<style>
  .list {
    max-height: 280px;
    margin-bottom: 10px;
    overflow: auto;
  }
  .one {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 12px;
    padding: 2px 0;
  }
  .one > :global(label) {
    min-width: 0;
  }
  .mono {
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
</style>
