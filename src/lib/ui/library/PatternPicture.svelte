<script lang="ts">
  import { apply, scaling } from '$lib/core/geom/affine';
  import type { Point } from '$lib/core/geom/point';
  import { resolveSlots, type SlotColours } from '$lib/core/colour/slots';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import { resolveGround } from '$lib/core/scene/pattern';
  import { compileUnit } from '$lib/core/scene/unit';
  import { cellMarkup, underlayWidth } from '$lib/core/svg/pieces';
  import { patternTransform } from '$lib/core/svg/live';
  import GroundRect from '../components/GroundRect.svelte';

  /**
   * A pattern laid over all of its container at a scale, over its own ground. `over` are colours in place of its own,
   * `mark` a place of its cell to ring, in cell px.
   */
  type Props = { recipe: Recipe; scale: number; label: string; over?: SlotColours; mark?: Point | null };
  let { recipe, scale, label, over = {}, mark = null }: Props = $props();
  const id = $props.id();

  let width = $state(0);
  let height = $state(0);
  const scene = $derived(compileUnit(recipe));
  const colours = $derived(resolveSlots(recipe.slots, over));
  const ground = $derived(resolveGround(scene, colours));
  /** The marked place in the cell nearest to the middle of what is seen. */
  const ring = $derived.by(() => {
    if (!mark) return null;
    const { cell } = scene;
    const step = (side: number, room: number): number => Math.floor(room / 2 / (side * scale)) * side;
    const inCell = { x: mark.x + step(cell.width, width), y: mark.y + step(cell.height, height) };
    const at = apply(cell.matrix, inCell);
    return { x: at.x * scale, y: at.y * scale };
  });
</script>

<div class="fill" bind:clientWidth={width} bind:clientHeight={height}>
  <svg role="img" aria-label={label} width="100%" height="100%">
    <defs>
      <pattern
        id="{id}-p"
        width={scene.cell.width}
        height={scene.cell.height}
        patternUnits="userSpaceOnUse"
        patternTransform={patternTransform(scene, scaling(scale))}
      >
        <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
        {@html cellMarkup(scene, colours, underlayWidth(scale))}
      </pattern>
    </defs>
    <GroundRect {ground} matrix={scaling(scale)} />
    <rect width="100%" height="100%" fill="url(#{id}-p)" />
    {#if ring}
      <circle class="halo" cx={ring.x} cy={ring.y} r="16" />
      <circle class="ring" cx={ring.x} cy={ring.y} r="16" />
    {/if}
  </svg>
</div>

<style>
  .fill {
    position: absolute;
    inset: 0;
  }
  svg {
    display: block;
  }
  circle {
    fill: none;
  }
  .halo {
    stroke: #fff;
    stroke-width: 5;
  }
  .ring {
    stroke: var(--signal);
    stroke-width: 2.5;
  }
</style>
