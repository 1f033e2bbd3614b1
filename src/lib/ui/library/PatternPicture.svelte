<script lang="ts">
  import { scaling } from '$lib/core/geom/affine';
  import { resolveSlots } from '$lib/core/colour/slots';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import { resolveGround } from '$lib/core/scene/layout';
  import { compileUnit } from '$lib/core/scene/unit';
  import { cellMarkup, underlayWidth } from '$lib/core/svg/pieces';
  import { patternTransform } from '$lib/core/svg/live';
  import GroundRect from '../components/GroundRect.svelte';

  /** A pattern laid over all of its container at a scale, over its own ground. */
  type Props = { recipe: Recipe; scale: number; label: string };
  let { recipe, scale, label }: Props = $props();
  const id = $props.id();

  const scene = $derived(compileUnit(recipe));
  const colours = $derived(resolveSlots(recipe.slots, {}));
  const ground = $derived(resolveGround(scene, colours));
</script>

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
</svg>

<style>
  svg {
    position: absolute;
    inset: 0;
    display: block;
  }
</style>
