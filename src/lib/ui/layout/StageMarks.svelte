<script lang="ts">
  import type { Box } from '$lib/core/geom/box';
  import type { Point } from '$lib/core/geom/point';
  import { isPlaced } from '$lib/core/recipe/fill';
  import type { Shape } from '$lib/core/recipe/layout';
  import { pictureGrid } from '$lib/core/scene/handle';
  import type { DrawnShape } from '$lib/core/draw/list';
  import Guides from '../bench/Guides.svelte';
  import type { LayoutDoc } from './doc';
  import DrawLayer from './DrawLayer.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import GradientHandle from './GradientHandle.svelte';
  import GuideEdges from './GuideEdges.svelte';
  import type { MaskBrushNumbers } from './mask-brush';
  import MaskBrush from './MaskBrush.svelte';
  import PinsOnStage from '../talk/PinsOnStage.svelte';
  import type { Talk } from '../talk/talk.svelte';
  import type { Here } from './here.svelte';
  import OthersOnStage from './OthersOnStage.svelte';
  import PageLines from './PageLines.svelte';
  import PathPoints from './PathPoints.svelte';
  import PatternHandle from './PatternHandle.svelte';
  import ShapeHandles from './ShapeHandles.svelte';
  import type { BrushNumbers } from './shapes';
  import SnapView from './SnapView.svelte';
  import type { StageShown } from './stage-drags';
  import { gradientAt } from './steer';
  import type { View } from './view.svelte';

  /** What lies over the page on the stage: its lines and guides, the handles of what is selected, and what a drag shows. */
  type Props = {
    editor: LayoutEditor;
    view: View;
    doc: LayoutDoc;
    width: number;
    height: number;
    /** What tools take at the foot of the stage, px. */
    foot: number;
    shown: StageShown;
    /** The shape that a pattern is dragged over. */
    target: DrawnShape | null;
    sceneOf: (shape: Shape) => DrawnShape;
    here: Here | null;
    talk: Talk | null;
    brush: BrushNumbers;
    maskBrush: MaskBrushNumbers;
    ontext: (at: Point) => void;
    writing: boolean;
  };
  let {
    editor,
    view,
    doc,
    width,
    height,
    foot,
    shown,
    target,
    sceneOf,
    here,
    talk,
    brush,
    maskBrush,
    ontext,
    writing,
  }: Props = $props();

  const single = $derived(editor.single);
  /** A tool that draws has the stage to itself: nothing that could be pulled is in its way. */
  const drawing = $derived(editor.tool !== 'select');
  /** The shape whose handles are shown. */
  const handled = $derived(single && !drawing && !writing && !editor.isLocked(single.id) ? single : null);
  const DRAWN: ReadonlySet<string> = new Set(['line', 'pen', 'freehand', 'brush', 'text']);
  const steered = $derived.by(() => {
    if (!handled || handled.hidden || editor.painting !== null || editor.editingPoints) return null;
    const place = editor.steered ?? 'fill';
    const gradient = gradientAt(editor, handled, place);
    return gradient && { place, gradient };
  });
  const singleFill = $derived(handled && !handled.hidden ? editor.activeOf(handled) : null);
  /** What the pattern's handle lies on: the lattice of the pattern, or the own size of the picture or the page. */
  const grid = $derived.by(() => {
    if (singleFill?.kind === 'picture') return pictureGrid(singleFill);
    const page = singleFill?.kind === 'layout' ? editor.pages.get(singleFill.layout) : null;
    if (page) return pictureGrid(page);
    return singleFill?.kind === 'pattern' ? (editor.lookup(singleFill)?.scene ?? null) : null;
  });

  function screenBox(box: Box): Box {
    const at = view.toScreen(box);
    return { ...at, width: box.width * view.zoom, height: box.height * view.zoom };
  }

  const outlined = $derived([shown.drawn, shown.swept].flatMap((box) => (box ? [screenBox(box)] : [])));
  const placed = $derived(`translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`);
</script>

<svg class="over" class:drawing style="width: {width}px; height: {height}px">
  <PageLines {doc} {view} />
  <GuideEdges {editor} {view} />
  <Guides
    grid={null}
    guides={doc.guides}
    {view}
    {width}
    {height}
    onset={(guides, live) => {
      editor.changePage({ guides }, true);
      if (!live) editor.history.commit();
    }}
    oncancel={() => editor.history.cancel()}
  />
  {#if target}
    <path class="target" transform="{placed} translate({target.x} {target.y})" d={target.d} />
  {/if}
  {#if editor.selected.size > 0 && !writing && (editor.selected.size > 1 || !handled)}
    {#each doc.shapes.filter((shape) => editor.selected.has(shape.id)) as shape (shape.id)}
      {@const scene = sceneOf(shape)}
      <path class="chosen" transform="{placed} translate({scene.x} {scene.y})" d={scene.d} />
    {/each}
  {/if}
  {#if here}<OthersOnStage {here} {doc} {view} {sceneOf} />{/if}
  {#if handled}
    {#if editor.editingPoints}
      <PathPoints shape={handled} {editor} {view} />
    {:else}
      <ShapeHandles shape={handled} {editor} {view} />
    {/if}
    {#if steered}
      <GradientHandle shape={handled} {...steered} {editor} {view} />
    {:else if singleFill && isPlaced(singleFill) && grid && editor.painting === null && !editor.editingPoints}
      <PatternHandle
        {...{ editor, view, grid, width }}
        shape={handled}
        fill={singleFill}
        height={height - foot}
      />
    {/if}
  {/if}
  {#if DRAWN.has(editor.tool)}<DrawLayer {editor} {view} {width} {height} {brush} {ontext} />{/if}
  {#if single && editor.painting !== null}
    <MaskBrush shape={single} {editor} {view} {width} {height} brush={maskBrush} />
  {/if}
  <SnapView shown={shown.snapped} measure={doc.measure} {view} {width} {height} />
  {#if talk?.open}<PinsOnStage {talk} {doc} {view} {width} {height} />{/if}
  {#each outlined as { x, y, width: across, height: down }, index (index)}
    <rect class="sweep" {x} {y} width={across} height={down} />
  {/each}
</svg>

<style>
  .over {
    position: absolute;
    inset: 0;
    pointer-events: none;
    /* A layer of its own: lines that come and go do not make the browser draw the shapes below anew. */
    will-change: transform;
  }
  /* Only what it draws is in the way of the pointer. */
  :global(:where(.stage .over > *)) {
    pointer-events: visiblePainted;
  }
  .drawing :global(:is([data-guide], [data-guide-edge])) {
    pointer-events: none;
  }
  .chosen,
  .target {
    fill: none;
    stroke: var(--kelp);
    stroke-width: 2px;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .target {
    stroke: var(--signal);
    stroke-width: 3px;
  }
  .sweep {
    fill: rgb(13 90 80 / 8%);
    stroke: var(--kelp);
    stroke-dasharray: 4 3;
    pointer-events: none;
  }
</style>
