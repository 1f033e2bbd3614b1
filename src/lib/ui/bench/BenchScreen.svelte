<script lang="ts">
  import { page } from '$app/state';
  import { onMount } from 'svelte';
  import type { PaletteData, PatternDetail } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import ViewTools from '../components/ViewTools.svelte';
  import { keyIsTaken } from '../state/undo-keys';
  import KeysDialog from '../layout/KeysDialog.svelte';
  import { View } from '../layout/view.svelte';
  import { call } from '../state/api';
  import { closesByBack } from '../state/back';
  import { takeBrought } from '../state/brought';
  import { linksFrom } from '../state/links';
  import { onLive } from '../state/live';
  import { BenchWorker } from '$lib/workers/client';
  import { Checks } from './checks.svelte';
  import ChecksPanel from './ChecksPanel.svelte';
  import ColourPanel from './ColourPanel.svelte';
  import { Board } from './board/board.svelte';
  import BoardTools from './board/BoardTools.svelte';
  import BoardView from './board/BoardView.svelte';
  import CreditPanel from './CreditPanel.svelte';
  import EffectsPanel from './EffectsPanel.svelte';
  import ElementList from './board/ElementList.svelte';
  import ElementPanel from './board/ElementPanel.svelte';
  import { BOARD_KEYS, boardKey } from './board/keys';
  import { Pen } from '../state/pen.svelte';
  import TextDialog from './board/TextDialog.svelte';
  import { bringIn, bringOne } from './bring-in';
  import PdfPages from './PdfPages.svelte';
  import { BenchEditor } from './editor.svelte';
  import { BENCH_KEYS, benchKey } from './keys';
  import MeasuredPanel from './MeasuredPanel.svelte';
  import MotifPanel from './MotifPanel.svelte';
  import PatternFrame from './PatternFrame.svelte';
  import PlacedPanel from './PlacedPanel.svelte';
  import RepeatPanel from './RepeatPanel.svelte';
  import ScatterDialog from './ScatterDialog.svelte';
  import ScreenSize from './ScreenSize.svelte';
  import LineCheck from '../components/LineCheck.svelte';
  import { drawPlace, sayUnitPlace } from '../layout/line-check';
  import { planeOf } from './plane';
  import { BenchShow } from './show.svelte';
  import ShowPanel from './ShowPanel.svelte';
  import SizeStrip from './SizeStrip.svelte';
  import UnitView from './UnitView.svelte';

  /** The view where a pattern is built; `pattern` is null for a new one. */
  type Props = { pattern: PatternDetail | null; palettes: PaletteData[]; measured?: boolean };
  let { pattern, palettes: firstPalettes, measured = false }: Props = $props();

  // svelte-ignore state_referenced_locally
  let palettes = $state.raw(firstPalettes);

  // svelte-ignore state_referenced_locally
  const editor = new BenchEditor(pattern, measured);
  const view = new View();
  const patternId = $props.id();
  let unitView: UnitView | undefined = $state();
  const show = new BenchShow();
  const worker = new BenchWorker();
  const checks = new Checks(worker);
  let scattering = $state(false);
  let measuring = $state(false);
  let showKeys = $state(false);
  /** One asks whether a line of the unit view is real. */
  let asking = $state(false);

  /** The drawing board, while a motif is drawn on; `null` while the unit is shown. */
  let board = $state.raw<Board | null>(null);
  let boardView: BoardView | undefined = $state();
  const drawView = new View();
  const pen = new Pen();
  let textAt: { x: number; y: number } | null = $state.raw(null);
  const drawing = $derived(board?.motif ? board : null);
  $effect(() => (drawing ? closesByBack(leaveBoard) : undefined));
  const motif = $derived(editor.still.motifs.find((held) => held.id === editor.motif) ?? null);

  function openBoard(motif: string): void {
    board = new Board(editor, motif, worker);
    editor.motif = motif;
  }
  function leaveBoard(): void {
    pen.cancel();
    board = null;
  }
  function onkey(event: KeyboardEvent): void {
    if (keyIsTaken(event) || document.querySelector('dialog[open]')) return;
    const done = drawing
      ? boardKey(event, drawing, pen, {
          fit: () => boardView?.fit(),
          help: () => (showKeys = true),
          leave: leaveBoard,
        })
      : benchKey(event, editor, actions);
    if (done) event.preventDefault();
  }
  const actions = {
    fit: () => unitView?.fit(),
    lifeSize: () => unitView?.lifeSize(),
    help: () => (showKeys = true),
    flick: () => (show.published = Boolean(editor.published) && !show.published),
  };
  const changed = $derived(editor.id === null || editor.differs);

  $effect(() => {
    const { recipe } = editor;
    if (editor.history.inGesture || editor.problems.length > 0) return;
    const wait = setTimeout(() => void checks.look(recipe), 250);
    return () => clearTimeout(wait);
  });
  $effect(() => {
    if (!editor.history.inGesture) show.noticePale(editor.recipe);
  });
  $effect(() => {
    if (editor.id !== null) show.named(editor.id);
  });
  $effect(() => () => worker.stop());
  onMount(() => {
    show.recallSurface(editor.id);
    const draws = page.url.searchParams.get('start') === 'drawing';
    if (draws && editor.id === null) openBoard(editor.addEmpty());
    void bringIn(editor, takeBrought());
  });
  onLive(['palette.'], async () => {
    const fresh = await call('GET /palettes');
    if (!fresh.ok) return;
    palettes = fresh.value;
    editor.links = linksFrom(fresh.value, editor.links);
  });
</script>

<svelte:window onkeydown={onkey} />

<PatternFrame
  {editor}
  here="Bench"
  skip={drawing
    ? { label: 'To the drawing tools', to: '[role="toolbar"] button' }
    : { label: 'To the unit', to: '.unit-view' }}
  empty={editor.stillScene.empty}
>
  <div class="columns">
    <aside aria-label="Motifs and pieces">
      {#if editor.recipe.kind === 'measured'}
        <MeasuredPanel
          recipe={editor.recipe}
          settled={editor.history.settled.kind === 'measured' ? editor.history.settled : editor.recipe}
          coverage={checks.coverage?.total ?? null}
          onlive={(recipe) => editor.history.live(recipe)}
          onset={(recipe) => editor.commit(recipe)}
          oncancel={() => editor.history.cancel()}
          onplacings={() => editor.goOnByHand()}
        />
      {:else if drawing}
        <ElementList board={drawing} />
        <ElementPanel board={drawing} />
      {:else}
        <MotifPanel {editor} onscatter={() => (scattering = true)} ondraw={openBoard} />
        <PlacedPanel {editor} />
      {/if}
      <ChecksPanel {editor} {checks} {show} />
      {#if motif && !drawing}
        {#key motif.id}
          <EffectsPanel {editor} {motif} />
          <CreditPanel {editor} {motif} />
        {/key}
      {/if}
    </aside>
    <main>
      <h1 class="visually-hidden">Bench: {editor.name}</h1>
      <div class="unit-box">
        <div inert={drawing !== null}>
          <UnitView bind:this={unitView} {editor} {view} {patternId} {show} />
          {#if asking}
            <LineCheck
              {view}
              draw={(box, side, how) => drawPlace(planeOf(editor, show.background, box), box, side, how)}
              place={(at) => sayUnitPlace(editor.name, editor.stillScene, at, editor.measure)}
              onend={() => (asking = false)}
            />
          {/if}
        </div>
        {#if drawing}
          <BoardView
            bind:this={boardView}
            board={drawing}
            view={drawView}
            {pen}
            {show}
            ontext={(at) => (textAt = at)}
          />
          <BoardTools board={drawing} ontext={(at) => (textAt = at)} />
          <p class="drawing">
            Drawing <strong>{drawing.motif?.name}</strong>
            <Button kind="main" onclick={leaveBoard}>Back to the unit</Button>
          </p>
        {/if}
        <ViewTools
          history={editor.history}
          zoom={(drawing ? drawView : view).zoom}
          fitTitle="Fit (0)"
          onfit={() => (drawing ? boardView?.fit() : unitView?.fit())}
          onkeys={() => (showKeys = true)}
          {...drawing ? {} : { online: () => (asking = !asking) }}
        >
          {#snippet more()}
            {#if !drawing}<button
                type="button"
                title="Ten by ten repeats, flat, to judge the rhythm"
                aria-pressed={show.flat}
                onclick={() => {
                  show.flat = !show.flat;
                  unitView?.fit();
                }}>10 × 10</button
              >
              <button
                type="button"
                title="Look back at the last published revision (V)"
                aria-pressed={show.published}
                disabled={!editor.published || !changed}
                onclick={() => (show.published = !show.published)}>Published</button
              >{/if}
          {/snippet}
        </ViewTools>
      </div>
      <div class="strip-box"><SizeStrip {editor} {patternId} {show} /></div>
    </main>
    <aside class="right" aria-label="Repeat and colours">
      {#if editor.kind === 'composed'}<RepeatPanel {editor} {show} />{/if}
      <ColourPanel {editor} {palettes} />
      <ShowPanel {editor} {show} {palettes} board={drawing} oncalibrate={() => (measuring = true)} />
    </aside>
  </div>
</PatternFrame>

{#if textAt && drawing}<TextDialog board={drawing} at={textAt} onclose={() => (textAt = null)} />{/if}
{#if editor.pdf}
  <PdfPages file={editor.pdf} onpage={(file) => bringOne(editor, file)} onclose={() => (editor.pdf = null)} />
{/if}
{#if scattering}<ScatterDialog {editor} {worker} onclose={() => (scattering = false)} />{/if}
{#if measuring}<ScreenSize {show} onclose={() => (measuring = false)} />{/if}
{#if showKeys}<KeysDialog keys={drawing ? BOARD_KEYS : BENCH_KEYS} onclose={() => (showKeys = false)} />{/if}

<style>
  .columns {
    display: grid;
    grid-template-columns: 236px minmax(0, 1fr) 264px;
    flex: 1;
    min-height: 0;
  }
  aside {
    overflow: auto;
    border-right: 1px solid var(--rule);
    background: var(--card);
  }
  .right {
    border-right: 0;
    border-left: 1px solid var(--rule);
  }
  main {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .unit-box {
    position: relative;
    flex: 1;
    min-height: 0;
  }
  .drawing {
    position: absolute;
    bottom: 12px;
    right: 12px;
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 5px 6px 5px 12px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
  }
  .strip-box {
    flex: none;
    height: min(150px, 22vh);
  }
</style>
