<script lang="ts">
  import { meanScale, type Affine } from '$lib/core/geom/affine';
  import type { UnitScene } from '$lib/core/scene/unit';
  import { patternTransform } from '$lib/core/svg/live';
  import { seenSmaller, steppedScale, type ShownSides } from '../state/smaller-pictures';
  import { cellMarkup, type Colours } from '$lib/core/svg/pieces';

  /** A part of a pattern over all of its <svg>. */
  type Props = { scene: UnitScene; colours: Colours; matrix: Affine; underlay: number };
  let { scene, colours, matrix, underlay }: Props = $props();
  const id = $props.id();
  const sides: ShownSides = new Map();
  const markup = $derived(cellMarkup(scene, colours, underlay));
  const scale = $derived(steppedScale(meanScale(matrix)));
</script>

{#if !scene.empty}
  <pattern
    id="{id}-layer"
    width={scene.cell.width}
    height={scene.cell.height}
    patternUnits="userSpaceOnUse"
    patternTransform={patternTransform(scene, matrix)}
  >
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
    {@html seenSmaller(markup, scene, scale, sides)}
  </pattern>
  <rect width="100%" height="100%" fill="url(#{id}-layer)" />
{/if}
