<script lang="ts">
  import { invert, meanScale, type Affine } from '$lib/core/geom/affine';
  import { boxCorners } from '$lib/core/geom/polygon';
  import { piecesOver, type UnitScene } from '$lib/core/scene/unit';
  import { matrixText } from '$lib/core/svg/print';
  import { pieceMarkup, type Colours } from '$lib/core/svg/pieces';
  import { seenSmaller, steppedScale, type ShownSides } from '../state/smaller-pictures';
  import RepeatedPlane from './RepeatedPlane.svelte';

  /**
   * A few pieces over all of an <svg>, drawn copy by copy: the browser then redraws only where one of them moved, and
   * not the whole view as with a <pattern>. Too many copies are a pattern after all.
   */
  type Props = {
    scene: UnitScene;
    colours: Colours;
    matrix: Affine;
    underlay: number;
    width: number;
    height: number;
  };
  let { scene, colours, matrix, underlay, width, height }: Props = $props();
  const MOST = 600;
  const sides: ShownSides = new Map();

  const laid = $derived.by(() => {
    const inverse = invert(matrix);
    return inverse ? piecesOver(scene, boxCorners(inverse, { x: 0, y: 0, width, height })) : [];
  });
</script>

{#if laid.length <= MOST}
  <g transform={matrixText(matrix)}>
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
    {@html seenSmaller(
      laid.map(({ piece, offset }) => pieceMarkup(piece, offset, colours)).join(''),
      scene,
      steppedScale(meanScale(matrix)),
      sides,
    )}
  </g>
{:else}
  <RepeatedPlane {scene} {colours} {matrix} {underlay} />
{/if}
