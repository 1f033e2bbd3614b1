<script lang="ts">
  import { asymmetricUnit, symmetryElements } from '$lib/core/lattice/groups';
  import { latticeVector } from '$lib/core/lattice/repeat';
  import type { Point } from '$lib/core/geom/point';
  import type { View } from '../layout/view.svelte';
  import type { BenchEditor } from './editor.svelte';
  import Guides from './Guides.svelte';
  import type { SnapLines } from './piece-drags';
  import type { BenchShow } from './show.svelte';

  /** What helps at work over the unit: grid, guides, symmetry elements, snapped lines, and what a check points at. */
  type Props = {
    editor: BenchEditor;
    view: View;
    show: BenchShow;
    snapped: SnapLines;
    width: number;
    height: number;
  };
  let { editor, view, show, snapped, width, height }: Props = $props();

  const recipe = $derived(editor.still);
  const repeat = $derived(recipe.repeat);
  const drawn = $derived(editor.kind === 'composed');
  const asymmetric = $derived(
    repeat.kind === 'group' && drawn
      ? asymmetricUnit(repeat.group, recipe.unit, repeat.slant).map((corner) => view.toScreen(corner))
      : [],
  );
  const symmetry = $derived(
    repeat.kind === 'group' && drawn && show.symmetry
      ? symmetryElements(repeat.group, recipe.unit, repeat.slant)
      : [],
  );
  const span = $derived(Math.hypot(width, height) * 2);
  const line = (at: Point, direction: Point): string => {
    const { x, y } = view.toScreen(at);
    return `M${x - direction.x * span} ${y - direction.y * span}L${x + direction.x * span} ${y + direction.y * span}`;
  };
  const star = (order: number): string =>
    Array.from({ length: order }, (_, index) => {
      const angle = (2 * Math.PI * index) / order - Math.PI / 2;
      return `${(Math.cos(angle) * 7).toFixed(2)},${(Math.sin(angle) * 7).toFixed(2)}`;
    }).join(' ');
  /** A pointed-out circle at every lattice point near the unit, so that it is seen where it lies over an edge. */
  const circles = $derived(
    (show.pointed?.circles ?? []).flatMap(({ at, radius }) =>
      [-1, 0, 1].flatMap((i) =>
        [-1, 0, 1].map((j) => {
          const by = latticeVector(editor.stillScene.lattice, i, j);
          return {
            ...view.toScreen({ x: at.x + by.x, y: at.y + by.y }),
            r: radius * view.zoom,
            own: i === 0 && j === 0,
          };
        }),
      ),
    ),
  );
</script>

{#if drawn}
  <Guides
    grid={recipe.aids.showGrid ? recipe.aids.grid : null}
    guides={recipe.aids.guides}
    {view}
    {width}
    {height}
    onset={(guides, live) => {
      const next = { ...editor.settled, aids: { ...editor.settled.aids, guides } };
      if (live) editor.history.live(next);
      else editor.commit(next);
    }}
    oncancel={() => editor.history.cancel()}
  />
{/if}
{#if asymmetric.length > 0}
  <polygon class="asymmetric" points={asymmetric.map(({ x, y }) => `${x},${y}`).join(' ')} />
{/if}
{#each symmetry as element, index (index)}
  {#if element.kind === 'rotation'}
    {@const at = view.toScreen(element.at)}
    <g class="centre" transform="translate({at.x} {at.y})">
      {#if element.order === 2}<ellipse rx="3.5" ry="7" />{:else}<polygon points={star(element.order)} />{/if}
    </g>
  {:else}
    <path class={element.kind} d={line(element.at, element.direction)} />
  {/if}
{/each}
{#if snapped.x !== null}<path class="snapped" d={line({ x: snapped.x, y: 0 }, { x: 0, y: 1 })} />{/if}
{#if snapped.y !== null}<path class="snapped" d={line({ x: 0, y: snapped.y }, { x: 1, y: 0 })} />{/if}
{#each circles as circle, index (index)}
  <circle class="pointed" class:own={circle.own} cx={circle.x} cy={circle.y} r={Math.max(4, circle.r)} />
{/each}
{#each show.pointed?.lines ?? [] as { from, to }, index (index)}
  {@const [start, end] = [view.toScreen(from), view.toScreen(to)]}
  <path class="pointed own" d="M{start.x} {start.y}L{end.x} {end.y}" />
{/each}

<style>
  path,
  polygon,
  ellipse,
  circle,
  .centre {
    pointer-events: none;
  }
  .asymmetric {
    fill: rgb(13 90 80 / 9%);
    stroke: var(--kelp);
    stroke-width: 1.5px;
  }
  .centre {
    fill: #fff;
    stroke: var(--signal);
    stroke-width: 1.75px;
  }
  .mirror,
  .glide {
    fill: none;
    stroke: var(--signal);
    stroke-width: 1.5px;
  }
  .glide {
    stroke-dasharray: 7 4;
  }
  .snapped {
    stroke: var(--signal);
    stroke-width: 1px;
  }
  .pointed {
    fill: none;
    stroke: var(--amber);
    stroke-width: 1.5px;
    stroke-dasharray: 3 3;
    opacity: 0.55;
  }
  .pointed.own {
    stroke-width: 2.25px;
    opacity: 1;
  }
</style>
