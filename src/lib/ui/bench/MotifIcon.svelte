<script lang="ts">
  import { grow } from '$lib/core/geom/box';
  import type { Motif } from '$lib/core/recipe/recipe';
  import { compileMotif } from '$lib/core/scene/motif';
  import { PICTURE_SIDES, smallerPictures } from '$lib/core/svg/paint';
  import { elementMarkup, type Colours } from '$lib/core/svg/pieces';

  /** A small picture of a motif in the pattern's colours. */
  type Props = { motif: Motif; colours: Colours; ground: string | null };
  let { motif, colours, ground }: Props = $props();
  const compiled = $derived(compileMotif(motif));
  /** An icon shows no more of a picture than this. */
  const sides = $derived(
    new Map(
      compiled.elements.flatMap(({ picture }) =>
        picture && Math.max(picture.width, picture.height) > PICTURE_SIDES[0]
          ? [[picture.asset, PICTURE_SIDES[0]] as const]
          : [],
      ),
    ),
  );
  const box = $derived(grow(compiled.box, Math.max(compiled.box.width, compiled.box.height) * 0.08));
</script>

<svg
  viewBox="{box.x} {box.y} {Math.max(box.width, 1)} {Math.max(box.height, 1)}"
  width="44"
  height="34"
  style:background={ground ?? '#e9ebe9'}
  aria-hidden="true"
>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
  {@html smallerPictures(compiled.elements.map((element) => elementMarkup(element, colours)).join(''), sides)}
</svg>

<style>
  svg {
    flex: none;
    border-radius: 4px;
  }
</style>
