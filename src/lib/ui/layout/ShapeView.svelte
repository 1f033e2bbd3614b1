<script lang="ts">
  import { untrack } from 'svelte';
  import { movedPath } from '$lib/core/geom/path';
  import { strokeOf, type DrawnShape } from '$lib/core/draw/list';
  import { reframed } from '$lib/core/draw/reframe';
  import { frameBox } from '$lib/core/svg/layout';
  import { maskMarkup } from '$lib/core/svg/fill';
  import type { Bases } from './bases';
  import type { MaskPictures } from './mask-pictures';
  import LayerView from './LayerView.svelte';

  /** One shape on the stage: its fills from the bottom up. One that shows nothing is a dashed outline. */
  type Props = { scene: DrawnShape; bases: Bases; masks: MaskPictures; zoom: number; prefix: string };
  let { scene: given, bases, masks: pictures, zoom, prefix }: Props = $props();

  /**
   * Browsers part a layer at every transform, and a thousand of them cost a third of a frame. So a shape is drawn in page
   * px, and only one that was moved or reshaped since it was first shown has a transform.
   */
  const first = untrack(() => ({ d: given.d, x: given.x, y: given.y, onPage: movedPath(given.d, given) }));
  const scene = $derived(given.d === first.d ? reframed(given, first, first.onPage) : given);
  const stroke = $derived(strokeOf(scene));
  const masks = $derived(
    scene.masks.map((mask, index) => {
      const id = `${prefix}-m${index}-${scene.id}`;
      return { id, markup: maskMarkup(id, mask, frameBox(scene), (one) => pictures.of(one, zoom)) };
    }),
  );
</script>

<g
  transform={scene.x === 0 && scene.y === 0 ? undefined : `translate(${scene.x} ${scene.y})`}
  data-shape={scene.id}
>
  {#if masks.length > 0}
    <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and data URLs only, written by core/svg -->
    <defs>{@html masks.map(({ markup }) => markup).join('')}</defs>
    <path d={scene.d} fill="transparent" />
    {@render masked(masks.length)}
  {:else}
    {@render layers()}
  {/if}
  {#if scene.layers.length === 0 && !stroke?.layers.length}<path d={scene.d} class="unfilled" />{/if}
</g>

{#snippet masked(depth: number)}
  {#if depth === 0}
    {@render layers()}
  {:else}
    <g mask="url(#{masks[depth - 1]?.id})">{@render masked(depth - 1)}</g>
  {/if}
{/snippet}

{#snippet layers()}
  {#each scene.layers as layer (layer.fill)}
    <LayerView {scene} {layer} {bases} masks={pictures} {zoom} {prefix} />
  {/each}
  {#if stroke}
    {#each stroke.layers as layer (layer.fill)}
      <LayerView scene={stroke} {layer} {bases} masks={pictures} {zoom} {prefix} />
    {/each}
  {/if}
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
