<script lang="ts">
  import { grow } from '$lib/core/geom/box';
  import type { DrawingElement } from '$lib/core/recipe/recipe';
  import { compileElement, elementBox } from '$lib/core/scene/motif';
  import { elementMarkup, type Colours } from '$lib/core/svg/pieces';

  /** A small picture of one element. */
  type Props = { element: DrawingElement; colours: Colours };
  let { element, colours }: Props = $props();
  const compiled = $derived(compileElement(element));
  const box = $derived.by(() => {
    const found = compiled && elementBox(compiled);
    return found
      ? grow(found, Math.max(found.width, found.height) * 0.1)
      : { x: 0, y: 0, width: 1, height: 1 };
  });
</script>

<svg
  viewBox="{box.x} {box.y} {Math.max(box.width, 0.1)} {Math.max(box.height, 0.1)}"
  width="26"
  height="20"
  aria-hidden="true"
>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
  {@html compiled ? elementMarkup(compiled, colours) : ''}
</svg>

<style>
  svg {
    flex: none;
    border-radius: 3px;
    background: #e4e6e4;
  }
</style>
