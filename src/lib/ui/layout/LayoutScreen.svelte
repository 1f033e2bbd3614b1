<script lang="ts">
  import { beforeNavigate, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import Circle from '@lucide/svelte/icons/circle';
  import Hexagon from '@lucide/svelte/icons/hexagon';
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import MousePointer from '@lucide/svelte/icons/mouse-pointer';
  import Redo from '@lucide/svelte/icons/redo-2';
  import Square from '@lucide/svelte/icons/square';
  import Star from '@lucide/svelte/icons/star';
  import Undo from '@lucide/svelte/icons/undo-2';
  import type { LayoutData, PaletteData, PatternForUse, PatternSummary } from '$lib/contract/data';
  import type { ShapeForm } from '$lib/core/geom/shapes';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import TopBar from '../components/TopBar.svelte';
  import { onMount } from 'svelte';
  import { saySize } from '../library/say';
  import { rememberLayout } from '../state/last-layout';
  import { docOf } from './doc';
  import { LayoutEditor, type Tool } from './editor.svelte';
  import ExportDialog from './ExportDialog.svelte';
  import FillBar from './FillBar.svelte';
  import FormNumbers from './FormNumbers.svelte';
  import HangerPanel from './HangerPanel.svelte';
  import { keyIsTaken, layoutKey, LAYOUT_KEYS } from './keys';
  import KeysDialog from './KeysDialog.svelte';
  import Ledger from './Ledger.svelte';
  import PageSettings from './PageSettings.svelte';
  import Stage from './Stage.svelte';
  import { View } from './view.svelte';

  /** The layout view: hangers left, stage, fill bar, ledger. */
  type Props = {
    layout: LayoutData;
    patterns: PatternForUse[];
    hangers: PatternSummary[];
    palettes: PaletteData[];
    shape: string | null;
  };
  let { layout, patterns, hangers, palettes, shape }: Props = $props();

  // svelte-ignore state_referenced_locally
  const editor = new LayoutEditor(layout, patterns);
  // svelte-ignore state_referenced_locally
  if (shape !== null) editor.select(shape.split(','));
  const view = new View();
  let stage: Stage | undefined = $state();
  let exporting = $state(false);
  let showKeys = $state(false);

  const TOOLS: { tool: Tool; label: string; icon: typeof Square }[] = [
    { tool: 'select', label: 'Select and move', icon: MousePointer },
    { tool: 'rectangle', label: 'Draw a rectangle', icon: Square },
    { tool: 'ellipse', label: 'Draw an ellipse', icon: Circle },
    { tool: 'polygon', label: 'Draw a polygon', icon: Hexagon },
    { tool: 'star', label: 'Draw a star', icon: Star },
  ];

  const actions = {
    fit: () => stage?.fit(),
    lifeSize: () => stage?.lifeSize(),
    help: () => (showKeys = true),
  };
  function onkey(event: KeyboardEvent): void {
    if (keyIsTaken(event)) return;
    if (layoutKey(event, editor, actions)) event.preventDefault();
  }

  /** A tool pressed with the pointer waits for a drag; pressed with the keyboard it puts a shape in the middle at once. */
  function takeTool(event: MouseEvent, tool: Tool): void {
    if (event.detail > 0 || tool === 'select') {
      editor.tool = editor.tool === tool ? 'select' : tool;
      return;
    }
    const side = Math.min(editor.doc.width, editor.doc.height) / 3;
    const box = {
      x: (editor.doc.width - side) / 2,
      y: (editor.doc.height - side) / 2,
      width: side,
      height: side,
    };
    editor.addShape(tool as ShapeForm['kind'], box);
  }

  $effect(() => {
    if (!editor.history.inGesture) editor.saver.want(editor.doc);
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
  $effect(() => {
    const { chosen } = editor;
    const [first] = chosen;
    if (!first) return;
    const what = chosen.length === 1 ? `“${first.name}”` : `${chosen.length} shapes`;
    rememberLayout({ path: page.url.pathname, shapes: chosen.map(({ id }) => id), what });
  });
  /** `?fill=` in the address fills what is selected with a pattern, once. */
  onMount(() => {
    const pattern = page.url.searchParams.get('fill');
    if (pattern && editor.selected.size > 0) void editor.fillWith(pattern);
  });
  beforeNavigate(({ willUnload, cancel }) => {
    void editor.saver.flush();
    if (willUnload && !editor.saver.clean) cancel();
  });

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

<svelte:window onkeydown={onkey} />
<svelte:document
  onvisibilitychange={() => {
    if (document.visibilityState === 'hidden') void editor.saver.flush();
    else void editor.refreshPatterns();
  }}
/>

<div class="view">
  <TopBar>
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
      <Button kind="main" onclick={() => (exporting = true)}>Export</Button>
    {/snippet}
  </TopBar>
  <div class="columns">
    <HangerPanel patterns={hangers} {editor} />
    <main class="work">
      <h1 class="visually-hidden">{editor.doc.name}</h1>
      <div class="stage-box">
        <Stage bind:this={stage} {editor} {view} onkey={() => undefined} />
        <div class="tools" role="toolbar" aria-label="Shapes">
          {#each TOOLS as { tool, label, icon: Icon } (tool)}
            <button
              type="button"
              title={label}
              aria-label={label}
              aria-pressed={editor.tool === tool}
              onclick={(event) => takeTool(event, tool)}
            >
              <Icon size={16} />
            </button>
          {/each}
          <FormNumbers {editor} />
        </div>
        <div class="tools right" role="toolbar" aria-label="View">
          <button
            type="button"
            title="Undo"
            aria-label="Undo"
            disabled={!editor.history.canUndo}
            onclick={() => editor.history.undo()}><Undo size={16} /></button
          >
          <button
            type="button"
            title="Redo"
            aria-label="Redo"
            disabled={!editor.history.canRedo}
            onclick={() => editor.history.redo()}><Redo size={16} /></button
          >
          <button type="button" class="text mono" title="Fit the page (0)" onclick={() => stage?.fit()}
            >{Math.round(view.zoom * 100)} %</button
          >
          <button type="button" title="Keys (?)" aria-label="Keys" onclick={() => (showKeys = true)}
            ><Keyboard size={16} /></button
          >
        </div>
      </div>
      <FillBar {editor} patterns={hangers} {palettes} />
      <div class="ledger-box"><Ledger {editor} /></div>
    </main>
  </div>
</div>

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
    display: grid;
    grid-template-columns: 236px minmax(0, 1fr);
    flex: 1;
    min-height: 0;
  }
  .work {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .stage-box {
    position: relative;
    flex: 1;
    min-height: 160px;
  }
  .ledger-box {
    flex: none;
    height: min(200px, 26vh);
  }
  .tools {
    position: absolute;
    top: 10px;
    left: 10px;
    display: flex;
    align-items: center;
    gap: 2px;
    padding: 3px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: 0 1px 4px rgb(20 33 31 / 18%);
  }
  .right {
    right: 10px;
    left: auto;
  }
  .tools button {
    display: inline-flex;
    align-items: center;
    justify-content: center;
    min-width: 28px;
    height: 28px;
    padding: 0 6px;
    border: 0;
    border-radius: 5px;
    background: none;
    cursor: pointer;
  }
  .tools button:hover:not(:disabled) {
    background: var(--paper);
  }
  .tools button:disabled {
    color: var(--rule-strong);
    cursor: default;
  }
  .tools [aria-pressed='true'],
  .tools [aria-pressed='true']:hover {
    background: var(--kelp-tint);
    color: var(--kelp);
  }
</style>
