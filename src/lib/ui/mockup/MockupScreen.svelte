<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import { onMount, untrack } from 'svelte';
  import type { LayoutInUse, LayoutSummary, MockupData, PaletteData } from '$lib/contract/data';
  import { hexOf } from '$lib/core/colour/parse';
  import type { Point } from '$lib/core/geom/point';
  import type { LengthUnit } from '$lib/core/num/length';
  import { LOOKS, MOCKUP_LIMITS, type Camera } from '$lib/core/mockup/mockup';
  import { patternFills } from '$lib/core/recipe/layout';
  import Plus from '@lucide/svelte/icons/plus';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import SaveNote from '../components/SaveNote.svelte';
  import Sizer from '../components/Sizer.svelte';
  import StaleDialog from '../components/StaleDialog.svelte';
  import TopBar from '../components/TopBar.svelte';
  import HangerPanel from '../layout/HangerPanel.svelte';
  import type { Hangers } from '../layout/hangers';
  import KeysDialog from '../layout/KeysDialog.svelte';
  import { provideEyedropper } from '../state/eyedropper.svelte';
  import { Room } from '../state/room.svelte';
  import { toasts } from '../state/toasts.svelte';
  import { keyIsTaken, undoByKey } from '../state/undo-keys';
  import AddObject from './AddObject.svelte';
  import { hearChanges } from './hear';
  import LightBar from './LightBar.svelte';
  import LookBar from './LookBar.svelte';
  import ObjectPanel from './ObjectPanel.svelte';
  import { carryShape, shapeOn } from './on-object';
  import OnItBar from './OnItBar.svelte';
  import PhotoBar from './PhotoBar.svelte';
  import PhotoView from './PhotoView.svelte';
  import SurfacePanel from './SurfacePanel.svelte';
  import SceneView from './SceneView.svelte';
  import type { Met } from './scene/object-scene';
  import { MockupSession } from './session.svelte';
  import { StillKeeper } from './still-keeper';
  import { StepOrder } from './step-order';
  import StillDialog from './StillDialog.svelte';

  /** The mock-up view: hangers left, objects in space, the fill bar of what is pressed on them, what the chosen object is. */
  type Props = {
    mockup: MockupData;
    used: LayoutInUse[];
    layouts: LayoutSummary[];
    hangers: Hangers;
    palettes: PaletteData[];
    measure: LengthUnit;
  };
  let { mockup, used, layouts, hangers, palettes: firstPalettes, measure }: Props = $props();

  // svelte-ignore state_referenced_locally
  const session = new MockupSession(mockup, used, layouts);
  // svelte-ignore state_referenced_locally
  let palettes = $state.raw(firstPalettes);
  const eyedropper = provideEyedropper();
  const room = new Room('mock-up', {
    hangers: { usual: 212, least: 180, most: 560 },
    fills: { usual: 147, least: 57, most: 420 },
    object: { usual: 264, least: 220, most: 480 },
  });
  let view: SceneView | undefined = $state();
  let fillsHeight = $state(0);
  let saving = $state(false);
  let photoView: PhotoView | undefined = $state();
  let photoTool: 'handles' | 'front' | 'look' = $state('handles');
  let brush = $state.raw({ size: 60, softness: 0.4, strength: 1 });
  let brushMode: 'erase' | 'restore' = $state('erase');
  // svelte-ignore state_referenced_locally
  const keptStill =
    mockup.stillAt === null ? null : `/api/v1/mock-ups/${mockup.id}/still?made=${mockup.stillAt}`;
  let showKeys = $state(false);
  // svelte-ignore state_referenced_locally
  let camera = $state.raw<Camera>(mockup.body.camera);
  const body = $derived(session.body);
  const one = $derived(session.chosen);
  const editor = $derived(session.editor);
  const dragging = $derived(session.history.inGesture || (editor?.history.inGesture ?? false));

  const order = new StepOrder();
  $effect(() => {
    order.see([session.history, ...[...session.editors.values()].map(({ history }) => history)]);
  });
  $effect(() => {
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

  hearChanges(session, (fresh) => (palettes = fresh));
  onMount(() => room.recall());
  beforeNavigate(({ willUnload, cancel }) => {
    void session.flush();
    if (willUnload && !session.clean) cancel();
  });

  const keeper = new StillKeeper(session, () => ({
    camera,
    seen: () => (saving ? null : body.photo ? photoView?.seenNow() : view?.seen()) ?? null,
  }));
  $effect(() => () => keeper.stop());

  function pick(met: Met | null, share: Point): void {
    if (eyedropper.active) {
      const rgb = (met?.sheet && view?.colourAt(met.id, met.sheet)) ?? view?.seenAt(share);
      if (rgb) eyedropper.answer(hexOf(rgb));
      else toasts.problem('Nothing is drawn there; press where there is a colour.');
      return;
    }
    if (!met) return editor?.select([]);
    session.choose(met.id);
    const shape = met.sheet && shapeOn(session, met);
    session.editor?.select(shape ? [shape] : []);
  }
</script>

<svelte:window onkeydown={onkey} />
<svelte:document
  onvisibilitychange={() => {
    if (document.visibilityState === 'hidden') void session.flush();
  }}
/>

<div class="view">
  <TopBar skip={{ label: 'To the objects', to: '[role="application"]' }}>
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
      · {body.objects.length === 1 ? 'one object' : `${body.objects.length} objects`}
    {/snippet}
    {#snippet actions()}
      <SaveNote state={session.saveState} onretry={() => void session.flush()} />
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
      <div class="space" style:background={body.ground ?? undefined} class:clear={body.ground === null}>
        {#if body.photo}
          <PhotoView
            bind:this={photoView}
            body={{ ...body, photo: body.photo }}
            pages={session.pages}
            chosen={one?.id ?? null}
            label={session.doc.name}
            kept={keptStill}
            plain={photoTool === 'look'}
            brush={photoTool === 'front' ? { stroke: brush, mode: brushMode } : null}
            onmove={(id, points, isLive) =>
              session.changeOne(
                id,
                (held) => (held.grid ? { ...held, grid: { ...held.grid, points } } : held),
                isLive,
              )}
            oncancel={() => session.history.cancel()}
            onchoose={(id) => session.choose(id)}
            onstroke={(stroke) => session.paintFront(stroke)}
            onrest={() => keeper.rested()}
          />
          <div class="bars">
            <div class="bar">
              <PhotoBar
                tool={photoTool}
                {brush}
                mode={brushMode}
                strokes={body.photo.strokes.length}
                ontool={(tool) => (photoTool = tool)}
                onbrush={(next, mode) => ([brush, brushMode] = [next, mode])}
                onclear={() => session.clearFront()}
              />
            </div>
          </div>
        {:else}
          <SceneView
            bind:this={view}
            objects={body.objects}
            pages={session.pages}
            {camera}
            light={body.light}
            ground={body.ground}
            label={session.doc.name}
            kept={keptStill}
            hurried={dragging}
            oncamera={(next, done) => {
              camera = next;
              if (done) session.look(next);
            }}
            onpick={pick}
            grab={(met) =>
              met?.sheet && met.id === one?.id && !eyedropper.active ? carryShape(session, met) : null}
            onrest={() => keeper.rested()}
          />
          {#if body.objects.length === 0}
            <div class="empty">
              <p>Nothing stands here yet. Put an object there: a cup, a bag, a poster.</p>
              <AddObject onadd={(kind) => session.add(kind)} />
            </div>
          {/if}
          <div class="bars">
            <div class="bar">
              <LookBar
                {camera}
                views={body.views}
                full={body.views.length >= MOCKUP_LIMITS.views}
                onlook={(next) => {
                  camera = next;
                  session.look(next);
                }}
                onviews={(views) => session.change((held) => ({ ...held, views }))}
              />
            </div>
            <div class="bar">
              <LightBar
                light={body.light}
                ground={body.ground}
                {palettes}
                onlight={(light) => session.change((held) => ({ ...held, light }))}
                onground={(ground, live) => session.change((held) => ({ ...held, ground }), live)}
              />
            </div>
          </div>
        {/if}
        {#if eyedropper.active}
          <p class="asking" role="status">
            Press a colour on an object. <button type="button" onclick={() => eyedropper.answer(null)}
              >Cancel</button
            >
          </p>
        {/if}
      </div>
      <Sizer {room} part="fills" name="fill bar" side="below" measured={fillsHeight} />
      <div
        class="fills-box"
        class:folded={room.isFolded('fills')}
        bind:offsetHeight={fillsHeight}
        style:height={room.isSized('fills') ? `${room.size('fills')}px` : undefined}
      >
        <OnItBar {editor} {one} {palettes} patterns={hangers.all} />
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
          <Button kind="quiet" onclick={() => session.addSurface()}><Plus size={15} />Surface</Button>
        {:else}
          <AddObject onadd={(kind) => session.add(kind)} />
        {/if}
      </div>
      {#if one}
        {#key one.id}
          {#if body.photo && one.grid}
            <SurfacePanel {session} {one} photo={body.photo} grid={one.grid} {measure} />
          {:else}
            <ObjectPanel {session} {one} {palettes} {measure} />
          {/if}
        {/key}
      {/if}
    </aside>
  </div>
</div>

{#if saving && photoView && body.photo}
  <StillDialog
    view={photoView}
    name={session.doc.name}
    photo={body.photo}
    {camera}
    ground={null}
    onclose={() => (saving = false)}
  />
{:else if saving && view}
  <StillDialog
    {view}
    name={session.doc.name}
    {camera}
    ground={body.ground}
    onclose={() => (saving = false)}
  />
{/if}
{#if showKeys}<KeysDialog keys={KEYS} onclose={() => (showKeys = false)} />{/if}
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
  .space {
    position: relative;
    flex: 1;
    min-height: 0;
  }
  .clear {
    background: repeating-conic-gradient(#e9e9e6 0 25%, #f6f6f4 0 50%) 0 0 / 22px 22px;
  }
  .bars {
    position: absolute;
    inset: 10px 10px auto;
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 6px;
    pointer-events: none;
  }
  .bar {
    border-radius: var(--radius);
    background: var(--card);
    box-shadow: var(--shadow);
    pointer-events: auto;
  }
  .asking,
  .empty {
    position: absolute;
    inset: auto auto 12px 50%;
    padding: 8px 12px;
    border-radius: var(--radius);
    background: var(--card);
    box-shadow: var(--shadow);
    transform: translateX(-50%);
  }
  .empty {
    inset: 40% auto auto 50%;
    display: grid;
    gap: 10px;
    justify-items: center;
    padding: 18px 24px;
  }
  .asking button {
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
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
