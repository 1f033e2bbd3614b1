<script lang="ts">
  import { initialsOf } from '$lib/contract/people';
  import { shapeBox, type Shape } from '$lib/core/recipe/layout';
  import type { DrawnShape } from '$lib/core/draw/list';
  import type { LayoutDoc } from './doc';
  import type { Here } from './here.svelte';
  import type { View } from './view.svelte';

  /** What others have selected: a frame in their colour, with their initials at its corner. */
  type Props = { here: Here; doc: LayoutDoc; view: View; sceneOf: (shape: Shape) => DrawnShape };
  let { here, doc, view, sceneOf }: Props = $props();

  const placed = $derived(`translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`);
  const frames = $derived(
    [...here.others.values()].flatMap((one) => {
      const ids = new Set(one.selected);
      return doc.shapes.filter(({ id }) => ids.has(id)).map((shape) => ({ one, shape }));
    }),
  );
</script>

{#each frames as { one, shape } (`${one.view} ${shape.id}`)}
  {@const scene = sceneOf(shape)}
  {@const box = shapeBox(shape)}
  {@const corner = view.toScreen({ x: box.x + box.width, y: box.y })}
  <g class="other" style:--own={one.colour}>
    <path transform="{placed} translate({scene.x} {scene.y})" d={scene.d} />
    <g transform="translate({corner.x} {corner.y})">
      <rect x="2" y="-15" width="24" height="15" rx="3" />
      <text x="14" y="-4">{initialsOf(one.name)}</text>
    </g>
  </g>
{/each}

<style>
  .other {
    pointer-events: none;
  }
  path {
    fill: none;
    stroke: var(--own);
    stroke-width: 2px;
    stroke-dasharray: 7 3;
    vector-effect: non-scaling-stroke;
  }
  rect {
    fill: var(--own);
  }
  text {
    fill: #fff;
    font: 700 10px var(--sans);
    text-anchor: middle;
  }
</style>
