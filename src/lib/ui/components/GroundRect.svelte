<script lang="ts">
  import type { Affine } from '$lib/core/geom/affine';
  import type { FlatGround } from '$lib/core/scene/pattern';
  import { groundPaint } from '$lib/core/svg/fill';

  /** A pattern's ground over all of an <svg>: flat, or its gradient laid by `matrix`. */
  type Props = { ground: FlatGround | null; matrix: Affine };
  let { ground, matrix }: Props = $props();
  const paint = $derived(ground && groundPaint(ground, matrix));
</script>

{#if paint}
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
  {#if paint.defs}<defs>{@html paint.defs}</defs>{/if}
  <rect width="100%" height="100%" fill={paint.value} />
{/if}
