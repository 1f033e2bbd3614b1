<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import type { Hex } from '$lib/core/colour/parse';
  import type { Point } from '$lib/core/geom/point';
  import { cutSheet } from '$lib/core/mockup/objects';
  import {
    LOOKS,
    MOCKUP_LIMITS,
    type Camera,
    type LightSetting,
    type Standing,
  } from '$lib/core/mockup/mockup';
  import { clamp, wrapDegrees } from '$lib/core/num/tolerance';
  import { drawSheet, type PageThere, type SheetPicture } from './draw-sheet';
  import { MOST_SHEET, PictureTooLarge, stillOf } from './still';
  import type { Met, ObjectScene } from './scene/object-scene';

  /**
   * Objects seen in space, each with what is drawn on its sheet: turned by a drag, by keys and by the wheel. While something
   * moves it is drawn quickly, at rest ever finer.
   */
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

  /** Sheets are drawn with so many px along their longer side, and anew with more where one looks closely. */
  const SIDE = 1800;
  const HURRIED = 900;
  const STEP = 1.7;
  const WAIT = 120;
  /** After so long without a movement it is drawn finer, ms. */
  const REST = 140;
  /** Moving pictures have so many px at first, then fewer or more by how long they take, ms. */
  const QUICK = { px: 400_000, least: 50_000, most: 4_000_000, slow: 38, fast: 19 };
  let quickPx = QUICK.px;
  let quickAt = 0;

  let canvas: HTMLCanvasElement | undefined = $state();
  let width = $state(0);
  let height = $state(0);
  let scene: ObjectScene | null = $state.raw(null);
  let fault: string | null = $state(null);
  let lost = $state(false);
  /** Which picture of a sheet each object has: of what, and how fine. */
  type Drawn = { of: PageThere; side: number; object: string; made: SheetPicture };
  const drawn = new Map<string, Drawn>();
  let working = false;
  /** The camera and sheets that the canvas shows. */
  let shownAs: string | null = $state(null);

  async function start(): Promise<void> {
    if (!canvas) return;
    try {
      const { ObjectScene } = await import('./scene/object-scene');
      scene = new ObjectScene(canvas);
      fault = null;
    } catch {
      fault =
        'This browser draws nothing in space (WebGL 2 is missing or turned off), so the objects cannot be turned here. Everything else works.';
    }
  }
  onMount(() => {
    void start();
    // The graphics may be taken away (a driver that is started again) and given back.
    const away = (event: Event): void => {
      event.preventDefault();
      lost = true;
    };
    const back = (): void => {
      lost = false;
      scene?.begunAnew();
      draw();
    };
    canvas?.addEventListener('webglcontextlost', away);
    canvas?.addEventListener('webglcontextrestored', back);
    return () => {
      canvas?.removeEventListener('webglcontextlost', away);
      canvas?.removeEventListener('webglcontextrestored', back);
      scene?.dispose();
    };
  });

  const px = $derived({
    width: Math.max(1, Math.round(width * Math.min(2, globalThis.devicePixelRatio ?? 1))),
    height: Math.max(1, Math.round(height * Math.min(2, globalThis.devicePixelRatio ?? 1))),
  });
  const bodies = $derived(
    JSON.stringify(objects.map(({ layout: _, slid: _slid, colourway: _way, name: _name, ...body }) => body)),
  );
  $effect(() => {
    void bodies;
    scene?.setObjects(untrack(() => objects));
    draw();
  });
  $effect(() => {
    scene?.setLight(light, ground);
    draw();
  });
  $effect(() => {
    scene?.look(camera);
    draw();
  });
  $effect(() => {
    void px;
    draw();
  });

  /** Sheets whose pages changed are drawn anew, one after the other; what changes meanwhile is drawn after that. */
  let wanted: { finer: boolean } | null = null;
  $effect(() => {
    void [pages, objects, hurried];
    if (scene) want(false);
  });
  function want(finer: boolean): void {
    wanted = { finer: finer && (wanted?.finer ?? true) };
    if (working) return;
    working = true;
    const first = drawn.size === 0;
    setTimeout(() => void work(), first || hurried ? 0 : WAIT);
  }
  async function work(): Promise<void> {
    try {
      while (wanted && scene) {
        const { finer } = wanted;
        wanted = null;
        await sheets(scene, finer);
      }
      fault = null;
    } catch {
      fault = 'What is drawn on the page cannot be shown on the object just now.';
    } finally {
      working = false;
      draw();
    }
  }
  async function sheets(own: ObjectScene, finer: boolean): Promise<void> {
    for (const { id, object } of objects) {
      const page = pages.get(id);
      const cut = cutSheet(object);
      const before = drawn.get(id);
      if (!page || !cut.ok) {
        drawn.delete(id);
        own.setSheet(id, null);
        continue;
      }
      const usual = hurried && before?.of !== page ? HURRIED : Math.max(SIDE, before?.side ?? 0);
      const side = finer ? sideNow(own, id) : usual;
      const key = JSON.stringify(object);
      const stays = before?.of === page && before.object === key && before.side >= side;
      const made = stays
        ? before.made
        : await drawSheet(page, cut.sheet, Math.min(side, own.mostTexture - 8));
      if (!stays) drawn.set(id, { of: page, side, object: key, made });
      own.setSheet(id, made);
      draw();
      // What has changed meanwhile is drawn at once.
      if (wanted) return;
    }
  }
  /** How fine a sheet need be for what is seen of it. */
  function sideNow(own: ObjectScene, id: string): number {
    const object = objects.find((one) => one.id === id)?.object;
    const cut = object && cutSheet(object);
    if (!cut?.ok) return SIDE;
    const need = Math.max(cut.sheet.width, cut.sheet.height) * own.pxPerMm(px) * STEP;
    let side = SIDE;
    while (side < need && side < MOST_SHEET) side *= STEP;
    return Math.min(MOST_SHEET, Math.round(side));
  }

  let frame = 0;
  let rest: ReturnType<typeof setTimeout> | undefined;
  function draw(): void {
    if (frame || !scene) return;
    frame = requestAnimationFrame(() => {
      frame = 0;
      if (!scene || lost || width < 2 || height < 2) return;
      const now = performance.now();
      const took = now - quickAt;
      quickAt = now;
      // Frames that follow each other tell how much can be drawn.
      if (took < 400)
        quickPx = clamp(
          quickPx * (took > QUICK.slow ? 0.75 : took < QUICK.fast ? 1.1 : 1),
          QUICK.least,
          QUICK.most,
        );
      scene.drawQuick(px, Math.min(1, Math.sqrt(quickPx / (px.width * px.height))));
      say();
      clearTimeout(rest);
      rest = setTimeout(finer, REST);
    });
  }
  function say(): void {
    const blank = objects.some(({ id }) => pages.has(id) && !drawn.has(id));
    shownAs = blank ? null : `${camera.turn} ${camera.raised}`;
  }
  function finer(): void {
    if (frame || !scene || lost || held) return;
    const more = objects.some(({ id }) => {
      const one = drawn.get(id);
      return one !== undefined && scene !== null && sideNow(scene, id) > one.side;
    });
    if (more && !working) want(true);
    const own = scene;
    const step = async (): Promise<void> => {
      if (frame || scene !== own || lost || held) return;
      const more = own.drawFiner(px);
      // No more is asked of the graphics than they have done: what one does meanwhile comes first.
      await own.drawn();
      if (frame || scene !== own) return;
      if (more) rest = setTimeout(() => void step(), 0);
      else if (!working) on.onrest?.();
    };
    void step();
  }
  $effect(() => () => {
    cancelAnimationFrame(frame);
    clearTimeout(rest);
  });

  /** A finished picture of what is seen, of any size; `ground` says whether its own is clear. */
  export async function still(
    size: { width: number; height: number },
    of: { ground: Hex | null; camera?: Camera; rounds?: number; told?: (share: number) => void },
  ): Promise<HTMLCanvasElement> {
    if (!scene) throw new PictureTooLarge(fault ?? 'Nothing is drawn yet.');
    const own = scene;
    held = true;
    try {
      const fine = new Map(
        [...drawn].map(([id, { of: page, object }]) => [
          id,
          { page, object: JSON.parse(object) as Standing['object'] },
        ]),
      );
      return await stillOf(own, fine, size, { light, camera: of.camera ?? camera, ...of });
    } finally {
      held = false;
      own.setLight(light, ground);
      own.look(camera);
      for (const [id, { made }] of drawn) own.setSheet(id, made);
      draw();
    }
  }
  /** While a picture is made nothing else is drawn. */
  let held = false;

  type Pressed = {
    x: number;
    y: number;
    camera: Camera;
    moves: boolean;
    far: boolean;
    carries: ReturnType<NonNullable<Props['grab']>>;
  };
  let from: Pressed | null = null;
  function look(change: Partial<Camera>, done = true): void {
    const next = { ...camera, ...change };
    const { raised, zoom, moved } = MOCKUP_LIMITS;
    on.oncamera(
      {
        turn: wrapDegrees(Math.round(next.turn)),
        raised: clamp(Math.round(next.raised), raised.least, raised.most),
        zoom: clamp(Math.round(next.zoom * 1000) / 1000, zoom.least, zoom.most),
        x: clamp(Math.round(next.x * 1000) / 1000, moved.least, moved.most),
        y: clamp(Math.round(next.y * 1000) / 1000, moved.least, moved.most),
      },
      done,
    );
  }
  /** What is seen goes where the arrow points, as under a hand. */
  function onkeydown(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const step = event.shiftKey ? 15 : 3;
    const named = LOOKS.find(({ key }) => key === event.key);
    const to: Partial<Camera> | undefined = named
      ? { turn: named.turn, raised: named.raised, zoom: 1, x: 0, y: 0 }
      : {
          ArrowLeft: { turn: camera.turn + step },
          ArrowRight: { turn: camera.turn - step },
          ArrowUp: { raised: camera.raised - step },
          ArrowDown: { raised: camera.raised + step },
          '+': { zoom: camera.zoom * 1.15 },
          '-': { zoom: camera.zoom / 1.15 },
          '0': { zoom: 1, x: 0, y: 0 },
        }[event.key];
    if (!to) return;
    event.preventDefault();
    look(to);
  }
  function onwheel(event: WheelEvent): void {
    event.preventDefault();
    look({ zoom: camera.zoom * Math.exp(-event.deltaY * 0.0014) });
  }
  /** A copy of what is seen now; `null` where it is not drawn finely yet. */
  export function seen(): HTMLCanvasElement | null {
    if (!canvas || !scene || lost || canvas.width !== px.width || canvas.height !== px.height) return null;
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [canvas.width, canvas.height];
    copy.getContext('2d')!.drawImage(canvas, 0, 0);
    return copy;
  }
  /** What is drawn at a place of an object's sheet, mm. */
  export function colourAt(id: string, sheet: Point): [number, number, number] | null {
    const made = drawn.get(id)?.made;
    if (!made) return null;
    const [x, y] = [sheet.x * made.px + made.bleed, sheet.y * made.px + made.bleed];
    const data = made.picture.getContext('2d')?.getImageData(Math.floor(x), Math.floor(y), 1, 1).data;
    return data ? [data[0]!, data[1]!, data[2]!] : null;
  }
  /** What is seen at a place of the picture, in shares of it. */
  export function seenAt(share: Point): [number, number, number] | null {
    if (!canvas) return null;
    const one = document.createElement('canvas');
    [one.width, one.height] = [1, 1];
    const context = one.getContext('2d')!;
    const [x, y] = [share.x * canvas.width, share.y * canvas.height];
    context.drawImage(canvas, Math.floor(x), Math.floor(y), 1, 1, 0, 0, 1, 1);
    const { data } = context.getImageData(0, 0, 1, 1);
    return data[3] === 0 ? null : [data[0]!, data[1]!, data[2]!];
  }
  const metAt = (event: MouseEvent): { share: Point; met: Met | null } => {
    const box = canvas!.getBoundingClientRect();
    const share = { x: (event.clientX - box.x) / box.width, y: (event.clientY - box.y) / box.height };
    return { share, met: scene?.at(share, px) ?? null };
  };
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
  onpointerdown={(event) => {
    if (event.button > 1) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const moves = event.shiftKey || event.button === 1;
    const carries = moves ? null : (on.grab?.(metAt(event).met, event) ?? null);
    from = { x: event.clientX, y: event.clientY, camera, moves, far: false, carries };
  }}
  onpointermove={(event) => {
    if (!from) return;
    const [x, y] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.far && Math.hypot(x, y) < 3) return;
    from.far = true;
    if (from.carries) return from.carries(metAt(event).met, false);
    look(
      from.moves
        ? { x: from.camera.x + x / height, y: from.camera.y + y / height }
        : { turn: from.camera.turn - x * 0.6, raised: from.camera.raised + y * 0.4 },
      false,
    );
  }}
  onpointerup={(event) => {
    const { met, share } = metAt(event);
    if (from?.far) {
      if (from.carries) from.carries(met, true);
      else look({});
    } else if (from) on.onpick?.(met, share, event);
    from = null;
  }}
  onpointercancel={() => {
    from?.carries?.(null, true);
    from = null;
  }}
>
  <canvas
    bind:this={canvas}
    data-drawn={shownAs}
    style:width="{width}px"
    style:height="{height}px"
    class:away={fault !== null && !scene}
    aria-label={label}
  ></canvas>
  {#if fault !== null && !scene && kept}
    <img src={kept} alt="{label}, as it was seen last" />
  {/if}
  {#if fault !== null || lost}
    <p class="fault" role="alert">
      {fault ?? 'The graphics were taken away for a moment; they come back by themselves.'}
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
