<script lang="ts">
  import { TRACE_LIMITS, type TraceBy, type Traced } from '$lib/contract/data';
  import { resolveSlots } from '$lib/core/colour/slots';
  import type { Motif, PicturePaint } from '$lib/core/recipe/recipe';
  import { drawingOf, transformElement } from '$lib/core/scene/drawing';
  import { compileElement } from '$lib/core/scene/motif';
  import { pictureAddress } from '$lib/core/svg/paint';
  import { elementMarkup } from '$lib/core/svg/pieces';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import { call } from '../state/api';
  import type { BenchEditor } from './editor.svelte';

  /** Makes paths of a picture: seen beside it before it takes its place, colours as slots. */
  type Props = { editor: BenchEditor; motif: Motif; picture: PicturePaint; onclose: () => void };
  let { editor, motif, picture, onclose }: Props = $props();

  let by: TraceBy = $state({ colours: 3, speck: 12, corner: 60, paper: true });
  let traced: Traced | null = $state.raw(null);
  let problem: string | null = $state(null);
  let asked = $state(0);
  let answered = $state(0);
  /** How much of the width shows the picture, 0 to 1. */
  let shown = $state(0.5);

  $effect(() => {
    const wanted = $state.snapshot(by);
    const wait = setTimeout(() => void trace(wanted), 200);
    return () => clearTimeout(wait);
  });
  async function trace(wanted: TraceBy): Promise<void> {
    asked += 1;
    const own = asked;
    const made = await call('POST /motifs/{hash}/tracings', { hash: picture.asset, body: wanted });
    // A later one may have come back before.
    if (own < answered) return;
    answered = own;
    problem = made.ok ? null : made.failure.message;
    if (made.ok) traced = made.value;
  }
  const markup = $derived.by(() => {
    if (!traced) return '';
    const colours = resolveSlots(traced.slots, {});
    return traced.elements
      .flatMap((one) => compileElement(one) ?? [])
      .map((one) => elementMarkup(one, colours))
      .join('');
  });
  const points = $derived.by(() =>
    (traced?.elements ?? []).reduce((sum, { d }) => sum + (d.match(/[a-z]/gi)?.length ?? 0), 0),
  );
  const WIDE = 520;
  const HIGH = 380;
  const fit = $derived(Math.min(WIDE / picture.width, HIGH / picture.height));
  const size = $derived({ width: picture.width * fit, height: picture.height * fit });

  function take(): void {
    if (!traced) return;
    const elements = traced.elements.map((one) => transformElement(one, picture.matrix));
    const asset = motif.content.kind === 'drawing' ? motif.content.asset : null;
    editor.replaceContent(motif.id, drawingOf(elements, asset), traced.slots);
    onclose();
  }
</script>

<Dialog title="Trace {motif.name}" width={580} {onclose}>
  <div class="compare" style:width="{size.width}px" style:height="{size.height}px">
    <img
      src={pictureAddress({ asset: picture.asset, look: null })}
      alt="As it was brought in"
      style:width="{size.width}px"
    />
    <svg
      viewBox="0 0 {picture.width} {picture.height}"
      {...size}
      role="img"
      aria-label="What was traced"
      style:clip-path="inset(0 0 0 {shown * 100}%)"
    >
      <rect width="100%" height="100%" fill="#fff" />
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
      {@html markup}
    </svg>
    <i style:left="{shown * 100}%" aria-hidden="true"></i>
  </div>
  <label class="wipe">
    <span>Picture</span>
    <input
      type="range"
      min="0"
      max="1"
      step="0.01"
      bind:value={shown}
      aria-label="How much of the picture is shown"
    />
    <span>Traced</span>
  </label>
  <p class="figure" role="status" data-differs={traced?.differs}>
    {#if problem}<span class="problem">{problem}</span>
    {:else if !traced || answered < asked}Tracing …
    {:else}<strong>{(traced.differs * 100).toFixed(1)} %</strong> of pixels differ · {traced.elements.length}
      {traced.elements.length === 1 ? 'piece' : 'pieces'}, {points} points{/if}
  </p>
  <Rows>
    <span>Colours</span>
    <NumberField
      label="Colours of the tracing"
      value={by.colours}
      kind={{ suffix: '' }}
      digits={0}
      {...TRACE_LIMITS.colours}
      onset={(colours) => (by.colours = Math.round(colours))}
    />
    <span>Specks under</span>
    <NumberField
      label="The size under which a speck goes"
      value={by.speck}
      kind={{ suffix: 'px' }}
      digits={0}
      {...TRACE_LIMITS.speck}
      onset={(speck) => (by.speck = speck)}
    />
    <span>Corners from</span>
    <NumberField
      label="The turn from which a bend is a corner"
      value={by.corner}
      kind={{ suffix: '°' }}
      digits={0}
      {...TRACE_LIMITS.corner}
      onset={(corner) => (by.corner = corner)}
    />
    <span>Lightest colour</span>
    <Tick label="is paper, left out" checked={by.paper} onset={(paper) => (by.paper = paper)} />
  </Rows>
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" disabled={!traced || problem !== null || answered < asked} onclick={take}
      >Take it in place of the picture</Button
    >
  {/snippet}
</Dialog>

<style>
  .compare {
    position: relative;
    margin: 0 auto;
    overflow: hidden;
    border-radius: 6px;
    background: #fff;
  }
  .compare img,
  .compare svg {
    position: absolute;
    inset: 0;
  }
  i {
    position: absolute;
    top: 0;
    bottom: 0;
    width: 2px;
    background: var(--signal);
  }
  .wipe {
    display: grid;
    grid-template-columns: auto 1fr auto;
    gap: 10px;
    margin: 10px 0 4px;
    color: var(--muted);
    font-size: var(--small);
  }
  .wipe input {
    accent-color: var(--kelp);
  }
  .figure {
    margin: 0 0 10px;
  }
  .problem {
    color: var(--amber);
    font-weight: 600;
  }
</style>
