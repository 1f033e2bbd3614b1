<script lang="ts">
  import Columns from '@lucide/svelte/icons/columns-2';
  import type { Box } from '$lib/core/geom/box';
  import type { Sight } from '$lib/core/colour/vision';
  import SightChoice from '../components/SightChoice.svelte';
  import ViewTools from '../components/ViewTools.svelte';
  import type { Eyedropper } from '../state/eyedropper.svelte';
  import type { Room } from '../state/room.svelte';
  import type { LayoutDoc } from './doc';
  import type { LayoutEditor } from './editor.svelte';
  import type { Talk } from '../talk/talk.svelte';
  import type { LayoutHistory } from '../history/layout-history.svelte';
  import type { Here } from './here.svelte';
  import HandleScope from './HandleScope.svelte';
  import RoomChoice from './RoomChoice.svelte';
  import ShapeTools from './ShapeTools.svelte';
  import Stage from './Stage.svelte';
  import StillStage from './StillStage.svelte';
  import { TextWriter } from './text-writer.svelte';
  import type { View } from './view.svelte';
  import type { LayoutPlates } from '../plates/layout-plates.svelte';

  /** The stage with its tools, and beside it a state that was pinned, to compare with. */
  type Props = {
    editor: LayoutEditor;
    view: View;
    room: Room<'hangers' | 'fills' | 'ledger'>;
    /** Little room across: the view's tools stand at the foot of the stage. */
    narrow: boolean;
    /** The height of the fill bar, px. */
    fills: number;
    eyedropper: Eyedropper;
    peek: 'before' | 'plain' | null;
    plates: LayoutPlates;
    here: Here;
    history: LayoutHistory;
    talk: Talk;
    onkeys: () => void;
  };
  let { editor, view, room, narrow, fills, eyedropper, peek, plates, here, history, talk, onkeys }: Props =
    $props();

  let live: HTMLElement | undefined = $state();
  let stage: Stage | undefined = $state();
  let sight: Sight = $state('full');
  /** The layout as it was when it was pinned for comparison; it stands beside the present one. */
  let pinned: LayoutDoc | null = $state.raw(null);
  // svelte-ignore state_referenced_locally
  let brush = $state.raw({ size: Math.min(editor.doc.width, editor.doc.height) / 12, softness: 0.5 });
  /** One asks whether a line on the stage is real. */
  let asking = $state(false);

  let writer: TextWriter | null = $state.raw(null);

  /** What pressing a shape twice opens: the words of a text, the points of another outline. */
  export function open(): void {
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

  /** What stands beside the stage, or over its left part. */
  const still = $derived(history.looked?.doc ?? pinned);
  const over = $derived(history.looked !== null && history.compare === 'over');
  // The stage gets another width: the page is fitted into it.
  let seenBefore = false;
  $effect(() => {
    const two = still !== null && !over;
    if (two === seenBefore) return;
    seenBefore = two;
    // It knows its new width a frame later.
    requestAnimationFrame(() => requestAnimationFrame(() => stage?.fit()));
  });

  function comparePinned(): void {
    pinned = pinned ? null : editor.doc;
  }

  export const fit = (): void => stage?.fit();
  export const lifeSize = (): void => stage?.lifeSize();
  /** Brings a place of the page into sight, where it is not; one that is larger than the stage is shown whole. */
  export function show(place: Box): void {
    const room = live?.getBoundingClientRect();
    if (room) view.show(place, room);
  }
  /** Where the stage lies on the window. */
  export const box = (): DOMRect | undefined => live?.getBoundingClientRect();

  /** Patterns that shapes here are filled with and that cannot be shown. */
  const faults = $derived([
    ...editor.damaged,
    ...[...editor.patterns.values()].flatMap(({ name, faults: found }) =>
      Object.values(found).map((message) => `“${name}” cannot be shown. ${message}`),
    ),
  ]);
</script>

<div class="stages" class:two={still !== null && !over}>
  {#if still && !over}
    <div class="stage-box pinned"><StillStage doc={still} lookup={editor.lookup} {view} /></div>
  {/if}
  <div class="stage-box" bind:this={live}>
    <Stage
      bind:this={stage}
      {editor}
      {view}
      {narrow}
      {sight}
      {eyedropper}
      {peek}
      {plates}
      {here}
      {talk}
      {brush}
      {writer}
      ontext={(at) => (writer = TextWriter.begin(editor, at))}
      onwritten={written}
      onopen={open}
      {asking}
      onasked={() => (asking = false)}
    />
  </div>
  {#if still && over}
    <div class="over" style:clip-path="inset(0 {100 - history.split * 100}% 0 0)">
      <StillStage doc={still} lookup={editor.lookup} {view} />
    </div>
    <div class="edge" style:left="{history.split * 100}%"></div>
    <input
      class="slider"
      type="range"
      min="0"
      max="1"
      step="0.01"
      aria-label="How much of the earlier state is seen"
      bind:value={history.split}
    />
  {/if}
  {#if faults.length > 0}
    <ul class="faults" role="status">
      {#each faults as fault (fault)}<li>{fault}</li>{/each}
    </ul>
  {/if}
  <ShapeTools {editor} {brush} wide={narrow} onbrush={(value) => (brush = value)} onopen={open} />
  <ViewTools
    history={editor.history}
    zoom={view.zoom}
    low={narrow}
    fitTitle="Fit the page (0)"
    onfit={() => stage?.fit()}
    {onkeys}
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
      ><RoomChoice {room} {fills} /><SightChoice
        compact
        value={sight}
        onset={(value) => (sight = value)}
      />{/snippet}
    {#snippet before()}
      {#if narrow}<span class="scope"><HandleScope {editor} /></span>{/if}
    {/snippet}
  </ViewTools>
</div>

<style>
  .scope {
    margin: 0 8px 0 4px;
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
  .over {
    position: absolute;
    inset: 0;
    pointer-events: none;
  }
  .edge {
    position: absolute;
    top: 0;
    bottom: 0;
    width: 2px;
    margin-left: -1px;
    background: var(--signal);
    pointer-events: none;
  }
  /* Its knob sits on the edge; the line that it runs on would hide the page. */
  .slider {
    position: absolute;
    top: 50%;
    left: 0;
    width: 100%;
    height: 20px;
    margin: 0;
    appearance: none;
    background: none;
    pointer-events: none;
  }
  .slider::-webkit-slider-thumb {
    width: 20px;
    height: 20px;
    border: 2px solid var(--card);
    border-radius: 4px;
    appearance: none;
    background: var(--signal);
    cursor: ew-resize;
    pointer-events: auto;
  }
  .slider::-moz-range-thumb {
    width: 16px;
    height: 16px;
    border: 2px solid var(--card);
    border-radius: 4px;
    background: var(--signal);
    cursor: ew-resize;
    pointer-events: auto;
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
</style>
