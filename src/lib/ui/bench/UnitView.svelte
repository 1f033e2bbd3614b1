<script lang="ts">
  import { untrack } from 'svelte';
  import { chain, scaling, translation } from '$lib/core/geom/affine';
  import { boxOfPoints } from '$lib/core/geom/box';
  import { resolveSlots } from '$lib/core/colour/slots';
  import { resolveGround } from '$lib/core/scene/pattern';
  import { seenSmaller, steppedScale, type ShownSides } from '../state/smaller-pictures';
  import { cellMarkup, underlayWidth } from '$lib/core/svg/pieces';
  import { patternTransform } from '$lib/core/svg/live';
  import GroundRect from '../components/GroundRect.svelte';
  import { wheelView, type View } from '../layout/view.svelte';
  import { bringIn } from './bring-in';
  import type { BenchEditor } from './editor.svelte';
  import { NO_SNAP, moving, type SnapLines } from './piece-drags';
  import PieceHandles from './PieceHandles.svelte';
  import { SIZES, type BenchShow } from './show.svelte';
  import UnitAids from './UnitAids.svelte';
  import UnitEdges from './UnitEdges.svelte';
  import CopiesLayer from './CopiesLayer.svelte';
  import RepeatedPlane from './RepeatedPlane.svelte';
  import { unitOutline } from './unit-outline';

  /**
   * The unit among its neighbours: edges drawn, measured and draggable, neighbours veiled. Pieces are chosen and moved
   * by pressing any of their copies; neighbours follow at once.
   */
  type Props = { editor: BenchEditor; view: View; patternId: string; show: BenchShow };
  let { editor, view, patternId, show }: Props = $props();

  const MANY = 40;
  /** Pictures take much longer to draw than outlines. */
  const MANY_PICTURES = 4;
  let width = $state(0);
  let height = $state(0);
  let fitted = false;
  let dropping = $state(false);
  let snapped: SnapLines = $state.raw(NO_SNAP);

  const scene = $derived(editor.stillScene);
  const measured = $derived(editor.kind === 'measured');
  const underlay = $derived(underlayWidth(view.zoom));
  /** Wide enough for the smallest of all that show the one drawing: this view and the strip of sizes. */
  const widest = $derived(underlayWidth(Math.min(view.zoom, Math.min(...SIZES) * show.screenScale)));
  /** What is drawn: the work, or the last published revision while one looks back. */
  const shown = $derived.by(() => {
    const { published, publishedScene } = editor;
    if (!show.published || !published || !publishedScene)
      return { scene, colours: editor.colours, ground: editor.ground };
    const colours = resolveSlots(published.slots, {});
    return { scene: publishedScene, colours, ground: resolveGround(publishedScene, colours) };
  });
  /** With many pieces the small sizes below wait until a drag has ended: four more drawings of all would cost frames. */
  const shared = $derived(
    show.published || (editor.parted && editor.still.placings.length > (scene.sampled ? MANY_PICTURES : MANY))
      ? shown.scene
      : editor.scene,
  );
  const toScreen = $derived(chain(translation(view.pan.x, view.pan.y), scaling(view.zoom)));
  const outline = $derived(unitOutline(editor.kind === 'composed' ? editor.still : editor.recipe, scene));
  const unitPath = $derived(
    `M${outline
      .map((corner) => view.toScreen(corner))
      .map(({ x, y }) => `${x} ${y}`)
      .join('L')}Z`,
  );

  $effect(() => {
    if (width > 0 && height > 0 && !fitted) {
      fitted = true;
      fit();
    }
  });
  // What is pointed out is brought into sight, where nothing of it is.
  $effect(() => {
    const circles = show.pointed?.circles ?? [];
    untrack(() => {
      const first = circles[0] && view.toScreen(circles[0].at);
      const inSight = circles.some(({ at }) => {
        const { x, y } = view.toScreen(at);
        return x >= 0 && y >= 0 && x <= width && y <= height;
      });
      if (first && !inSight) view.panBy(width / 2 - first.x, height / 2 - first.y);
    });
  });
  export function fit(): void {
    const box = boxOfPoints(outline);
    if (!box) return;
    const repeats = show.flat ? 10 : 1;
    const page = { width: box.width * repeats, height: box.height * repeats };
    const margin = show.flat
      ? { side: 0, top: 0, foot: 0 }
      : { side: width * 0.3, top: height * 0.28, foot: height * 0.28 };
    view.fit({ width, height }, page, margin);
    view.panBy(-box.x * view.zoom, -box.y * view.zoom);
  }
  export function lifeSize(): void {
    view.centre({ width, height }, scene.pitch, show.screenScale);
  }
  const sides: ShownSides = new Map();
  const markup = $derived(cellMarkup(shared, shown.colours, widest));
  const seenAt = $derived(steppedScale(Math.max(view.zoom, Math.max(...SIZES) * show.screenScale)));
</script>

<!-- The unit view takes keys itself; every piece is also listed at the left. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="unit-view"
  class:dropping
  role="application"
  aria-label="Unit view. Arrow keys move the selected piece; press ? for all keys"
  tabindex="0"
  bind:clientWidth={width}
  bind:clientHeight={height}
  style:background={show.background}
  ondragover={(event) => {
    if (measured || !event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    dropping = true;
  }}
  ondragleave={() => (dropping = false)}
  ondrop={(event) => {
    event.preventDefault();
    dropping = false;
    if (!measured) void bringIn(editor, [...(event.dataTransfer?.files ?? [])]);
  }}
>
  <svg class="store" aria-hidden="true">
    <defs>
      <pattern
        id={patternId}
        width={shared.cell.width}
        height={shared.cell.height}
        patternUnits="userSpaceOnUse"
      >
        <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
        {@html seenSmaller(markup, shared, seenAt, sides)}
      </pattern>
    </defs>
  </svg>
  <svg class="layer" aria-hidden="true">
    <GroundRect ground={shown.ground} matrix={toScreen} />
    {#if editor.parted && !show.published}
      <RepeatedPlane scene={editor.parted.behind} colours={shown.colours} matrix={toScreen} {underlay} />
    {:else}
      <pattern
        id="{patternId}-view"
        href="#{patternId}"
        patternTransform={patternTransform(shown.scene, toScreen)}
      />
      <rect {width} {height} fill="url(#{patternId}-view)" />
    {/if}
  </svg>
  {#if editor.parted && editor.moved && !show.published}
    <svg class="layer" aria-hidden="true">
      <CopiesLayer
        scene={editor.moved}
        colours={shown.colours}
        matrix={toScreen}
        {underlay}
        {width}
        {height}
      />
    </svg>
    <svg class="layer" aria-hidden="true">
      <RepeatedPlane scene={editor.parted.inFront} colours={shown.colours} matrix={toScreen} {underlay} />
    </svg>
  {/if}
  <svg
    class="layer"
    role="img"
    aria-label="The unit and its neighbours"
    {@attach wheelView(view)}
    {@attach moving({ editor, view, onsnap: (lines) => (snapped = lines) })}
  >
    {#if !show.flat}
      <path
        class="veil"
        fill-rule="evenodd"
        d="M0 0H{width}V{height}H0Z{unitPath}"
        fill-opacity={show.veil}
      />
      <UnitAids {editor} {view} {show} {snapped} {width} {height} />
      <UnitEdges {editor} {view} {outline} {width} {height} />
      {#if !measured}<PieceHandles {editor} {view} />{/if}
    {/if}
  </svg>
  {#if show.published}<p class="looking">
      Looking back at revision {editor.newest}. V returns to the work.
    </p>{/if}
  {#if scene.empty && !measured}
    <div class="empty">
      <h2>Start with a motif</h2>
      <p>
        Choose a form under “Add” at the left, draw one, or drop an SVG file or a picture here. Place it as
        often as you like; what crosses an edge comes back on the other side.
      </p>
    </div>
  {/if}
</div>

<style>
  .unit-view {
    position: absolute;
    inset: 0;
    overflow: hidden;
    touch-action: none;
    user-select: none;
  }
  .unit-view:focus-visible {
    outline-offset: -3px;
  }
  .dropping {
    outline: 3px solid var(--kelp);
    outline-offset: -3px;
  }
  .layer {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    will-change: transform;
  }
  .store {
    position: absolute;
    width: 0;
    height: 0;
  }
  .veil {
    fill: #fff;
    pointer-events: none;
  }
  .looking {
    position: absolute;
    top: 12px;
    left: 12px;
    padding: 5px 12px;
    border-radius: 8px;
    background: var(--kelp);
    color: #fff;
  }
  .empty {
    position: absolute;
    bottom: 20px;
    left: 50%;
    width: 380px;
    padding: 14px 18px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
    transform: translateX(-50%);
  }
</style>
