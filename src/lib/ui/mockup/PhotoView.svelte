<script lang="ts">
  import { urlOf } from '../state/api';
  import { onMount, untrack } from 'svelte';
  import type { BrushStroke } from '$lib/core/geom/brush-stroke';
  import type { Point } from '$lib/core/geom/point';
  import type { Mockup, Standing } from '$lib/core/mockup/mockup';
  import type { Photo } from '$lib/core/mockup/photo';
  import { cutSheet } from '$lib/core/mockup/objects';
  import type { MaskStroke } from '$lib/core/recipe/mask';
  import BrushSurface from '../components/BrushSurface.svelte';
  import { drawSheet, type PageThere, type SheetPicture } from './draw-sheet';
  import type { PhotoScene } from './scene/photo-scene';
  import { frontOf, photoStill } from './photo-still';
  import { PictureTooLarge } from './still';
  import SurfaceHandles from './SurfaceHandles.svelte';

  /** A photograph with what is printed laid on its surfaces; the handles of the chosen one are dragged, or moved by arrow keys. */
  type Props = {
    body: Mockup & { photo: Photo };
    pages: ReadonlyMap<string, PageThere>;
    chosen: string | null;
    label: string;
    kept?: string | null;
    /** The handles are hidden, to see the picture alone. */
    plain: boolean;
    /** The brush that paints what lies in front; `null` where none is in the hand. */
    brush: { stroke: Omit<BrushStroke, 'points'>; mode: MaskStroke['mode'] } | null;
    onmove: (id: string, points: Point[], live: boolean) => void;
    oncancel: () => void;
    /** A colour is to be taken off it: told what is seen where it is pressed. */
    picking: boolean;
    onpick: (rgb: [number, number, number] | null) => void;
    onchoose: (id: string) => void;
    onstroke: (stroke: MaskStroke) => void;
    onrest?: () => void;
  };
  let { body, pages, chosen, label, kept = null, plain, brush, picking, ...on }: Props = $props();

  /** Sheets are drawn with so many px along their longer side. */
  const SIDE = 1800;
  const WAIT = 100;
  const REST = 160;

  let canvas: HTMLCanvasElement | undefined = $state();
  let width = $state(0);
  let height = $state(0);
  let scene: PhotoScene | null = $state.raw(null);
  let fault: string | null = $state(null);
  let shown: string | null = $state(null);
  let live: MaskStroke | null = $state.raw(null);
  const { photo } = $derived(body);
  /** The photograph as large as it fits. */
  const scale = $derived(Math.min(width / photo.width, height / photo.height));
  const seen = $derived({ width: photo.width * scale, height: photo.height * scale });
  const px = $derived.by(() => {
    const ratio = Math.min(2, globalThis.devicePixelRatio ?? 1);
    return {
      width: Math.max(1, Math.round(seen.width * ratio)),
      height: Math.max(1, Math.round(seen.height * ratio)),
    };
  });

  async function start(): Promise<void> {
    if (!canvas) return;
    const image = new Image();
    image.src = urlOf('GET /motifs/{hash}', { hash: photo.asset });
    try {
      await image.decode();
    } catch {
      fault = 'The photograph of this mock-up cannot be read; what was made on it is left as it is.';
      return;
    }
    try {
      const { PhotoScene } = await import('./scene/photo-scene');
      scene = new PhotoScene(canvas, image, photo);
    } catch {
      fault =
        'This browser draws nothing on photographs (WebGL 2 is missing or turned off). Everything else works.';
    }
  }
  onMount(() => {
    void start();
    return () => scene?.dispose();
  });

  type Drawn = { of: PageThere; object: string; made: SheetPicture };
  const drawn = new Map<string, Drawn>();
  let asked = 0;
  $effect(() => {
    const own = scene;
    const [all, wanted] = [body.objects, pages];
    if (!own) return;
    const wait = setTimeout(() => void sheets(own, all, wanted), untrack(() => drawn.size) === 0 ? 0 : WAIT);
    return () => clearTimeout(wait);
  });
  async function sheets(
    own: PhotoScene,
    all: readonly Standing[],
    wanted: ReadonlyMap<string, PageThere>,
  ): Promise<void> {
    asked += 1;
    const turn = asked;
    own.keepOnly(new Set(all.map(({ id }) => id)));
    try {
      for (const [at, surface] of all.entries()) {
        const page = wanted.get(surface.id);
        const cut = cutSheet(surface.object);
        const key = JSON.stringify(surface.object);
        const before = drawn.get(surface.id);
        if (page && before?.of === page && before.object === key) continue;
        if (!page || !cut.ok) {
          drawn.delete(surface.id);
          own.setSurface(surface, null, at);
          continue;
        }
        const made = await drawSheet(page, cut.sheet, Math.min(SIDE, own.mostTexture - 8));
        if (turn !== asked) return;
        drawn.set(surface.id, { of: page, object: key, made });
        own.setSurface(surface, made, at);
      }
      fault = null;
    } catch {
      fault = 'What is drawn on the page cannot be shown on the photograph just now.';
    }
    draw();
  }
  $effect(() => {
    for (const surface of body.objects) scene?.moveSurface(surface);
    draw();
  });
  $effect(() => {
    const strokes = live ? [...photo.strokes, live] : photo.strokes;
    scene?.setFront(frontOf(photo, strokes));
    draw();
  });
  $effect(() => {
    void px;
    draw();
  });
  let frame = 0;
  let rest: ReturnType<typeof setTimeout> | undefined;
  function draw(): void {
    if (frame || !scene) return;
    frame = requestAnimationFrame(() => {
      frame = 0;
      if (!scene || px.width < 2) return;
      scene.draw(px);
      shown = body.objects.some(({ id }) => pages.has(id) && !drawn.has(id)) ? null : 'yes';
      clearTimeout(rest);
      rest = setTimeout(finer, REST);
    });
  }
  function finer(): void {
    if (frame || !scene) return;
    if (scene.drawFiner(px)) rest = setTimeout(finer, 0);
    else on.onrest?.();
  }
  $effect(() => () => {
    cancelAnimationFrame(frame);
    clearTimeout(rest);
  });

  /** A finished picture of the photograph with all that lies on it, of any size. */
  export async function still(
    size: { width: number; height: number },
    { told = () => undefined }: { told?: (share: number) => void },
  ): Promise<HTMLCanvasElement> {
    if (!scene) throw new PictureTooLarge(fault ?? 'Nothing is drawn yet.');
    const own = scene;
    try {
      return await photoStill(own, body, pages, size, told);
    } finally {
      body.objects.forEach((surface, at) => own.setSurface(surface, drawn.get(surface.id)?.made ?? null, at));
      draw();
    }
  }
  function seenAt(event: MouseEvent & { currentTarget: HTMLElement }): [number, number, number] | null {
    const copy = seenNow();
    const box = event.currentTarget.getBoundingClientRect();
    if (!copy) return null;
    const [x, y] = [
      ((event.clientX - box.x) / box.width) * copy.width,
      ((event.clientY - box.y) / box.height) * copy.height,
    ];
    const { data } = copy.getContext('2d')!.getImageData(Math.floor(x), Math.floor(y), 1, 1);
    return [data[0]!, data[1]!, data[2]!];
  }
  /** A copy of what is seen now. */
  export function seenNow(): HTMLCanvasElement | null {
    if (!canvas || !scene) return null;
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [canvas.width, canvas.height];
    copy.getContext('2d')!.drawImage(canvas, 0, 0);
    return copy;
  }
</script>

<div class="frame" bind:clientWidth={width} bind:clientHeight={height}>
  <div class="photo" style:width="{seen.width}px" style:height="{seen.height}px">
    <canvas
      bind:this={canvas}
      data-drawn={shown}
      style:width="{seen.width}px"
      style:height="{seen.height}px"
      aria-label={label}
    ></canvas>
    {#if fault !== null && !scene && kept}<img src={kept} alt="{label}, as it was seen last" />{/if}
    {#if !plain && !brush && scale > 0}
      <SurfaceHandles
        surfaces={body.objects}
        {chosen}
        {photo}
        {scale}
        onmove={on.onmove}
        oncancel={on.oncancel}
        onchoose={on.onchoose}
      />
    {/if}
    {#if picking}
      <!-- A place of the picture is told by the pointer alone. -->
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <div class="brush picking" onclick={(event) => on.onpick(seenAt(event))}></div>
    {/if}
    {#if brush}
      <div class="brush">
        <BrushSurface
          label="Paint what lies in front of the surfaces"
          {scale}
          brush={brush.stroke}
          onlive={(stroke) => (live = stroke && { ...stroke, mode: brush.mode })}
          onset={(stroke) => {
            live = null;
            on.onstroke({ ...stroke, mode: brush.mode });
          }}
        />
      </div>
    {/if}
  </div>
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
</div>

<style>
  .frame {
    position: relative;
    display: grid;
    place-items: center;
    width: 100%;
    height: 100%;
    overflow: hidden;
    background: var(--surround);
  }
  .photo {
    position: relative;
  }
  canvas,
  img {
    display: block;
  }
  img,
  .brush {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  .picking {
    cursor: crosshair;
  }
  .fault {
    position: absolute;
    inset: auto 12px 12px;
    padding: 8px 12px;
    border-radius: var(--radius);
    background: var(--card);
    color: var(--signal);
  }
</style>
