<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import type { Hex } from '$lib/core/colour/parse';
  import type { Point } from '$lib/core/geom/point';
  import type { Camera, LightSetting, Standing } from '$lib/core/mockup/mockup';
  import type { PageThere } from './draw-sheet';
  import { boundedLook, lookByKey } from './looking';
  import type { Met } from './scene/object-scene';
  import { SceneDrawer } from './scene-drawer.svelte';

  /** Objects seen in space, each with what is drawn on its sheet: turned by a drag, by keys and by the wheel. */
  type Props = {
    objects: readonly Standing[];
    /** What each object shows, by its id; none is blank paper. */
    pages: ReadonlyMap<string, PageThere>;
    camera: Camera;
    light: LightSetting;
    ground: Hex | null;
    label: string;
    /** A picture that was kept before, for where nothing can be drawn in space. */
    kept?: string | null;
    /** Something on the pages is being dragged: they are drawn quickly, anew all the time. */
    hurried?: boolean;
    oncamera: (camera: Camera, done: boolean) => void;
    /** Something was pressed and let go of. */
    onpick?: (met: Met | null, share: Point, event: MouseEvent) => void;
    /** Answers what a drag that begins on something does: `null` turns all of it. */
    grab?: (met: Met | null, event: PointerEvent) => ((met: Met | null, done: boolean) => void) | null;
    /** All of it is drawn as fine as it gets. */
    onrest?: () => void;
  };
  let { objects, pages, camera, light, ground, label, kept = null, hurried = false, ...on }: Props = $props();

  let canvas: HTMLCanvasElement | undefined = $state();
  let width = $state(0);
  let height = $state(0);
  const MOST_RATIO = 2;
  const px = $derived.by(() => {
    const ratio = Math.min(MOST_RATIO, globalThis.devicePixelRatio ?? 1);
    return {
      width: Math.max(1, Math.round(width * ratio)),
      height: Math.max(1, Math.round(height * ratio)),
    };
  });
  const drawer = new SceneDrawer(() => ({
    ...{ objects, pages, camera, light, ground, px, hurried },
    onrest: () => on.onrest?.(),
  }));
  onMount(() => (canvas ? drawer.start(canvas) : undefined));

  const bodies = $derived(
    JSON.stringify(objects.map(({ layout: _, slid: _slid, colourway: _way, name: _name, ...body }) => body)),
  );
  $effect(() => {
    void bodies;
    drawer.scene?.setObjects(untrack(() => objects));
    drawer.draw();
  });
  // The same things in a body that is another (a view that is kept, a name) are nothing to draw.
  const stands = $derived(objects);
  const lamp = $derived(light);
  const floor = $derived(ground);
  $effect(() => {
    drawer.scene?.setLight(lamp, floor);
    drawer.draw();
  });
  $effect(() => {
    drawer.scene?.look(camera);
    drawer.draw();
  });
  $effect(() => {
    void px;
    drawer.draw();
  });
  $effect(() => {
    void [pages, stands, hurried];
    if (drawer.scene) untrack(() => drawer.want(false));
  });

  export const still: SceneDrawer['still'] = (size, of) => drawer.still(size, of);
  export const seen: SceneDrawer['seen'] = () => drawer.seen();
  export const colourAt: SceneDrawer['colourAt'] = (id, sheet) => drawer.colourAt(id, sheet);
  export const seenAt: SceneDrawer['seenAt'] = (share) => drawer.seenAt(share);

  const look = (change: Partial<Camera>, done = true): void =>
    on.oncamera(boundedLook({ ...camera, ...change }), done);
  function onkeydown(event: KeyboardEvent): void {
    const to = lookByKey(event, camera);
    if (!to) return;
    event.preventDefault();
    look(to);
  }
  function onwheel(event: WheelEvent): void {
    event.preventDefault();
    look({ zoom: camera.zoom * Math.exp(-event.deltaY * 0.0014) });
  }

  type Pressed = {
    x: number;
    y: number;
    camera: Camera;
    moves: boolean;
    far: boolean;
    carries: ReturnType<NonNullable<Props['grab']>>;
  };
  let from: Pressed | null = null;
  const shareAt = (event: MouseEvent): Point => {
    const box = canvas!.getBoundingClientRect();
    return { x: (event.clientX - box.x) / box.width, y: (event.clientY - box.y) / box.height };
  };
  const metAt = (event: MouseEvent): Met | null => drawer.at(shareAt(event));
  function onpointerdown(event: PointerEvent & { currentTarget: HTMLElement }): void {
    if (event.button > 1) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const moves = event.shiftKey || event.button === 1;
    const carries = moves ? null : (on.grab?.(metAt(event), event) ?? null);
    from = { x: event.clientX, y: event.clientY, camera, moves, far: false, carries };
  }
  function onpointermove(event: PointerEvent): void {
    if (!from) return;
    const [x, y] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.far && Math.hypot(x, y) < 3) return;
    from.far = true;
    if (from.carries) return from.carries(metAt(event), false);
    const { camera: start, moves } = from;
    look(
      moves
        ? { x: start.x + x / height, y: start.y + y / height }
        : { turn: start.turn - x * 0.6, raised: start.raised + y * 0.4 },
      false,
    );
  }
  function onpointerup(event: PointerEvent): void {
    if (from?.far) {
      if (from.carries) from.carries(metAt(event), true);
      else look({});
    } else if (from) on.onpick?.(metAt(event), shareAt(event), event);
    from = null;
  }
  function onpointercancel(): void {
    from?.carries?.(null, true);
    from = null;
  }
</script>

<!-- A picture that is turned by its arrows: the numbers beside it do the same. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  class="stage"
  role="application"
  aria-label="{label}. Arrow keys turn it, plus and minus come closer"
  tabindex="0"
  bind:clientWidth={width}
  bind:clientHeight={height}
  {onkeydown}
  {onwheel}
  {onpointerdown}
  {onpointermove}
  {onpointerup}
  {onpointercancel}
>
  <canvas
    bind:this={canvas}
    data-drawn={drawer.shownAs}
    style:width="{width}px"
    style:height="{height}px"
    class:away={drawer.fault !== null && !drawer.scene}
    aria-label={label}
  ></canvas>
  {#if drawer.fault !== null && !drawer.scene && kept}
    <img src={kept} alt="{label}, as it was seen last" />
  {/if}
  {#if drawer.fault !== null || drawer.lost}
    <p class="fault" role="alert">
      {drawer.fault ?? 'The graphics were taken away for a moment; they come back by themselves.'}
    </p>
  {/if}
</div>

<style>
  .stage {
    position: relative;
    width: 100%;
    height: 100%;
    min-height: 0;
    overflow: hidden;
    cursor: grab;
    touch-action: none;
  }
  .stage:active {
    cursor: grabbing;
  }
  .stage:focus-visible {
    outline-offset: -2px;
  }
  canvas {
    display: block;
  }
  .away {
    display: none;
  }
  img {
    display: block;
    width: 100%;
    height: 100%;
    object-fit: contain;
  }
  .fault {
    position: absolute;
    inset: auto 12px 12px;
    padding: 8px 12px;
    border-radius: var(--radius);
    background: var(--card);
    color: var(--signal);
    font-size: var(--small);
  }
</style>
