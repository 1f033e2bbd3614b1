<script lang="ts">
  import { apply, applyVector, chain, invert, rotation, scaling, translation } from '$lib/core/geom/affine';
  import { boxCorners } from '$lib/core/geom/polygon';
  import { directionDegrees, length, subtract, type Point } from '$lib/core/geom/point';
  import { fromPx } from '$lib/core/num/length';
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { offsetsMeeting, regionOfBox } from '$lib/core/lattice/meet';
  import { motifSize, placingMatrix, type Placing } from '$lib/core/recipe/recipe';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { patternTransform } from '$lib/core/svg/live';
  import { cellMarkup, underlayWidth } from '$lib/core/svg/pieces';
  import { surfaceBackground, type Surface } from '../components/surfaces';
  import { dragging } from '../layout/dragging';
  import { wheelView, type View } from '../layout/view.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { pieceAt } from './hit';

  /** The unit among its veiled neighbours: pieces are moved, sized and turned here, and come back over the edges. */
  type Props = { editor: BenchEditor; view: View; patternId: string; veil: number; surface: Surface };
  let { editor, view, patternId, veil, surface }: Props = $props();

  let width = $state(0);
  let height = $state(0);
  let fitted = false;
  let dropping = $state(false);

  const recipe = $derived(editor.recipe);
  const scene = $derived(editor.scene);
  const unit = $derived(recipe.unit);
  const measure = $derived(recipe.measure);
  const markup = $derived(cellMarkup(scene, editor.colours, underlayWidth(view.zoom)));
  const toScreen = $derived(chain(translation(view.pan.x, view.pan.y), scaling(view.zoom)));
  const outer = $derived(`M0 0H${width}V${height}H0Z`);
  const origin = $derived(view.toScreen({ x: 0, y: 0 }));
  const far = $derived(view.toScreen({ x: unit.width, y: unit.height }));
  const unitPath = $derived(`M${origin.x} ${origin.y}H${far.x}V${far.y}H${origin.x}Z`);
  /** The neighbours' places, so that the repeat can be read. */
  const neighbours = $derived.by(() => {
    const shown = regionOfBox({
      x: -unit.width * 0.6,
      y: -unit.height * 0.6,
      width: unit.width * 2.2,
      height: unit.height * 2.2,
    });
    const box = { x: 0, y: 0, ...unit };
    return offsetsMeeting(scene.lattice, box, shown).filter(
      (offset) => Math.hypot(offset.x, offset.y) > 1e-6,
    );
  });
  const single = $derived(editor.single);
  const singleMotif = $derived(single ? recipe.motifs.find((motif) => motif.id === single.motif) : undefined);
  const sizeOf = (placing: Placing) => {
    const motif = recipe.motifs.find((held) => held.id === placing.motif);
    return motif ? motifSize(motif.content) : { width: 0, height: 0 };
  };
  function cornersOf(placing: Placing): Point[] {
    const size = sizeOf(placing);
    const box = { x: -size.width / 2, y: -size.height / 2, ...size };
    return boxCorners(chain(toScreen, placingMatrix(placing)), box);
  }
  const corners = $derived(single && singleMotif ? cornersOf(single) : []);
  const turner = $derived.by(() => {
    const corner = corners[2];
    if (!corner || !single) return null;
    const out = applyVector(rotation(single.rotation), {
      x: 13 * Math.sign(single.scaleX),
      y: 13 * Math.sign(single.scaleY),
    });
    return { x: corner.x + out.x, y: corner.y + out.y };
  });
  const say = (px: number): string => `${Number(fromPx(px, measure).toFixed(2))} ${measure}`;

  $effect(() => {
    if (width > 0 && height > 0 && !fitted) {
      fitted = true;
      fit();
    }
  });
  export function fit(): void {
    view.fit({ width, height }, unit, { side: width * 0.3, top: height * 0.28, foot: height * 0.28 });
  }
  export function lifeSize(): void {
    view.centre({ width, height }, unit, 1);
  }

  function moving() {
    let from: Point;
    let panFrom: Point;
    let mode: 'move' | 'pan' = 'pan';
    let starts: ReadonlyMap<string, Placing>;
    return dragging({
      view,
      start: (at, event) => {
        from = at;
        panFrom = { x: event.clientX - view.pan.x, y: event.clientY - view.pan.y };
        const hit = pieceAt(scene, at, 3 / view.zoom);
        mode = hit ? 'move' : 'pan';
        if (!hit) {
          if (!event.shiftKey) editor.select([]);
        } else if (event.shiftKey) editor.toggle(hit.piece.id);
        else if (!editor.selected.has(hit.piece.id)) editor.select([hit.piece.id]);
        starts = new Map(editor.chosen.map((placing) => [placing.id, placing]));
      },
      move: (at, event) => {
        if (mode === 'pan') {
          view.pan = { x: event.clientX - panFrom.x, y: event.clientY - panFrom.y };
          return;
        }
        const by = subtract(at, from);
        if (Math.hypot(by.x, by.y) * view.zoom < 3 && !editor.history.inGesture) return;
        if (event.shiftKey) {
          if (Math.abs(by.x) > Math.abs(by.y)) by.y = 0;
          else by.x = 0;
        }
        editor.change((placing) => {
          const start = starts.get(placing.id) ?? placing;
          return { ...placing, x: start.x + by.x, y: start.y + by.y };
        }, true);
      },
      end: () => editor.settle(),
      cancel: () => editor.history.cancel(),
    });
  }

  /** Corner handles keep the ratio; with Shift each side goes its own way. The middle stays where it is. */
  function sizing() {
    let start: Placing;
    let grip: Point;
    return dragging({
      view,
      start: (at) => {
        if (!single) return false;
        start = single;
        grip = { x: at.x - start.x, y: at.y - start.y };
      },
      move: (at, event) => {
        const inverse = invert(rotation(start.rotation));
        if (!inverse) return;
        const before = apply(inverse, grip);
        const now = apply(inverse, { x: at.x - start.x, y: at.y - start.y });
        const alike = Math.max(0.001, length(now) / Math.max(1e-6, length(before)));
        const part = (to: number, of: number): number =>
          Math.max(0.001, to / (Math.abs(of) < 1e-6 ? 1e-6 : of));
        const across = event.shiftKey ? part(now.x, before.x) : alike;
        const down = event.shiftKey ? part(now.y, before.y) : alike;
        const limit = LIMITS.placingScale;
        const held = (scale: number): number =>
          Math.sign(scale) * Math.min(limit.most, Math.max(limit.least, Math.abs(scale)));
        editor.change(
          (placing) => ({
            ...placing,
            scaleX: held(start.scaleX * across),
            scaleY: held(start.scaleY * down),
          }),
          true,
        );
      },
      end: () => editor.settle(),
      cancel: () => editor.history.cancel(),
    });
  }

  function turning() {
    let start: Placing;
    let from = 0;
    return dragging({
      view,
      start: (at) => {
        if (!single) return false;
        start = single;
        from = directionDegrees(subtract(at, start));
      },
      move: (at, event) => {
        let turn = start.rotation + directionDegrees(subtract(at, start)) - from;
        if (event.shiftKey) turn = Math.round(turn / 15) * 15;
        editor.change((placing) => ({ ...placing, rotation: wrapDegrees(turn) }), true);
      },
      end: () => editor.settle(),
      cancel: () => editor.history.cancel(),
    });
  }
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
  style:background={surfaceBackground(surface)}
  ondragover={(event) => {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    dropping = true;
  }}
  ondragleave={() => (dropping = false)}
  ondrop={(event) => {
    event.preventDefault();
    dropping = false;
    for (const file of event.dataTransfer?.files ?? []) void editor.addFile(file);
  }}
>
  <svg role="img" aria-label="The unit and its neighbours" {@attach wheelView(view)} {@attach moving()}>
    <defs>
      <pattern
        id={patternId}
        width={scene.cell.width}
        height={scene.cell.height}
        patternUnits="userSpaceOnUse"
      >
        <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
        {@html markup}
      </pattern>
      <pattern
        id="{patternId}-view"
        href="#{patternId}"
        patternTransform={patternTransform(scene, toScreen)}
      />
    </defs>
    {#if editor.ground}<rect {width} {height} fill={editor.ground} />{/if}
    <rect {width} {height} fill="url(#{patternId}-view)" />
    <path class="veil" fill-rule="evenodd" d="{outer}{unitPath}" fill-opacity={veil} />
    {#each neighbours as offset (`${offset.x},${offset.y}`)}
      {@const at = view.toScreen(offset)}
      <rect class="neighbour" x={at.x} y={at.y} width={far.x - origin.x} height={far.y - origin.y} />
    {/each}
    <path class="edge-halo" d={unitPath} />
    <path class="edge" d={unitPath} />
    <g class="measure" transform="translate({(origin.x + far.x) / 2} {origin.y - 14})">
      <rect x="-38" y="-11" width="76" height="18" /><text text-anchor="middle" y="2">{say(unit.width)}</text>
    </g>
    <g class="measure" transform="translate({far.x + 46} {(origin.y + far.y) / 2})">
      <rect x="-38" y="-11" width="76" height="18" /><text text-anchor="middle" y="2">{say(unit.height)}</text
      >
    </g>
    {#each editor.chosen as placing (placing.id)}
      {@const points = cornersOf(placing)
        .map((corner) => `${corner.x},${corner.y}`)
        .join(' ')}
      <polygon class="halo" {points} />
      <polygon class="chosen" {points} />
    {/each}
    {#if single && turner}
      {#each corners as corner, index (index)}
        <rect
          class="grip"
          role="presentation"
          data-handle="size-{index}"
          x={corner.x - 4.5}
          y={corner.y - 4.5}
          width="9"
          height="9"
          transform="rotate({single.rotation} {corner.x} {corner.y})"
          {@attach sizing()}
        />
      {/each}
      <circle
        class="grip turn"
        role="presentation"
        data-handle="turn"
        cx={turner.x}
        cy={turner.y}
        r="5.5"
        {@attach turning()}
      >
        <title>Turn the piece; Shift for steps of 15°</title>
      </circle>
    {/if}
  </svg>
  {#if recipe.motifs.length === 0}
    <div class="empty">
      <h2>Start with a motif</h2>
      <p>
        Choose a form under “Add” at the left, or drop an SVG file here. Place it as often as you like; what
        crosses an edge comes back on the other side.
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
  svg {
    display: block;
    width: 100%;
    height: 100%;
  }
  .veil {
    fill: #fff;
    pointer-events: none;
  }
  .edge,
  .edge-halo,
  .neighbour,
  .chosen,
  .halo {
    fill: none;
    pointer-events: none;
  }
  .edge-halo {
    stroke: #fff;
    stroke-width: 4px;
  }
  .edge {
    stroke: var(--kelp);
    stroke-width: 2px;
  }
  .neighbour {
    stroke: var(--kelp);
    stroke-width: 1px;
    stroke-dasharray: 4 4;
    opacity: 0.7;
  }
  .halo {
    stroke: rgb(255 255 255 / 85%);
    stroke-width: 4px;
  }
  .chosen {
    stroke: var(--kelp);
    stroke-width: 1.5px;
  }
  .grip {
    fill: #fff;
    stroke: var(--kelp);
    stroke-width: 1.75px;
    cursor: nwse-resize;
  }
  .grip.turn {
    cursor: grab;
  }
  .grip:hover {
    fill: var(--kelp-tint);
  }
  .measure {
    pointer-events: none;
  }
  .measure rect {
    fill: #fff;
  }
  .measure text {
    fill: var(--ink);
    font: 500 12px var(--mono);
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
