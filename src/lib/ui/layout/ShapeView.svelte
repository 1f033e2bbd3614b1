<script lang="ts">
  import type { ShapeScene } from '$lib/core/scene/layout';
  import { frameBox } from '$lib/core/svg/layout';
  import { maskMarkup } from '$lib/core/svg/fill';
  import type { Bases } from './bases';
  import type { MaskPictures } from './mask-pictures';
  import PaintView from './PaintView.svelte';

  /** One shape on the stage: its fills from the bottom up. One that shows nothing is a dashed outline. */
  type Props = { scene: ShapeScene; bases: Bases; masks: MaskPictures; zoom: number; prefix: string };
  let { scene, bases, masks, zoom, prefix }: Props = $props();

  const id = $derived(`${prefix}-m-${scene.id}`);
  const mask = $derived(
    scene.mask ? maskMarkup(id, scene.mask, frameBox(scene), (one) => masks.of(one, zoom)) : '',
  );
</script>

<g transform="translate({scene.x} {scene.y})" data-shape={scene.id}>
  <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and data URLs only, written by core/svg -->
  {#if mask}<defs>{@html mask}</defs><path d={scene.d} fill="transparent" />{/if}
  {#if mask}
    <g mask="url(#{id})">{@render paints()}</g>
  {:else}
    {@render paints()}
  {/if}
  {#if scene.paints.length === 0}<path d={scene.d} class="unfilled" />{/if}
</g>

{#snippet paints()}
  {#each scene.paints as paint (paint.fill)}
    <PaintView {scene} {paint} {bases} {masks} {zoom} {prefix} />
  {/each}
{/snippet}

<style>
  .unfilled {
    fill: rgb(255 255 255 / 1%);
    stroke: #6b7472;
    stroke-width: 1px;
    stroke-dasharray: 4 3;
    vector-effect: non-scaling-stroke;
  }
</style>
