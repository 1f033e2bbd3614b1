<script lang="ts">
  import type { LayoutSummary } from '$lib/contract/data';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Tick from '../components/Tick.svelte';
  import LayoutTicks from './LayoutTicks.svelte';
  import PicturePpi from './PicturePpi.svelte';
  import { fetchFile } from '../state/save-file';

  /** Saves layouts of a project as one PDF, a page to each of those that are ticked. */
  type Props = { project: string; layouts: readonly LayoutSummary[]; onclose: () => void };
  let { project, layouts, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  let chosen: readonly string[] = $state.raw(layouts.slice(0, LIMITS.pdfPages).map(({ id }) => id));
  let bleed = $state(true);
  let marks = $state(false);
  let register = $state(false);
  let ppi = $state(300);
  let writing = $state(false);
  let problem: string | null = $state(null);

  async function save(): Promise<void> {
    writing = true;
    problem = await fetchFile(
      `/projects/${project}/pdf?layouts=${chosen.join(',')}&bleed=${bleed}&marks=${marks}&register=${register}&ppi=${ppi}`,
    );
    writing = false;
    if (problem === null) onclose();
  }
</script>

<Dialog title="Layouts as PDF" width={440} {onclose}>
  <LayoutTicks label="Pages" {layouts} {chosen} onset={(ids) => (chosen = ids)} />
  <Tick label="With the bleed round each page that has one" checked={bleed} onset={(on) => (bleed = on)} />
  <Tick label="Crop marks at the corners" checked={marks} onset={(on) => (marks = on)} />
  <Tick label="Registration marks and a colour bar" checked={register} onset={(on) => (register = on)} />
  <PicturePpi {ppi} onset={(value) => (ppi = value)} />
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    <Button kind="main" disabled={writing || chosen.length === 0} onclick={save}
      >{writing ? 'Writing …' : chosen.length === 1 ? 'Save one page' : `Save ${chosen.length} pages`}</Button
    >
  {/snippet}
</Dialog>
