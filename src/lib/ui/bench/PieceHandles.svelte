<script lang="ts">
  import Grip from '../components/Grip.svelte';
  import { apply, multiply, type Affine } from '$lib/core/geom/affine';
  import { boxCentre } from '$lib/core/geom/box';
  import { boxCorners } from '$lib/core/geom/polygon';
  import { length, subtract, type Point } from '$lib/core/geom/point';
  import { placingMatrix, type Placing } from '$lib/core/recipe/recipe';
  import { imagesOf } from '$lib/core/lattice/repeat';
  import { compileMotif } from '$lib/core/scene/motif';
  import type { View } from '../layout/view.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { sizing, turning } from './piece-drags';

  /** The frames of the chosen pieces, and the handles of a single one: corners size it, the round one turns it. */
  type Props = { editor: BenchEditor; view: View };
  let { editor, view }: Props = $props();

  const recipe = $derived(editor.composed);
  const single = $derived(editor.single);
  const boxes = $derived(new Map(recipe.motifs.map((motif) => [motif.id, compileMotif(motif).box])));
  const images = $derived(imagesOf(recipe.unit, recipe.gap, recipe.repeat));
  const context = $derived({ editor, view, onsnap: () => undefined });

  function corners(placing: Placing, image: Affine | undefined): Point[] {
    const box = boxes.get(placing.motif);
    if (!box || !image) return [];
    return boxCorners(multiply(image, placingMatrix(placing)), box).map((corner) => view.toScreen(corner));
  }
  const frame = (placing: Placing, image: Affine | undefined): string =>
    corners(placing, image)
      .map(({ x, y }) => `${x},${y}`)
      .join(' ');
  const grips = $derived(single ? corners(single, images[0]) : []);
  /** What can be caught of a corner: less on a small piece, so that its middle is left to move it by. */
  const reach = $derived.by(() => {
    const [one, other, , last] = grips;
    if (!one || !other || !last) return 24;
    return Math.min(24, 0.6 * Math.min(length(subtract(one, other)), length(subtract(one, last))));
  });
  const turner = $derived.by(() => {
    const box = single && boxes.get(single.motif);
    if (!single || !box) return null;
    const matrix = placingMatrix(single);
    const edge = view.toScreen(apply(matrix, { x: boxCentre(box).x, y: box.y + box.height }));
    const middle = view.toScreen(apply(matrix, boxCentre(box)));
    const far = Math.max(1e-6, Math.hypot(edge.x - middle.x, edge.y - middle.y));
    return {
      x: edge.x + ((edge.x - middle.x) / far) * 18,
      y: edge.y + ((edge.y - middle.y) / far) * 18,
    };
  });
</script>

<g class="handles">
  {#each editor.chosen as placing (placing.id)}
    {#each images.slice(1) as image, index (index)}
      <polygon class="image" points={frame(placing, image)} />
    {/each}
    <polygon class="halo" points={frame(placing, images[0])} />
    <polygon class="line" points={frame(placing, images[0])} />
  {/each}
  {#if single && turner}
    {#each grips as corner, index (index)}
      <Grip name="size-{index}" at={corner} turn={single.rotation} {reach} drag={sizing(context)} />
    {/each}
    <Grip
      name="turn"
      at={turner}
      round
      title="Turn the piece; Shift for steps of 15°"
      drag={turning(context)}
    />
  {/if}
</g>

<style>
  .image {
    fill: none;
    pointer-events: none;
    stroke: var(--kelp);
    stroke-width: 1px;
    stroke-dasharray: 2 3;
  }
</style>
