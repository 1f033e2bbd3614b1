<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import { page } from '$app/state';
  import type { LayoutData, LayoutSummary, PageForUse, PaletteData, PatternForUse } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import StaleLayout from './StaleLayout.svelte';
  import { hearChanges } from './hear';
  import TopBar from '../components/TopBar.svelte';
  import { onMount, untrack } from 'svelte';
  import { saySize } from '../library/say';
  import { provideEyedropper } from '../state/eyedropper.svelte';
  import { keyIsTaken } from '../state/undo-keys';
  import { keepInAddress } from './address.svelte';
  import { LayoutEditor } from './editor.svelte';
  import ExportDialog from './ExportDialog.svelte';
  import CameIn from './CameIn.svelte';
  import FillBar from './FillBar.svelte';
  import HangerPanel from './HangerPanel.svelte';
  import type { Hangers } from './hangers';
  import { layoutKey, LAYOUT_KEYS, nextPart } from './keys';
  import KeysDialog from './KeysDialog.svelte';
  import LayoutStages from './LayoutStages.svelte';
  import Ledger from './Ledger.svelte';
  import RecolourDialog from './RecolourDialog.svelte';
  import PageSettings from './PageSettings.svelte';
  import { View } from './view.svelte';
  import Sizer from '../components/Sizer.svelte';
  import { keepClearOf } from '../state/keep-clear';
  import { Room } from '../state/room.svelte';
  import { selectionBox } from './arrange';
  import { patternFills } from '$lib/core/recipe/layout';
  import { OBJECTS } from '$lib/core/mockup/objects';
  import ObjectView from '../mockup/ObjectView.svelte';
  import { LayoutProof } from '../proof/layout-proof.svelte';
  import ProofPanel from '../proof/ProofPanel.svelte';
  import type { ProofSettings } from '$lib/core/proof/limits';
  import MeasuredQuestion from './MeasuredQuestion.svelte';

  /** The layout view: hangers left, stage, fill bar, ledger. */
  type Props = {
    layout: LayoutData;
    patterns: PatternForUse[];
    pages: PageForUse[];
    /** All layouts of the project. */
    layouts: LayoutSummary[];
    hangers: Hangers;
    palettes: PaletteData[];
    shape: string | null;
    proof: ProofSettings;
    /** The proof is open from the start. */
    proofing: boolean;
  };
  let {
    layout,
    patterns,
    pages,
    layouts,
    hangers,
    palettes: firstPalettes,
    shape,
    proof: limits,
    proofing,
  }: Props = $props();

  const room = new Room('layout', {
    hangers: { usual: 236, least: 180, most: 560 },
    fills: { usual: 147, least: 57, most: 420 },
    ledger: { usual: 190, least: 64, most: 700 },
  });
  const view = new View();
  let fillsHeight = $state(0);
  let ledgerWidth = $state(0);
  /** While their edge is dragged the hangers are hung anew when the hand pauses, ms. */
  const PAUSES = 100;
  let hung = $state(room.size('hangers'));
  $effect(() => {
    const size = room.size('hangers');
    if (room.pulled !== 'hangers') return void (hung = size);
    const pause = setTimeout(() => (hung = size), PAUSES);
    return () => clearTimeout(pause);
  });
  /** The ledger keeps its columns while an edge is dragged. */
  const ledgerStill = $derived(room.pulled ? untrack(() => ledgerWidth) : null);
  let width = $state(0);
  /** Below it the stage's bars and the fill bar have no room beside each other, CSS px. */
  const NARROW = 960;
  const narrow = $derived(width > 0 && width < NARROW);
  let stages: LayoutStages | undefined = $state();
  keepClearOf(() => {
    const box = selectionBox(editor);
    const at = stages?.box();
    if (!box || !at) return null;
    const from = view.toScreen(box);
    const to = view.toScreen({ x: box.x + box.width, y: box.y + box.height });
    return { left: at.left + from.x, top: at.top + from.y, right: at.left + to.x, bottom: at.top + to.y };
  });

  // svelte-ignore state_referenced_locally
  const editor = new LayoutEditor(layout, patterns, pages);
  // svelte-ignore state_referenced_locally
  if (shape !== null) editor.select(shape.split(','));
  // svelte-ignore state_referenced_locally
  const proof = new LayoutProof(editor, layout.object ?? null, limits);
  // svelte-ignore state_referenced_locally
  proof.open = proofing;
  proof.follow();
  // svelte-ignore state_referenced_locally
  let palettes = $state.raw(firstPalettes);
  const eyedropper = provideEyedropper();
  let recolouring = $state(false);
  let peek: 'before' | 'plain' | null = $state(null);
  let exporting = $state(false);
  let showKeys = $state(false);
  let onObject = $state(false);
  const actions = {
    fit: () => stages?.fit(),
    lifeSize: () => stages?.lifeSize(),
    open: () => stages?.open(),
    peek: (what: 'before' | 'plain') => (peek = what),
    help: () => (showKeys = true),
    fold: (part: 'hangers' | 'fills' | 'ledger' | 'all') =>
      part === 'all' ? room.foldAll() : room.fold(part),
  };
  function onkey(event: KeyboardEvent): void {
    if (event.key === 'F6' && !(event.target as Element).closest('dialog')) {
      event.preventDefault();
      nextPart(event.shiftKey ? -1 : 1);
      return;
    }
    if (keyIsTaken(event)) return;
    if (layoutKey(event, editor, actions)) event.preventDefault();
  }

  hearChanges(editor, proof, (fresh) => {
    palettes = fresh.filter((one) => one.projectId === null || one.projectId === layout.projectId);
  });
  $effect(() => {
    if (!editor.history.inGesture) editor.saver.want(editor.history.doc);
  });
  keepInAddress(editor);
  /** `?fill=` in the address fills what is selected with a pattern, once; where nothing is, the pattern is in the hand. */
  onMount(() => {
    room.recall();
    editor.recallUndo();
    const pattern = page.url.searchParams.get('fill');
    if (pattern) void (editor.selected.size > 0 ? editor.fillWith(pattern) : editor.bring(pattern));
    return () => editor.keepUndo();
  });
  beforeNavigate(({ willUnload, cancel }) => {
    void editor.saver.flush();
    if (willUnload && !editor.saver.clean) cancel();
  });
</script>

<svelte:window
  onkeydown={onkey}
  onkeyup={() => (peek = null)}
  onblur={() => (peek = null)}
  onpagehide={() => editor.keepUndo()}
/>
<svelte:document
  onvisibilitychange={() => {
    if (document.visibilityState === 'hidden') void editor.saver.flush();
    else void editor.refreshPatterns();
  }}
/>

<div class="view">
  <TopBar skip={{ label: 'To the drawing tools', to: '[role="toolbar"] button' }}>
    {#snippet trail()}
      <a href="/projects/{layout.projectId}">{layout.projectName}</a> /
      <NameField
        label="The name of the layout"
        value={editor.doc.name}
        onset={(name) => {
          editor.changePage({ name });
          return null;
        }}
      />
      · <PageSettings
        {editor}
        {palettes}
        label={saySize(editor.doc, editor.doc.measure)}
        onfit={() => stages?.fit()}
      />
    {/snippet}
    {#snippet actions()}
      <SaveNote state={editor.saver.state} onretry={() => editor.saver.flush()} />
      {#if layout.object}
        <Button pressed={onObject} onclick={() => (onObject = !onObject)}
          >On the {OBJECTS[layout.object.kind].noun}</Button
        >
      {/if}
      <Button onclick={() => (recolouring = true)}>Exchange palettes …</Button>
      <Button kind="main" onclick={() => (exporting = true)}>Export</Button>
      <Button pressed={proof.open} onclick={() => (proof.open = !proof.open)}
        >Proof
        {#if proof.notes.length > 0}<span class="notes"
            >{proof.notes.length}<span class="visually-hidden">&nbsp;notes</span></span
          >{/if}</Button
      >
    {/snippet}
  </TopBar>
  <div class="columns">
    <!-- A part that is folded stays as it is, out of sight: opening it again makes nothing anew. -->
    <div class="hangers-box" class:folded={room.isFolded('hangers')} style:width="{room.size('hangers')}px">
      <div class="hung" style:width="{hung}px">
        <HangerPanel
          {hangers}
          {palettes}
          used={new Set(editor.chosen.flatMap((shape) => patternFills(shape).map(({ pattern }) => pattern)))}
          hint={editor.selected.size === 0
            ? 'Select a shape, then press a hanger, or drag one onto a shape.'
            : 'Press a hanger to fill what is selected.'}
          onpick={(pattern) => void editor.fillWith(pattern)}
        />
      </div>
    </div>
    <Sizer {room} part="hangers" name="hangers" side="left" />
    <main class="work" bind:clientWidth={width}>
      <h1 class="visually-hidden">{editor.doc.name}</h1>
      <LayoutStages
        bind:this={stages}
        {editor}
        {view}
        {room}
        {narrow}
        fills={fillsHeight}
        {eyedropper}
        {peek}
        onkeys={() => (showKeys = true)}
      />
      <Sizer {room} part="fills" name="fill bar" side="below" measured={fillsHeight} />
      <div
        class="fills-box"
        class:folded={room.isFolded('fills')}
        bind:offsetHeight={fillsHeight}
        style:height={room.isSized('fills') ? `${room.size('fills')}px` : undefined}
      >
        <CameIn {editor} />
        <FillBar {editor} {narrow} patterns={hangers.all} {palettes} {layouts} />
      </div>
      <Sizer {room} part="ledger" name="ledger" side="below" />
      <div
        class="ledger-box"
        class:folded={room.isFolded('ledger')}
        bind:clientWidth={ledgerWidth}
        style:height="{room.size('ledger')}px"
      >
        <Ledger {editor} width={ledgerStill} />
      </div>
    </main>
    {#if proof.open}
      <aside class="proof" aria-label="Proof">
        <ProofPanel
          {proof}
          {editor}
          onshow={(box) => stages?.show(box)}
          onclose={() => (proof.open = false)}
        />
      </aside>
    {/if}
    {#if layout.object && onObject}
      <aside class="object" aria-label="On the {OBJECTS[layout.object.kind].noun}">
        <ObjectView
          object={layout.object}
          name={editor.doc.name}
          layout={editor.doc}
          lookup={editor.lookup}
          busy={editor.history.inGesture}
        />
      </aside>
    {/if}
  </div>
</div>

{#if recolouring}
  <RecolourDialog
    parts={[
      { id: editor.id, name: editor.doc.name, layout: editor.doc, patterns: [...editor.patterns.values()] },
    ]}
    {palettes}
    onapply={async (exchanges) => {
      editor.recolour(exchanges);
      return null;
    }}
    onclose={() => (recolouring = false)}
  />
{/if}
{#if editor.trial.question}
  <MeasuredQuestion trial={editor.trial} question={editor.trial.question} />
{/if}
{#if exporting}<ExportDialog {editor} onclose={() => (exporting = false)} />{/if}
{#if showKeys}<KeysDialog keys={LAYOUT_KEYS} onclose={() => (showKeys = false)} />{/if}
<StaleLayout {editor} />

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
    overflow: hidden;
  }
  .columns {
    display: flex;
    flex: 1;
    min-height: 0;
  }
  .hangers-box {
    display: grid;
    flex: none;
    min-height: 0;
    max-width: 60vw;
    overflow: hidden;
    background: var(--card);
  }
  .hung {
    display: grid;
    min-height: 0;
    max-width: 60vw;
  }
  .work {
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .object {
    display: grid;
    flex: 0 0 clamp(260px, calc(100vw - 860px), 460px);
    min-height: 0;
    border-left: 1px solid var(--rule);
    background: #dcdcd8;
  }
  .proof {
    display: grid;
    flex: 0 0 clamp(240px, calc(100vw - 860px), 310px);
    min-height: 0;
    border-left: 1px solid var(--rule);
  }
  .notes {
    min-width: 18px;
    padding: 0 5px;
    border-radius: 9px;
    background: var(--amber-tint);
    color: var(--amber);
    font: 600 12px/18px var(--mono);
    text-align: center;
  }
  .fills-box {
    flex: none;
    max-height: 60vh;
    overflow: auto;
    container: fills / inline-size;
  }
  .ledger-box {
    flex: none;
    max-height: 60vh;
  }
  .columns .folded {
    display: none;
  }
</style>
