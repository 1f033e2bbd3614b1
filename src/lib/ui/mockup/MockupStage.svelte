<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { hexOf } from '$lib/core/colour/parse';
  import type { Point } from '$lib/core/geom/point';
  import { MOCKUP_LIMITS, type Camera } from '$lib/core/mockup/mockup';
  import type { Eyedropper } from '../state/eyedropper.svelte';
  import { toasts } from '../state/toasts.svelte';
  import AddObject from './AddObject.svelte';
  import LightBar from './LightBar.svelte';
  import LookBar from './LookBar.svelte';
  import { carryShape, shapeOn } from './on-object';
  import PhotoBar from './PhotoBar.svelte';
  import PhotoView from './PhotoView.svelte';
  import SceneView from './SceneView.svelte';
  import type { Met } from './scene/object-scene';
  import type { MockupSession } from './session.svelte';
  import { StillKeeper } from './still-keeper';
  import StillDialog from './StillDialog.svelte';

  /** What a mock-up looks like: objects in space or a photograph, with what steers them; its picture is kept and saved from here. */
  type Props = {
    session: MockupSession;
    palettes: PaletteData[];
    eyedropper: Eyedropper;
    /** Where the picture is that was seen last. */
    kept: string | null;
    /** The dialog for pictures is open. */
    saving: boolean;
    onsaved: () => void;
  };
  let { session, palettes, eyedropper, kept, saving, onsaved }: Props = $props();

  const body = $derived(session.body);
  const one = $derived(session.chosen);
  const dragging = $derived(session.history.inGesture || (session.editor?.history.inGesture ?? false));
  // svelte-ignore state_referenced_locally
  let camera = $state.raw<Camera>(session.body.camera);
  let view: SceneView | undefined = $state();
  let photoView: PhotoView | undefined = $state();
  let tool: 'handles' | 'front' | 'look' = $state('handles');
  let brush = $state.raw({ size: 60, softness: 0.4, strength: 1 });
  let mode: 'erase' | 'restore' = $state('erase');

  function look(next: Camera, done = true): void {
    camera = next;
    if (done) session.look(next);
  }

  // svelte-ignore state_referenced_locally
  const keeper = new StillKeeper(session, () => ({
    camera,
    seen: () => (saving ? null : body.photo ? photoView?.seenNow() : view?.seen()) ?? null,
  }));
  $effect(() => () => keeper.stop());

  function answer(rgb: [number, number, number] | null | undefined): void {
    if (rgb) eyedropper.answer(hexOf(rgb));
    else toasts.problem('Nothing is drawn there; press where there is a colour.');
  }
  /** A press takes a colour where one is asked for, else chooses the object and the shape on it. */
  function pick(met: Met | null, share: Point): void {
    if (eyedropper.active)
      return answer((met?.sheet && view?.colourAt(met.id, met.sheet)) ?? view?.seenAt(share));
    if (!met) return session.editor?.select([]);
    session.choose(met.id);
    const shape = met.sheet && shapeOn(session, met);
    session.editor?.select(shape ? [shape] : []);
  }
</script>

<div class="space" style:background={body.ground ?? undefined} class:clear={body.ground === null}>
  {#if body.photo}
    <PhotoView
      bind:this={photoView}
      body={{ ...body, photo: body.photo }}
      pages={session.pages}
      chosen={one?.id ?? null}
      label={session.doc.name}
      {kept}
      plain={tool === 'look'}
      brush={tool === 'front' ? { stroke: brush, mode: mode } : null}
      onmove={(id, points, isLive) =>
        session.changeOne(
          id,
          (held) => (held.grid ? { ...held, grid: { ...held.grid, points } } : held),
          isLive,
        )}
      oncancel={() => session.history.cancel()}
      onchoose={(id) => session.choose(id)}
      onstroke={(stroke) => session.paintFront(stroke)}
      picking={eyedropper.active}
      onpick={answer}
      onrest={() => keeper.rested()}
    />
    <div class="bars">
      <div class="bar">
        <PhotoBar
          {tool}
          {brush}
          {mode}
          strokes={body.photo.strokes.length}
          ontool={(next) => (tool = next)}
          onbrush={(next, does) => ([brush, mode] = [next, does])}
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
      {kept}
      hurried={dragging}
      oncamera={look}
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
          onlook={look}
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
      Press a colour on {body.photo ? 'the photograph' : 'an object'}.
      <button type="button" onclick={() => eyedropper.answer(null)}>Cancel</button>
    </p>
  {/if}
</div>

{#if saving && photoView && body.photo}
  <StillDialog
    view={photoView}
    name={session.doc.name}
    photo={body.photo}
    {camera}
    ground={null}
    onclose={onsaved}
  />
{:else if saving && view}
  <StillDialog {view} name={session.doc.name} {camera} ground={body.ground} onclose={onsaved} />
{/if}

<style>
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
</style>
