<script lang="ts">
  import type { LayoutSummary } from '$lib/contract/data';
  import { LIMITS } from '$lib/core/recipe/limits';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Tick from '../components/Tick.svelte';
  import LayoutTicks from './LayoutTicks.svelte';
  import PdfTicks, { NO_WISHES, type PdfWishes } from './PdfTicks.svelte';
  import PicturePpi from './PicturePpi.svelte';
  import { fetchFile } from '../state/save-file';

  /** Saves layouts of a project as one PDF, a page to each of those that are ticked. */
  type Props = { project: string; layouts: readonly LayoutSummary[]; press: boolean; onclose: () => void };
  let { project, layouts, press, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  let chosen: readonly string[] = $state.raw(layouts.slice(0, LIMITS.pdfPages).map(({ id }) => id));
  let bleed = $state(true);
  let wishes: PdfWishes = $state.raw(NO_WISHES);
  let ppi = $state(300);
  let writing = $state(false);
  let problem: string | null = $state(null);

  async function save(): Promise<void> {
    writing = true;
    const query = { ...wishes, layouts: chosen.join(','), bleed, ppi };
    problem = await fetchFile('GET /projects/{id}/pdf', { id: project, query });
    writing = false;
    if (problem === null) onclose();
  }
</script>

<Dialog title="Layouts as PDF" width={440} {onclose}>
  <LayoutTicks label="Pages" {layouts} {chosen} onset={(ids) => (chosen = ids)} />
  <PdfTicks {wishes} {press} onset={(next) => (wishes = next)}>
    <Tick label="With the bleed round each page that has one" checked={bleed} onset={(on) => (bleed = on)} />
  </PdfTicks>
  <PicturePpi {ppi} onset={(value) => (ppi = value)} />
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    <Button kind="main" disabled={writing || chosen.length === 0} onclick={save}
      >{writing ? 'Writing …' : chosen.length === 1 ? 'Save one page' : `Save ${chosen.length} pages`}</Button
    >
  {/snippet}
</Dialog>
