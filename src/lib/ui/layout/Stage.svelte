<script lang="ts">
  import { untrack } from 'svelte';
  import type { Point } from '$lib/core/geom/point';
  import { heldShapes, type Shape } from '$lib/core/recipe/layout';
  import type { DrawnShape, Layer } from '$lib/core/draw/list';
  import type { Sight } from '$lib/core/colour/vision';
  import type { Eyedropper } from '../state/eyedropper.svelte';
  import LineCheck from '../components/LineCheck.svelte';
  import { drawPlace, placeInPattern } from './line-check';
  import { Bases } from './bases';
  import { CompiledShapes } from './compiled-shapes';
  import { MaskPictures } from './mask-pictures';
  import type { MaskBrushNumbers } from './mask-brush';
  import MaskBrushTools from './MaskBrushTools.svelte';
  import { NOTHING_SHOWN, pressedShape, shapeAt, stageDrag, type StageShown } from './stage-drags';
  import PageDrawing from './PageDrawing.svelte';
  import { stageDrops } from './stage-drops';
  import type { BrushNumbers } from './shapes';
  import type { LayoutEditor } from './editor.svelte';
  import PickLayer from './PickLayer.svelte';
  import type { LayoutPlates } from '../plates/layout-plates.svelte';
  import PlatesOnStage from '../plates/PlatesOnStage.svelte';
  import { MANY, Preview } from './preview';
  import type { Talk } from '../talk/talk.svelte';
  import type { Here } from './here.svelte';
  import StageMarks from './StageMarks.svelte';
  import type { TextWriter } from './text-writer.svelte';
  import TextOnStage from './TextOnStage.svelte';
  import { panFrom, wheelView, type View } from './view.svelte';

  /** The area that shows the layout: pan, zoom, drawing and selecting shapes, and the handles of what is selected. */
  type Props = {
    editor: LayoutEditor;
    view: View;
    /** Little room across: tools lie over the foot of the stage. */
    narrow?: boolean;
    sight?: Sight;
    eyedropper?: Eyedropper | null;
    /** While a key is held: the layout before the last step, or without its patterns. */
    peek?: 'before' | 'plain' | null;
    /** The plates that lie over the page while they are looked at. */
    plates?: LayoutPlates | null;
    /** Who else works on the layout. */
    here?: Here | null;
    /** What is said about the layout. */
    talk?: Talk | null;
    brush: BrushNumbers;
    /** Words that are being written, if any; a press with the text tool begins some, and it is told when they end. */
    writer: TextWriter | null;
    ontext: (at: Point) => void;
    onwritten: () => void;
    /** Told that the selected shape was pressed twice. */
    onopen: () => void;
    /** True while one asks whether a line is real. */
    asking?: boolean;
    onasked?: () => void;
  };
  let {
    editor,
    view,
    narrow = false,
    sight = 'full',
    eyedropper = null,
    peek = null,
    plates = null,
    here = null,
    talk = null,
    brush,
    writer,
    ontext,
    onwritten,
    onopen,
    asking = false,
    onasked = () => undefined,
  }: Props = $props();

  const prefix = $props.id();
  const bases = new Bases(prefix);
  const masks = new MaskPictures();
  /** Room round the page for the chart border, its labels and the tools above. */
  const margin = $derived({ side: 40, top: 76, foot: narrow ? 70 : 44 });
  /** A dial has room beside a page, where that takes little of it. */
  const DIAL_ROOM = { most: 92, share: 0.09 };

  let width = $state(0);
  let height = $state(0);
  /** The view of the last fitting: while it still holds, the page is fitted anew when the stage gets another size. */
  let fitted: { zoom: number; pan: Point } | null = null;
  let pressing = $state(false);
  // The mask's brush starts at a twelfth of the page.
  let maskBrush: MaskBrushNumbers = $state.raw({
    size: untrack(() => Math.min(editor.doc.width, editor.doc.height)) / 12,
    softness: 0.6,
    strength: 1,
    mode: 'erase',
  });
  let shown = $state.raw(NOTHING_SHOWN);
  let spaceDown = $state(false);
  let dropTarget: string | null = $state(null);

  const drags = {
    ...untrack(() => ({ editor, view })),
    panning: () => spaceDown,
    show: (next: Partial<StageShown>) => (shown = { ...shown, ...next }),
  };
  const compiled = new CompiledShapes();
  const sceneOf = (shape: Shape): DrawnShape => compiled.of(shape, editor.lookup);
  const preview = new Preview();
  let canvas: HTMLCanvasElement | undefined = $state();
  /** While many fills move at once the canvas shows them, and the drawing below stays as it was before. */
  const previewing = $derived.by(() => {
    const { history } = editor;
    if (!history.inGesture || editor.selected.size < MANY) return false;
    return preview.ready(untrack(() => history.settled.shapes.map((shape) => sceneOf(shape))));
  });
  const doc = $derived(
    peek === 'before' ? editor.history.previous : previewing ? editor.history.settled : editor.doc,
  );
  const scenes = $derived(doc.shapes.map((shape) => sceneOf(shape)));
  const hiddenShape = $derived(heldShapes(doc, 'hidden'));
  const shownScenes = $derived(
    scenes
      .filter((_, index) => !hiddenShape(doc.shapes[index] as Shape))
      .map((scene) => (peek === 'plain' ? withoutMotifs(scene) : scene)),
  );
  /** As large as the window: a drawing that does not change with the stage is not painted anew with it. */
  let across = $state(0);
  let down = $state(0);
  const drawn = $derived({ width: Math.max(width, across), height: Math.max(height, down) });
  const single = $derived(editor.single);
  $effect(() => {
    if (editor.selected.size >= MANY && !editor.history.inGesture) preview.prepare(scenes, view.zoom);
  });
  $effect(() => {
    if (!previewing || !canvas) return;
    const { shapes, ...page } = editor.doc;
    preview.draw(
      canvas,
      shapes.map((shape) => sceneOf(shape)),
      page,
      view,
    );
  });

  // Not while something is dragged, which would slip from under the pointer, nor while an edge beside it is: then at the end.
  $effect(() => {
    if (width === 0 || height === 0 || pressing) return;
    untrack(() => {
      if (!fitted || (view.zoom === fitted.zoom && samePoint(view.pan, fitted.pan))) fit();
    });
  });
  const samePoint = (one: Point, other: Point): boolean => one.x === other.x && one.y === other.y;

  /** Where the page is fitted by the browser, before the view is alive: with the same room as `fit` gives it. */
  const within = $derived.by(() => {
    if (width > 0) return null;
    const side = `max(${margin.side}px, min(${DIAL_ROOM.most}px, ${DIAL_ROOM.share * 100}%))`;
    return `left: ${side}; right: ${side}; top: ${margin.top}px; width: calc(100% - 2 * ${side}); height: calc(100% - ${margin.top + margin.foot}px)`;
  });

  export function fit(): void {
    const side = Math.max(margin.side, Math.min(DIAL_ROOM.most, width * DIAL_ROOM.share));
    view.fit({ width, height }, doc, { ...margin, side });
    fitted = { zoom: view.zoom, pan: view.pan };
  }
  export function lifeSize(): void {
    view.centre({ width, height }, doc, 1);
  }
  const bare = (layer: Layer): Layer => ({
    ...layer,
    items: layer.items.map((item) => (item.kind === 'tiled' ? { ...item, opacity: 0 } : item)),
  });
  function withoutMotifs(scene: DrawnShape): DrawnShape {
    const { layers, stroke } = scene;
    return {
      ...scene,
      layers: layers.map(bare),
      stroke: stroke && { ...stroke, layers: stroke.layers.map(bare) },
    };
  }

  /** The middle button pans, wherever it is pressed. */
  function panByMiddle(event: PointerEvent & { currentTarget: HTMLElement }): void {
    if (event.button === 1) panFrom(view, event);
  }

  const stageScene = $derived({
    width: doc.width,
    height: doc.height,
    background: doc.background,
    shapes: shownScenes,
  });
  const targetScene = $derived(scenes.find((scene) => scene.id === dropTarget) ?? null);
</script>

<svelte:window
  bind:innerWidth={across}
  bind:innerHeight={down}
  onkeydown={(event) => {
    if (
      event.key === ' ' &&
      event.target === document.activeElement &&
      (event.target as Element).closest('.stage')
    ) {
      spaceDown = true;
      event.preventDefault();
    }
  }}
  onkeyup={(event) => event.key === ' ' && (spaceDown = false)}
  onpointerdowncapture={(event) => (pressing = (event.target as Element).closest('.sheet, .sizer') !== null)}
  onpointerup={() => (pressing = false)}
  onpointercancel={() => (pressing = false)}
/>

<!-- The stage takes keys itself; each shape is also a row of the ledger. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="stage"
  class:drawing={editor.tool !== 'select'}
  class:panning={spaceDown}
  role="application"
  aria-label="Stage. Arrow keys move the selected shape; press ? for all keys"
  tabindex="0"
  bind:clientWidth={width}
  bind:clientHeight={height}
  {@attach stageDrops({ editor, view, over: (shape) => (dropTarget = shape) })}
>
  <div
    class="sheet"
    role={editor.editingPoints ? 'group' : 'img'}
    aria-label={doc.name}
    {@attach wheelView(view)}
    {@attach stageDrag(drags)}
    ondblclick={(event) => {
      // The stage holds the pointer after a press on a shape; a handle that was pressed holds it itself.
      if (event.target !== event.currentTarget || editor.tool !== 'select') return;
      const box = event.currentTarget.getBoundingClientRect();
      const at = view.toPage({ x: event.clientX - box.left, y: event.clientY - box.top });
      const hit = pressedShape(editor, at, shapeAt(event.clientX, event.clientY));
      if (hit === null || editor.isLocked(hit)) return;
      editor.select([hit]);
      onopen();
    }}
    onpointerdown={panByMiddle}
    onpointermove={(event) => {
      if (!plates?.open) return;
      const box = event.currentTarget.getBoundingClientRect();
      plates.at = view.toPage({ x: event.clientX - box.left, y: event.clientY - box.top });
    }}
    onpointerleave={() => plates && (plates.at = null)}
  >
    <PageDrawing {doc} scenes={shownScenes} {bases} {masks} {view} {prefix} {sight} {within} {...drawn} />
    {#if plates?.open}<PlatesOnStage {plates} {view} />{/if}
    <StageMarks
      {editor}
      {view}
      {doc}
      {width}
      {height}
      foot={narrow ? 40 : 0}
      {shown}
      target={targetScene}
      {sceneOf}
      {here}
      {talk}
      {brush}
      {maskBrush}
      {ontext}
      writing={writer !== null}
    />
  </div>
  {#if writer}<TextOnStage {writer} {view} onend={onwritten} />{/if}
  {#if single && editor.painting !== null}
    <MaskBrushTools {editor} shape={single} brush={maskBrush} onset={(next) => (maskBrush = next)} />
  {/if}
  {#if eyedropper?.active}
    <PickLayer {eyedropper} {view} scene={stageScene} />
  {/if}
  {#if asking}
    <LineCheck
      {view}
      draw={(box, side, how) => drawPlace(stageScene, box, side, how)}
      place={(at) => placeInPattern(editor, at)}
      onend={onasked}
    />
  {/if}
  {#if previewing}
    <canvas
      bind:this={canvas}
      aria-hidden="true"
      width={Math.round(width * globalThis.devicePixelRatio)}
      height={Math.round(height * globalThis.devicePixelRatio)}
    ></canvas>
  {/if}
</div>

<style>
  .stage {
    position: absolute;
    inset: 0;
    overflow: hidden;
    background: var(--surround);
    touch-action: none;
    user-select: none;
  }
  /* The ring lies on the uppermost layer: round the whole it would have the browser draw the shapes anew at each step. */
  .stage:focus-visible {
    outline: none;
  }
  .stage:focus-visible :global(.over) {
    outline: 2px solid var(--kelp);
    outline-offset: -3px;
  }
  .drawing {
    cursor: crosshair;
  }
  .panning {
    cursor: grab;
  }
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
  .sheet {
    position: absolute;
    inset: 0;
    isolation: isolate;
    /* On a layer of its own: when the parts beside it get another size it is moved, and not painted anew. */
    will-change: transform;
  }
</style>
