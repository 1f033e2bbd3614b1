<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import { page } from '$app/state';
  import type { LayoutData, LayoutSummary, PageForUse, PaletteData, PatternForUse } from '$lib/contract/data';
  import Clashes from './Clashes.svelte';
  import { hearChanges } from './hear';
  import { onMount, untrack } from 'svelte';
  import { provideEyedropper } from '../state/eyedropper.svelte';
  import { keyIsTaken } from '../state/undo-keys';
  import { keepInAddress } from './address.svelte';
  import { Talk } from '../talk/talk.svelte';
  import { LayoutHistory } from '../history/layout-history.svelte';
  import { Here } from './here.svelte';
  import { keepUnsaved } from '../state/keeping.svelte';
  import { LayoutEditor } from './editor.svelte';
  import ExportDialog from './ExportDialog.svelte';
  import CameIn from './CameIn.svelte';
  import FillBar from './FillBar.svelte';
  import HangerPanel from './HangerPanel.svelte';
  import type { Hangers } from './hangers';
  import { layoutKey, LAYOUT_KEYS, nextPart } from './keys';
  import KeysDialog from './KeysDialog.svelte';
  import { Beside } from './beside.svelte';
  import LayoutAside from './LayoutAside.svelte';
  import LayoutStages from './LayoutStages.svelte';
  import LayoutHeader from './LayoutHeader.svelte';
  import Ledger from './Ledger.svelte';
  import RecolourDialog from './RecolourDialog.svelte';
  import { View } from './view.svelte';
  import Sizer from '../components/Sizer.svelte';
  import { keepClearOf } from '../state/keep-clear';
  import { Room } from '../state/room.svelte';
  import { selectionBox } from './arrange';
  import { patternFills } from '$lib/core/recipe/layout';
  import { LayoutProof } from '../proof/layout-proof.svelte';
  import type { PressSettings } from '$lib/core/colour/press';
  import type { ProofSettings } from '$lib/core/proof/limits';
  import { LayoutPlates } from '../plates/layout-plates.svelte';
  import MeasuredQuestion from './MeasuredQuestion.svelte';

  /** The layout view: hangers left, stage, fill bar, ledger. */
  type Props = {
    layout: LayoutData;
    mayChange: boolean;
    patterns: PatternForUse[];
    pages: PageForUse[];
    /** All layouts of the project. */
    layouts: LayoutSummary[];
    hangers: Hangers;
    palettes: PaletteData[];
    shape: string | null;
    proof: ProofSettings;
    press: PressSettings;
    /** The proof is open from the start. */
    proofing: boolean;
  };
  let {
    layout,
    mayChange,
    patterns,
    pages,
    layouts,
    hangers,
    palettes: firstPalettes,
    shape,
    proof: limits,
    press,
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
  editor.mayChange = mayChange;
  // svelte-ignore state_referenced_locally
  if (shape !== null) editor.select(shape.split(','));
  // svelte-ignore state_referenced_locally
  let palettes = $state.raw(firstPalettes);
  // svelte-ignore state_referenced_locally
  const plates = new LayoutPlates(editor, press, () => palettes);
  plates.follow();
  // svelte-ignore state_referenced_locally
  const proof = new LayoutProof(editor, layout.object ?? null, limits, () => plates.printing);
  proof.follow();
  const beside = new Beside(proof, plates);
  const history = new LayoutHistory(editor);
  // svelte-ignore state_referenced_locally
  const talk = new Talk('layout', layout.id);
  talk.follow();
  // svelte-ignore state_referenced_locally
  if (proofing) beside.toggle('proof');
  const eyedropper = provideEyedropper();
  let recolouring = $state(false);
  let peek: 'before' | 'plain' | null = $state(null);
  let exporting = $state(false);
  let showKeys = $state(false);
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

  hearChanges(editor, { proof, plates }, (fresh) => {
    palettes = fresh.filter((one) => one.projectId === null || one.projectId === layout.projectId);
  });
  $effect(() => {
    if (!editor.history.inGesture) editor.saver.want(editor.history.doc);
  });
  keepInAddress(editor);
  keepUnsaved({
    ...{ what: () => `layout ${editor.id}`, saver: editor.saver, history: editor.history },
    mayChange: () => editor.mayChange,
    bring: (base, doc) => editor.together.bringBack(base, doc),
  });
  const here = new Here(editor, view, () => stages?.box() ?? null);
  here.follow();
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
  <LayoutHeader
    {...{ layout, editor, palettes, beside, proof, talk, here }}
    onfit={() => stages?.fit()}
    onrecolour={() => (recolouring = true)}
    onexport={() => (exporting = true)}
  />
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
        {plates}
        {here}
        {history}
        {talk}
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
    <LayoutAside
      {beside}
      {proof}
      {plates}
      {editor}
      {history}
      {talk}
      object={layout.object ?? null}
      onshow={(box) => stages?.show(box)}
    />
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
{#if exporting}<ExportDialog
    {editor}
    press={plates.settings.profile !== null}
    onclose={() => (exporting = false)}
  />{/if}
{#if showKeys}<KeysDialog keys={LAYOUT_KEYS} onclose={() => (showKeys = false)} />{/if}
<Clashes {editor} />

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
