<script lang="ts">
  import type { SheetPage } from '$lib/core/sheet/arrange';
  import { pageSize, type ClientSheet } from '$lib/core/sheet/client-sheet';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';
  import { savePictures } from './paper';
  import type { SheetSources } from './sources';

  /** Saves the pages of a sheet as one PDF, or as PNG pictures. */
  type Props = {
    name: string;
    sheet: ClientSheet;
    pages: readonly SheetPage[];
    sources: SheetSources;
    onclose: () => void;
  };
  let { name, sheet, pages, sources, onclose }: Props = $props();

  const PPI = { least: 36, most: 400 };
  let format: 'pdf' | 'png' = $state('pdf');
  let ppi = $state(200);
  let share: number | null = $state(null);
  let problem: string | null = $state(null);
  const px = $derived.by(() => {
    const { width, height } = pageSize(sheet);
    return `${Math.round((width * ppi) / 25.4)} × ${Math.round((height * ppi) / 25.4)} px`;
  });

  async function start(): Promise<void> {
    [share, problem] = [0, null];
    try {
      // What writes PDF is fetched where it is asked for.
      const save = format === 'png' ? savePictures : (await import('./sheet-pdf')).savePdf;
      await save(name, sheet, pages, sources, ppi, (now) => (share = now));
      onclose();
    } catch {
      problem = 'The pages could not be made; try a lower resolution.';
    } finally {
      share = null;
    }
  }
</script>

<Dialog title="Pages of {name}" width={400} {onclose}>
  <Switch
    label="File format"
    value={format}
    options={[
      { value: 'pdf', label: 'One PDF' },
      { value: 'png', label: 'PNG pictures' },
    ]}
    onset={(value) => (format = value)}
  />
  <p class="row">
    <NumberField
      label="Resolution"
      value={ppi}
      kind={{ suffix: 'ppi' }}
      digits={0}
      {...PPI}
      onset={(value) => (ppi = Math.round(value))}
    />
    {#each [96, 200, 300] as usual (usual)}
      <Button kind="quiet" pressed={ppi === usual} onclick={() => (ppi = usual)}>{usual}</Button>
    {/each}
    {#if format === 'png'}<span class="muted">{px}</span>{/if}
  </p>
  <p class="muted">
    {#if format === 'pdf'}
      {pages.length === 1 ? 'One page' : `${pages.length} pages`}; layouts and words stay drawings, all else
      are pictures of so many ppi.
    {:else}
      {pages.length === 1 ? 'One picture.' : `${pages.length} pictures in a zip.`}
    {/if}
  </p>
  {#if share !== null}<progress value={share} aria-label="How far the pages are"></progress>{/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    <Button kind="main" disabled={share !== null} onclick={() => void start()}>Save</Button>
  {/snippet}
</Dialog>

<style>
  .row {
    display: flex;
    align-items: baseline;
    gap: 8px;
  }
  progress {
    width: 100%;
    accent-color: var(--kelp);
  }
  .problem {
    color: var(--signal);
  }
</style>
