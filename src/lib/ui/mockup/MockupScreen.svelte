<script lang="ts">
  import { keptStill } from './kept-still';
  import Fixed from '../components/Fixed.svelte';
  import { beforeNavigate } from '$app/navigation';
  import { onMount, untrack } from 'svelte';
  import type { LayoutInUse, LayoutSummary, MockupData, PaletteData } from '$lib/contract/data';
  import type { LengthUnit } from '$lib/core/num/length';
  import { LOOKS } from '$lib/core/mockup/mockup';
  import { patternFills } from '$lib/core/recipe/layout';
  import Plus from '@lucide/svelte/icons/plus';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import LookOn from '../components/LookOn.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import Sizer from '../components/Sizer.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import TopBar from '../components/TopBar.svelte';
  import HangerPanel from '../layout/HangerPanel.svelte';
  import type { Hangers } from '../layout/hangers';
  import KeysDialog from '../layout/KeysDialog.svelte';
  import { provideEyedropper } from '../state/eyedropper.svelte';
  import { Room } from '../state/room.svelte';
  import { keyIsTaken, undoByKey } from '../state/undo-keys';
  import AddObject from './AddObject.svelte';
  import { hearChanges } from './hear';
  import MockupStage from './MockupStage.svelte';
  import ObjectPanel from './ObjectPanel.svelte';
  import OnItBar from './OnItBar.svelte';
  import SurfacePanel from './SurfacePanel.svelte';
  import WorkingHere from '../people/WorkingHere.svelte';
  import { keepUnsaved } from '../state/keeping.svelte';
  import { MockupSession } from './session.svelte';
  import { StepOrder } from './step-order';

  /** The mock-up view: hangers left, objects in space, the fill bar of what is pressed on them, what the chosen object is. */
  type Props = {
    mockup: MockupData;
    used: LayoutInUse[];
    layouts: LayoutSummary[];
    hangers: Hangers;
    palettes: PaletteData[];
    measure: LengthUnit;
    mayChange: boolean;
  };
  let { mockup, used, layouts, hangers, palettes: firstPalettes, measure, mayChange }: Props = $props();

  // svelte-ignore state_referenced_locally
  const session = new MockupSession(mockup, used, layouts, mayChange);
  // svelte-ignore state_referenced_locally
  let palettes = $state.raw(firstPalettes);
  const eyedropper = provideEyedropper();
  const room = new Room('mock-up', {
    hangers: { usual: 212, least: 180, most: 560 },
    fills: { usual: 147, least: 57, most: 420 },
    object: { usual: 264, least: 220, most: 480 },
  });
  let fillsHeight = $state(0);
  let saving = $state(false);
  let showKeys = $state(false);
  const body = $derived(session.body);
  const one = $derived(session.chosen);
  const editor = $derived(session.editor);

  const order = new StepOrder();
  $effect(() => {
    order.see([session.history, ...[...session.editors.values()].map(({ history }) => history)]);
  });
  $effect(() => {
    // Whoever only looks looks around, too, and leaves it as it is.
    if (!mayChange) return;
    if (!session.history.inGesture) session.saver.want(session.history.doc);
    for (const { history, saver } of session.editors.values())
      if (!history.inGesture) saver.want(history.doc);
  });
  // What is selected belongs to one layout at a time.
  $effect(() => {
    const now = editor;
    untrack(() => {
      for (const other of session.editors.values())
        if (other !== now && other.selected.size > 0) other.select([]);
    });
  });

  const counted = $derived.by(() => {
    const [count, what] = [body.objects.length, body.photo ? 'surface' : 'object'];
    return count === 0 ? `no ${what}s yet` : count === 1 ? `one ${what}` : `${count} ${what}s`;
  });
  const PHOTO_KEYS = [
    ['Tab', 'Go from handle to handle'],
    ['Arrows on a handle', 'Move it by one px, with Shift by ten'],
    ['Escape', 'Let go of the shape, or of a stroke'],
    ['Ctrl/Cmd+Z', 'Undo; with Shift redo'],
    ['?', 'Show these keys'],
  ] as const;
  const KEYS = [
    ['Drag, arrows', 'Turn what is seen; with Shift a drag moves it'],
    ['Wheel, + and −', 'Come closer, go away'],
    ['1, 2, 3, 4', LOOKS.map(({ name }) => name.toLowerCase()).join(', ')],
    ['0', 'All of it, in the middle'],
    ['Press', 'Choose an object and the shape on it'],
    ['Drag a chosen shape', 'Move it on the object'],
    ['Escape', 'Let go of the shape'],
    ['Ctrl/Cmd+Z', 'Undo; with Shift redo'],
    ['?', 'Show these keys'],
  ] as const;
  function onkey(event: KeyboardEvent): void {
    if (keyIsTaken(event)) return;
    if (undoByKey(event, order)) event.preventDefault();
    else if (event.key === '?') showKeys = true;
    else if (event.key === 'Escape') {
      if (eyedropper.active) eyedropper.answer(null);
      else editor?.select([]);
    } else if (event.key.toLowerCase() === 's' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      void session.flush();
    }
  }

  keepUnsaved({
    ...{ what: () => `mock-up ${session.id}`, saver: session.saver, history: session.history },
    mayChange: () => mayChange,
    bring: (base, doc) => void session.bringBack(base, doc),
  });
  hearChanges(session, (fresh) => (palettes = fresh));
  onMount(() => room.recall());
  beforeNavigate(({ willUnload, cancel }) => {
    void session.flush();
    if (willUnload && !session.clean) cancel();
  });
</script>

<svelte:window onkeydown={onkey} />
<svelte:document
  onvisibilitychange={() => {
    if (document.visibilityState === 'hidden') void session.flush();
  }}
/>

<div class="view">
  <TopBar
    skip={body.photo
      ? { label: 'To the handles', to: '.space [role="button"]' }
      : { label: 'To the objects', to: '[role="application"]' }}
  >
    {#snippet trail()}
      <a href="/projects/{mockup.projectId}">{mockup.projectName}</a> /
      <NameField
        label="The name of the mock-up"
        value={session.doc.name}
        onset={(name) => {
          session.rename(name);
          return null;
        }}
      />
      · {counted}
    {/snippet}
    {#snippet actions()}
      <WorkingHere kind="mockup" id={session.id} />
      {#if mayChange}<SaveNote state={session.saveState} onretry={() => void session.flush()} />
      {:else}<LookOn what="mock-up" />{/if}
      <Button kind="main" disabled={body.objects.length === 0} onclick={() => (saving = true)}>Picture</Button
      >
    {/snippet}
  </TopBar>
  <div class="columns">
    <div class="hangers-box" class:folded={room.isFolded('hangers')} style:width="{room.size('hangers')}px">
      <HangerPanel
        {hangers}
        {palettes}
        used={new Set(
          (editor ? (editor.chosen.length > 0 ? editor.chosen : editor.doc.shapes) : []).flatMap((shape) =>
            patternFills(shape).map(({ pattern }) => pattern),
          ),
        )}
        hint={!one
          ? 'Put an object there first.'
          : editor && editor.selected.size > 0
            ? 'Press a hanger to fill what is selected.'
            : `Press a hanger to cover the ${one.name} with it.`}
        onpick={(pattern) => void session.fillWith(pattern)}
      />
    </div>
    <Sizer {room} part="hangers" name="hangers" side="left" />
    <main>
      <h1 class="visually-hidden">{session.doc.name}</h1>
      <MockupStage
        {session}
        {palettes}
        {eyedropper}
        {saving}
        kept={keptStill(mockup)}
        onsaved={() => (saving = false)}
      />
      <Sizer {room} part="fills" name="fill bar" side="below" measured={fillsHeight} />
      <div
        class="fills-box"
        class:folded={room.isFolded('fills')}
        bind:offsetHeight={fillsHeight}
        style:height={room.isSized('fills') ? `${room.size('fills')}px` : undefined}
      >
        <OnItBar {editor} {one} {palettes} patterns={hangers.all} layouts={session.layouts} />
      </div>
    </main>
    <Sizer {room} part="object" name="object" side="right" />
    <aside class:folded={room.isFolded('object')} style:width="{room.size('object')}px" aria-label="Objects">
      <div class="list" role="group" aria-label="Objects that stand there">
        {#each body.objects as held (held.id)}
          <Button kind="quiet" pressed={held.id === one?.id} onclick={() => session.choose(held.id)}
            >{held.name}</Button
          >
        {/each}
        {#if body.photo}
          {#if mayChange}<Button kind="quiet" onclick={() => session.addSurface()}
              ><Plus size={15} />Surface</Button
            >{/if}
        {:else}
          {#if mayChange}<AddObject onadd={(kind) => session.add(kind)} />{/if}
        {/if}
      </div>
      {#if one}
        <Fixed fixed={!mayChange}
          >{#key one.id}
            {#if body.photo && one.grid}
              <SurfacePanel {session} {one} photo={body.photo} grid={one.grid} {measure} />
            {:else}
              <ObjectPanel {session} {one} {palettes} {measure} />
            {/if}
          {/key}</Fixed
        >
      {/if}
    </aside>
  </div>
</div>

{#if showKeys}<KeysDialog keys={body.photo ? PHOTO_KEYS : KEYS} onclose={() => (showKeys = false)} />{/if}
{#if session.stale}
  <StaleDialog
    message={session.stale.message}
    onmine={() => session.keepMine()}
    ontheirs={() => void session.takeTheirs()}
  />
{/if}

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
    max-width: 40vw;
    overflow: hidden;
    background: var(--card);
  }
  .columns .folded {
    display: none;
  }
  main {
    display: flex;
    flex: 1;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .fills-box {
    flex: none;
    max-height: 45vh;
    overflow: auto;
    background: var(--card);
    container: fills / inline-size;
  }
  aside {
    flex: none;
    max-width: 40vw;
    min-height: 0;
    overflow: auto;
    background: var(--card);
  }
  .list {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    align-items: center;
    padding: 8px 10px;
    border-bottom: 1px solid var(--rule);
  }
</style>
