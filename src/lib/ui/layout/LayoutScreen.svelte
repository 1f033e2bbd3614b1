<script lang="ts">
  import { beforeNavigate, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import type { LayoutData, PaletteData, PatternForUse } from '$lib/contract/data';
  import type { Sight } from '$lib/core/colour/vision';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import SightChoice from '../components/SightChoice.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import TopBar from '../components/TopBar.svelte';
  import ViewTools from '../components/ViewTools.svelte';
  import { onMount, tick } from 'svelte';
  import { saySize } from '../library/say';
  import { call } from '../state/api';
  import { provideEyedropper } from '../state/eyedropper.svelte';
  import { linksFrom } from '../state/links';
  import { keyIsTaken } from '../state/undo-keys';
  import { onLive } from '../state/live';
  import { rememberLayout } from '../state/last-layout';
  import { docOf, type LayoutDoc } from './doc';
  import { LayoutEditor } from './editor.svelte';
  import ExportDialog from './ExportDialog.svelte';
  import FillBar from './FillBar.svelte';
  import HangerPanel from './HangerPanel.svelte';
  import type { Hangers } from './hangers';
  import { layoutKey, LAYOUT_KEYS, nextPart } from './keys';
  import KeysDialog from './KeysDialog.svelte';
  import Ledger from './Ledger.svelte';
  import RecolourDialog from './RecolourDialog.svelte';
  import PageSettings from './PageSettings.svelte';
  import ShapeTools from './ShapeTools.svelte';
  import Stage from './Stage.svelte';
  import { View } from './view.svelte';
  import Sizer from '../components/Sizer.svelte';
  import { keepClearOf } from '../state/keep-clear';
  import { Room } from '../state/room.svelte';
  import { selectionBox } from './arrange';
  import MeasuredQuestion from './MeasuredQuestion.svelte';
  import RoomChoice from './RoomChoice.svelte';
  import Columns from '@lucide/svelte/icons/columns-2';
  import StillStage from './StillStage.svelte';
  import { TextWriter } from './text-writer.svelte';

  /** The layout view: hangers left, stage, fill bar, ledger. */
  type Props = {
    layout: LayoutData;
    patterns: PatternForUse[];
    hangers: Hangers;
    palettes: PaletteData[];
    shape: string | null;
  };
  let { layout, patterns, hangers, palettes: firstPalettes, shape }: Props = $props();

  const room = new Room('layout', {
    hangers: { usual: 236, least: 180, most: 560 },
    fills: { usual: 147, least: 57, most: 420 },
    ledger: { usual: 190, least: 64, most: 700 },
  });
  const view = new View();
  let fillsHeight = $state(0);
  let stages: HTMLElement | undefined = $state();
  keepClearOf(() => {
    const box = selectionBox(editor);
    const at = [...(stages?.querySelectorAll('.stage') ?? [])].at(-1)?.getBoundingClientRect();
    if (!box || !at) return null;
    const from = view.toScreen(box);
    const to = view.toScreen({ x: box.x + box.width, y: box.y + box.height });
    return { left: at.left + from.x, top: at.top + from.y, right: at.left + to.x, bottom: at.top + to.y };
  });

  // svelte-ignore state_referenced_locally
  const editor = new LayoutEditor(layout, patterns);
  // svelte-ignore state_referenced_locally
  if (shape !== null) editor.select(shape.split(','));
  // svelte-ignore state_referenced_locally
  let palettes = $state.raw(firstPalettes);
  const eyedropper = provideEyedropper();
  let sight: Sight = $state('full');
  let recolouring = $state(false);
  let stage: Stage | undefined = $state();
  let peek: 'before' | 'plain' | null = $state(null);
  /** The layout as it was when it was pinned for comparison; it stands beside the present one. */
  let pinned: LayoutDoc | null = $state.raw(null);
  let exporting = $state(false);
  // svelte-ignore state_referenced_locally
  let brush = $state.raw({ size: Math.min(layout.width, layout.height) / 12, softness: 0.5 });
  let writer: TextWriter | null = $state.raw(null);

  /** What pressing a shape twice opens: the words of a text, the points of another outline. */
  function open(): void {
    const { single } = editor;
    if (single && editor.withoutLocked(editor.selected).size === 0) return;
    if (single?.form.kind === 'text') void TextWriter.change(editor, single).then((made) => (writer = made));
    else if (single) editor.editingPoints = true;
  }
  /** The words are written: they stay, and the tool is let go of unless it is kept. */
  async function written(): Promise<void> {
    const done = writer;
    writer = null;
    await done?.end();
    if (done && editor.tool === 'text') editor.hand.used();
  }
  let showKeys = $state(false);
  /** One asks whether a line on the stage is real. */
  let asking = $state(false);

  async function comparePinned(): Promise<void> {
    pinned = pinned ? null : editor.doc;
    await tick();
    // The stage knows its new width a frame later.
    await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
    stage?.fit();
  }

  const actions = {
    fit: () => stage?.fit(),
    lifeSize: () => stage?.lifeSize(),
    open: () => open(),
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

  /** What is changed elsewhere shows here: colours of palettes, patterns, and this layout itself. */
  onLive(['palette.', 'pattern.', 'layout.changed'], async (events) => {
    if (events.some(({ kind }) => kind.startsWith('palette.'))) {
      const fresh = await call<PaletteData[]>('GET', '/palettes');
      if (fresh.ok) {
        palettes = fresh.value.filter((one) => one.projectId === null || one.projectId === layout.projectId);
        editor.links = linksFrom(fresh.value, editor.links);
      }
    }
    if (
      events.some(
        ({ kind, subject }) =>
          kind.startsWith('pattern.') && (subject === '' || editor.patterns.has(subject)),
      )
    )
      await editor.refreshPatterns();
    const heard = events.filter(
      ({ kind, subject }) => kind === 'layout.changed' && (subject === '' || subject === layout.id),
    );
    if (heard.some(({ version }) => version === undefined)) await editor.refreshLayout();
    else if (heard.length > 0) await editor.refreshLayout(Math.max(...heard.map((one) => one.version ?? 0)));
  });
  $effect(() => {
    if (!editor.history.inGesture) editor.saver.want(editor.history.doc);
  });
  $effect(() => {
    const only = editor.single?.id ?? null;
    if (page.url.searchParams.get('shape') === only && !page.url.searchParams.has('fill')) return;
    const url = new URL(page.url);
    url.searchParams.delete('fill');
    if (only === null) url.searchParams.delete('shape');
    else url.searchParams.set('shape', only);
    try {
      replaceState(url, page.state);
    } catch {
      // The router is not ready before the first navigation has ended; the next selection is noted.
    }
  });
  const chosenIds = $derived(editor.chosen.map(({ id }) => id).join(' '));
  const chosenName = $derived(editor.chosen.length === 1 ? (editor.chosen[0]?.name ?? '') : '');
  $effect(() => {
    if (chosenIds === '') return;
    const shapes = chosenIds.split(' ');
    const what = shapes.length === 1 ? `“${chosenName}”` : `${shapes.length} shapes`;
    rememberLayout({ path: page.url.pathname, shapes, what });
  });
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

  /** Patterns that shapes here are filled with and that cannot be shown. */
  const faults = $derived([
    ...editor.damaged,
    ...[...editor.patterns.values()].flatMap(({ name, faults: found }) =>
      Object.values(found).map((message) => `“${name}” cannot be shown. ${message}`),
    ),
  ]);

  const stale = $derived(editor.saver.state.kind === 'stale' ? editor.saver.state.failure : null);
  function keepMine(): void {
    const current = stale?.current as LayoutData | undefined;
    if (current) editor.saver.rebase(docOf(current), current.version);
  }
  function takeTheirs(): void {
    const current = stale?.current as LayoutData | undefined;
    if (!current) return;
    const doc = docOf(current);
    editor.history.commit(doc);
    editor.saver.want(doc);
    editor.saver.rebase(doc, current.version);
    void editor.refreshPatterns();
  }
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
        onfit={() => stage?.fit()}
      />
    {/snippet}
    {#snippet actions()}
      <SaveNote state={editor.saver.state} onretry={() => editor.saver.flush()} />
      <Button onclick={() => (recolouring = true)}>Exchange palettes …</Button>
      <Button kind="main" onclick={() => (exporting = true)}>Export</Button>
    {/snippet}
  </TopBar>
  <div class="columns">
    {#if !room.isFolded('hangers')}
      <div class="hangers-box" style:width="{room.size('hangers')}px">
        <HangerPanel {hangers} {palettes} {editor} />
      </div>
    {/if}
    <Sizer {room} part="hangers" name="hangers" side="left" />
    <main class="work">
      <h1 class="visually-hidden">{editor.doc.name}</h1>
      <div class="stages" class:two={pinned !== null} bind:this={stages}>
        {#if pinned}
          <div class="stage-box pinned"><StillStage doc={pinned} lookup={editor.lookup} {view} /></div>
        {/if}
        <div class="stage-box">
          <Stage
            bind:this={stage}
            {editor}
            {view}
            {sight}
            {eyedropper}
            {peek}
            {brush}
            {writer}
            ontext={(at) => (writer = TextWriter.begin(editor, at))}
            onwritten={written}
            onopen={open}
            {asking}
            onasked={() => (asking = false)}
          />
        </div>
        {#if faults.length > 0}
          <ul class="faults" role="status">
            {#each faults as fault (fault)}<li>{fault}</li>{/each}
          </ul>
        {/if}
        <ShapeTools {editor} {brush} onbrush={(value) => (brush = value)} onopen={open} />
        <ViewTools
          history={editor.history}
          zoom={view.zoom}
          fitTitle="Fit the page (0)"
          onfit={() => stage?.fit()}
          onkeys={() => (showKeys = true)}
          online={() => (asking = !asking)}
        >
          {#snippet more()}
            <button
              type="button"
              title={pinned
                ? 'End the comparison'
                : 'Pin this state beside the stage, to compare with what you do next'}
              aria-label="Compare side by side"
              aria-pressed={pinned !== null}
              onclick={() => comparePinned()}><Columns size={16} /></button
            ><RoomChoice {room} /><SightChoice value={sight} onset={(value) => (sight = value)} />{/snippet}
        </ViewTools>
      </div>
      <Sizer {room} part="fills" name="fill bar" side="below" measured={fillsHeight} />
      {#if !room.isFolded('fills')}
        <div
          class="fills-box"
          bind:offsetHeight={fillsHeight}
          style:height={room.isSized('fills') ? `${room.size('fills')}px` : undefined}
        >
          <FillBar {editor} patterns={hangers.all} {palettes} />
        </div>
      {/if}
      <Sizer {room} part="ledger" name="ledger" side="below" />
      {#if !room.isFolded('ledger')}
        <div class="ledger-box" style:height="{room.size('ledger')}px"><Ledger {editor} /></div>
      {/if}
    </main>
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
{#if stale}<StaleDialog message={stale.message} onmine={keepMine} ontheirs={takeTheirs} />{/if}

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
  }
  .work {
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .stages {
    position: relative;
    display: grid;
    flex: 1;
    min-height: 160px;
  }
  .two {
    grid-template-columns: 1fr 1fr;
  }
  .stage-box {
    position: relative;
    min-width: 0;
    min-height: 0;
  }
  .pinned {
    border-right: 2px solid var(--card);
  }
  .faults {
    position: absolute;
    bottom: 12px;
    margin: 0;
    left: 50%;
    z-index: 3;
    max-width: 70%;
    max-height: 40%;
    overflow: auto;
    padding: 6px 12px;
    border: 1px solid var(--amber);
    border-radius: var(--radius);
    background: var(--card);
    font-size: 12.5px;
    transform: translateX(-50%);
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
</style>
