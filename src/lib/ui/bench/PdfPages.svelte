<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import { fromPx } from '$lib/core/num/length';
  import type { PdfDrawing } from '$lib/core/formats/pdf-drawing';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';
  import { MOST_PAGE_PIXELS, OpenPdf } from './pdf-in';

  /** Chooses a page of a PDF for a motif: as a drawing where it is nothing but paths, else as a picture. */
  type Props = { file: File; onpage: (file: File) => Promise<void>; onclose: () => void };
  let { file, onpage, onclose }: Props = $props();

  let pdf: OpenPdf | null = $state.raw(null);
  let problem: string | null = $state(null);
  let page = $state(1);
  let size = $state.raw({ width: 0, height: 0 });
  let drawing: PdfDrawing | null = $state.raw(null);
  let as = $state<'drawing' | 'picture'>('drawing');
  let ppi = $state(300);
  let working = $state(false);
  let canvas: HTMLCanvasElement | undefined = $state();

  // svelte-ignore state_referenced_locally
  void OpenPdf.open(file).then((opened) => {
    if (opened.ok) pdf = opened.pdf;
    else problem = opened.message;
  });
  $effect(() => () => pdf?.close());
  $effect(() => {
    const [open, number, on] = [pdf, page, canvas];
    if (!open || !on) return;
    drawing = null;
    let stale = false;
    void (async () => {
      const found = await open.size(number);
      if (stale) return;
      size = found;
      await open.draw(number, on, Math.min(800, Math.max(200, found.width)));
      const read = await open.drawing(number);
      if (stale) return;
      drawing = read;
      as = read.lacks.length === 0 ? 'drawing' : 'picture';
    })().catch(() => !stale && (problem = `Page ${number} cannot be read; choose another one.`));
    return () => (stale = true);
  });

  const pixels = $derived({
    width: Math.round((size.width / 96) * ppi),
    height: Math.round((size.height / 96) * ppi),
  });
  const tooLarge = $derived(as === 'picture' && pixels.width * pixels.height > MOST_PAGE_PIXELS);
  const mm = (px: number): string => String(Number(fromPx(px, 'mm').toFixed(1)));
  const list = (words: readonly string[]): string =>
    words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

  async function take(): Promise<void> {
    if (!pdf || !drawing) return;
    working = true;
    problem = null;
    try {
      const title = pdf.titleOf(page);
      const made =
        as === 'drawing'
          ? new File([drawing.svg], `${title}.svg`, { type: 'image/svg+xml' })
          : await pdf.picture(page, ppi);
      await onpage(made);
      onclose();
    } catch {
      problem = 'The page could not be drawn so large; take fewer ppi.';
    } finally {
      working = false;
    }
  }
</script>

<Dialog title="A page of {file.name}" width={520} {onclose}>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if pdf}
    <div class="row">
      <span>Page</span>
      <NumberField
        label="Page"
        value={page}
        kind={{ suffix: '' }}
        least={1}
        most={pdf.pages}
        digits={0}
        onset={(value) => (page = Math.round(value))}
      />
      <span class="mono">of {pdf.pages}</span>
      <span class="mono size">{mm(size.width)} × {mm(size.height)} mm</span>
    </div>
    <div class="page"><canvas bind:this={canvas} aria-label="Page {page}"></canvas></div>
    {#if drawing}
      <Switch
        label="What the page becomes"
        value={as}
        options={[
          { value: 'drawing', label: 'A drawing' },
          { value: 'picture', label: 'A picture' },
        ]}
        disabled={drawing.lacks.length > 0}
        onset={(value) => (as = value)}
      />
      {#if as === 'picture'}
        <div class="row">
          <span>Resolution</span>
          <NumberField
            label="Resolution of the picture"
            value={ppi}
            kind={{ suffix: '' }}
            {...LIMITS.ppi}
            digits={0}
            onset={(value) => (ppi = value)}
          />
          <span class="muted">ppi</span>
          <span class="mono size">{pixels.width} × {pixels.height} px</span>
        </div>
      {/if}
      <p class="muted" role="status">
        {#if drawing.lacks.length > 0}
          It has {list(drawing.lacks)}, which no drawing of paths holds: it comes in as a picture.
        {:else if as === 'drawing'}
          It is nothing but paths: they come in as a drawing whose colours become those of the pattern.
        {:else}
          A picture keeps its colours; where nothing is drawn it is clear.
        {/if}
      </p>
      {#if tooLarge}
        <p class="problem" role="alert">
          That would be more than {MOST_PAGE_PIXELS / 1e6} million px; take fewer ppi.
        </p>
      {/if}
    {:else}
      <p class="muted" role="status">Reading the page …</p>
    {/if}
  {:else if !problem}
    <p class="muted" role="status">Opening the PDF …</p>
  {/if}
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    <Button kind="main" disabled={!drawing || working || tooLarge} onclick={() => void take()}
      >{working ? 'Bringing it in …' : 'Bring it in'}</Button
    >
  {/snippet}
</Dialog>

<style>
  .row {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .row > span:first-child {
    width: 80px;
    color: var(--muted);
  }
  .size {
    margin-left: auto;
    color: var(--muted);
  }
  .page {
    display: grid;
    place-items: center;
    height: 300px;
    padding: 12px;
    border-radius: var(--radius);
    background: var(--surround);
  }
  canvas {
    max-width: 100%;
    max-height: 276px;
    background: #fff;
  }
</style>
