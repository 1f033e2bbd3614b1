<script lang="ts">
  import { devicePixels, effectivePpi } from '$lib/core/num/length';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { call } from '../state/api';
  import { ExportRun } from '../state/export-job.svelte';
  import { fetchFile } from '../state/save-file';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Tick from '../components/Tick.svelte';
  import PdfTicks, { NO_WISHES, type PdfWishes } from './PdfTicks.svelte';
  import PicturePpi from './PicturePpi.svelte';
  import Switch from '../components/Switch.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** Hands the layout over as PDF, as SVG (live patterns or expanded) or as PNG at a resolution, with progress and a way to stop. */
  type Props = { editor: LayoutEditor; press: boolean; onclose: () => void };
  let { editor, press, onclose }: Props = $props();

  let format: 'png' | 'svg' | 'pdf' = $state('png');
  let as: 'page' | 'plates' = $state('page');
  let wishes: PdfWishes = $state.raw(NO_WISHES);
  let picturePpi = $state(300);
  let patterns: 'live' | 'expanded' = $state('live');
  // svelte-ignore state_referenced_locally
  let ppi = $state(editor.doc.ppi);
  let bleed = $state(false);
  const png = new ExportRun();
  let unsaved: string | null = $state(null);
  const job = $derived(png.job);
  const problem = $derived(unsaved ?? png.problem);

  const doc = $derived(editor.doc);
  /** What the file shows, px: the page, with its bleed where that is wanted. */
  const size = $derived.by(() => {
    const around = bleed ? 2 * doc.bleed : 0;
    return { width: doc.width + around, height: doc.height + around };
  });
  const pixels = $derived({
    width: Math.round(devicePixels(size.width, ppi)),
    height: Math.round(devicePixels(size.height, ppi)),
  });
  let writing = $state(false);
  const working = $derived(png.working || writing);
  /** What a file cannot hold of this layout. */
  const kept = $derived.by(() => {
    const { shapes, groups, guides } = editor.doc;
    const has = (kind: string): boolean => shapes.some(({ form }) => form.kind === kind);
    return [
      ...(groups.length > 0 ? ['groups'] : []),
      ...(has('text') ? ['the words of texts (they are outlines)'] : []),
      ...(has('brush') ? ['the strokes of brushes (they are outlines with a mask)'] : []),
      ...(shapes.some(({ mask, fills }) =>
        [mask, ...fills.map((fill) => fill.mask)].some((one) => one?.kind === 'painted'),
      )
        ? ['the strokes of masks (they are grey pictures)']
        : []),
      ...(guides.length > 0 ? ['guides'] : []),
    ];
  });

  async function start(): Promise<void> {
    unsaved = null;
    if (!(await editor.saver.flush())) {
      unsaved = 'The layout is not saved yet, so the file would not show your last changes. Save it first.';
      return;
    }
    const { id } = editor;
    if (format === 'svg')
      return written(fetchFile('GET /layouts/{id}/svg', { id, query: { patterns, bleed } }));
    if (format === 'pdf')
      return written(
        fetchFile('GET /layouts/{id}/pdf', { id, query: { ...wishes, bleed, ppi: picturePpi } }),
      );
    await png.run(() => call('POST /layouts/{id}/exports', { id: editor.id, body: { ppi, bleed, as } }));
  }

  async function written(file: Promise<string | null>): Promise<void> {
    writing = true;
    unsaved = await file;
    writing = false;
  }

  /** A printer needs the bleed, wherever there is any. */
  function choose(value: typeof format): void {
    format = value;
    bleed = value === 'pdf' && doc.bleed > 0;
  }
  const stop = (): Promise<void> => png.stop();
  function close(): void {
    if (working) void stop();
    onclose();
  }
</script>

<Dialog title="Export {doc.name}" width={460} onclose={close}>
  <Switch
    label="File format"
    value={format}
    options={[
      { value: 'png', label: 'PNG picture' },
      { value: 'svg', label: 'SVG drawing' },
      { value: 'pdf', label: 'PDF for print' },
    ]}
    onset={choose}
  />
  {#if doc.bleed > 0}
    <Tick label="With the bleed round the page" checked={bleed} onset={(on) => (bleed = on)} />
  {/if}
  {#if format === 'png'}
    <Switch
      label="What is drawn"
      value={as}
      options={[
        { value: 'page', label: 'The page' },
        { value: 'plates', label: 'Its plates' },
      ]}
      onset={(value) => (as = value)}
    />
    <div class="row">
      <span>Resolution</span>
      <NumberField
        label="Resolution"
        value={ppi}
        kind={{ suffix: '' }}
        {...LIMITS.ppi}
        digits={1}
        onset={(value) => (ppi = value)}
      />
      <span class="muted">ppi</span>
      {#each [72, 96, 150, 300] as usual (usual)}<Button
          kind="quiet"
          pressed={ppi === usual}
          onclick={() => (ppi = usual)}>{usual}</Button
        >{/each}
    </div>
    <div class="row">
      <span>Size</span>
      <NumberField
        label="Width in pixels"
        value={pixels.width}
        kind={{ suffix: '' }}
        least={1}
        most={LIMITS.exportSide}
        digits={0}
        onset={(value) => (ppi = effectivePpi(Math.round(value), size.width))}
      />
      <span class="mono">× {pixels.height} px</span>
    </div>
    <p class="muted">
      {as === 'plates'
        ? 'One grey picture for each ink in a zip, black where it prints; process colours are parted by the press of the project, or come as they are.'
        : doc.background === null
          ? 'The page is clear, so the picture keeps its transparency.'
          : 'Every pattern is drawn anew at this size, without hairlines.'}
    </p>
  {:else if format === 'pdf'}
    <PdfTicks {wishes} {press} onset={(next) => (wishes = next)} />
    <PicturePpi ppi={picturePpi} onset={(value) => (picturePpi = value)} />
    <p class="muted">
      Shapes, texts and patterns stay drawings, sharp at any size; pictures, painted masks and shadows are as
      fine as that. The page has its trim{doc.bleed > 0
        ? bleed
          ? ' and bleed'
          : '; its bleed is left out'
        : ''}. Spot inks stay inks; other colours are sRGB.
    </p>
  {:else}
    <Switch
      label="Patterns"
      value={patterns}
      options={[
        { value: 'live', label: 'Live patterns' },
        { value: 'expanded', label: 'Expanded shapes' },
      ]}
      onset={(value) => (patterns = value)}
    />
    <p class="muted">
      {patterns === 'live'
        ? 'Each fill stays an SVG <pattern> that other programs can change.'
        : 'Every copy of a motif is a shape of its own, clipped by the shape it fills; for programs that draw patterns badly.'}
    </p>
    {#if kept.length > 0}
      <p class="muted">
        All of it looks the same in the file. What SVG has no word for stays in Isle: {kept.join(', ')}.
      </p>
    {/if}
  {/if}
  {#if job && working}
    <div class="row">
      <progress value={job.progress} max="1" aria-label="Drawing"></progress>
      <span class="mono"
        >{job.ahead === null
          ? `${Math.round(job.progress * 100)} %`
          : job.ahead === 0
            ? 'next to be drawn'
            : `waiting, ${job.ahead} before it`}</span
      >
      <Button kind="quiet" onclick={stop}>Stop</Button>
    </div>
  {:else if job?.state === 'done'}
    <p role="status">Done: {job.width} × {job.height} px, {(job.bytes / 1e6).toFixed(1)} MB.</p>
  {/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={close}>Close</Button>
    <Button kind="main" disabled={working} onclick={start}>Export {format.toUpperCase()}</Button>
  {/snippet}
</Dialog>

<style>
  .row {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .row > span:first-child:not(.mono) {
    width: 80px;
    color: var(--muted);
    font-size: var(--small);
  }
  progress {
    flex: 1;
    height: 8px;
    accent-color: var(--kelp);
  }
</style>
