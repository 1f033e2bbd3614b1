<script lang="ts">
  import type { DrawnShape, Layer, PageItem, TiledItem } from '$lib/core/draw/list';
  import {
    alphaMask,
    gradientPaint,
    inkPaint,
    isOpaqueGradient,
    layPicture,
    maskMarkup,
  } from '$lib/core/svg/fill';
  import { inkAttributes } from '$lib/core/svg/ink';
  import { copiesMarkup, frameBox, pageMarkup, visibleCopies } from '$lib/core/svg/layout';
  import { patternTransform } from '$lib/core/svg/live';
  import type { Base, Bases } from './bases';
  import type { MaskPictures } from './mask-pictures';

  /** What one fill of a shape draws on the stage, blended and masked as a whole. A drag of a pattern changes one attribute. */
  type Props = {
    scene: DrawnShape;
    layer: Layer;
    bases: Bases;
    masks: MaskPictures;
    zoom: number;
    prefix: string;
  };
  let { scene, layer, bases, masks, zoom, prefix }: Props = $props();

  const id = $derived(`${prefix}-f-${scene.id}-${layer.fill}`);
  /** A picture or a pattern of single copies is cut to the shape; a line cuts as a mask, for a clip path knows no strokes. */
  const cutBy = $derived(scene.pen ? { mask: `url(#${id})` } : { 'clip-path': `url(#${id})` });
  const mask = $derived(
    layer.mask ? maskMarkup(`${id}-m`, layer.mask, frameBox(scene), (one) => masks.of(one, zoom)) : '',
  );
  const pageOf = (item: PageItem, index: number): string =>
    pageMarkup(item, {
      ...{ patterns: 'live', region: frameBox(scene), scale: zoom, prefix: `${id}-${index}` },
      maskPicture: (one) => masks.of(one, zoom),
    });
  /** The gradient over motifs is cut by what the motifs draw. */
  const washMask = $derived(alphaMask(`${id}-w`, frameBox(scene), `<use href="#${id}-a"/>`));
</script>

<!-- eslint-disable svelte/no-at-html-tags -- numbers, hex colours and addresses of assets only, written by core/svg -->
{#if layer.blend === 'normal' && !mask}
  {@render items()}
{:else}
  <g style:mix-blend-mode={layer.blend}>
    {#if mask}<defs>{@html mask}</defs>{/if}
    <g mask={mask ? `url(#${id}-m)` : undefined}>{@render items()}</g>
    {#if mask}{@render inked('transparent')}{/if}
  </g>
{/if}

{#snippet items()}
  {#each layer.items as item, index (index)}
    {#if item.kind === 'path'}
      {@const { value, defs } = inkPaint(item.ink)}
      {#if defs}<defs>{@html defs}</defs>{/if}
      {@render inked(value, item.opacity)}
    {:else if item.kind === 'picture'}
      {@render cut()}
      <g {...cutBy} opacity={item.opacity}>{@html layPicture(item)}</g>
      {@render inked('transparent')}
    {:else if item.kind === 'page'}
      {@render cut()}
      <g {...cutBy}>{@html pageOf(item, index)}</g>
      {@render inked('transparent')}
    {:else}
      {@render tiled(item, bases.of(item, zoom))}
    {/if}
  {/each}
{/snippet}

{#snippet tiled(item: TiledItem, base: Base)}
  {#if base.kind === 'live'}
    <pattern {id} href="#{base.id}" patternTransform={patternTransform(item.pattern.scene, item.matrix)} />
  {:else}
    {@render cut()}
  {/if}
  {#if item.wash}
    {@const { value, defs } = gradientPaint(item.wash)}
    <defs>
      <g id="{id}-a">{@render motifs(item, base, 1)}</g>
      {@html defs}
      {@html washMask}
    </defs>
    <g opacity={item.opacity}>
      {#if !isOpaqueGradient(item.wash)}<use href="#{id}-a" />{/if}
      <g mask="url(#{id}-w)">{@render inked(value)}</g>
    </g>
  {:else}
    {@render motifs(item, base, item.opacity)}
  {/if}
  {#if item.wash || base.kind !== 'live'}{@render inked('transparent')}{/if}
{/snippet}

{#snippet motifs(item: TiledItem, base: Base, opacity: number)}
  {#if base.kind === 'live'}
    {@render inked(`url(#${id})`, opacity)}
  {:else}
    <g {...cutBy}>
      <g {opacity}>{@html copiesMarkup(item, visibleCopies(scene, item, scene.box), base.id, zoom)}</g>
    </g>
  {/if}
{/snippet}

{#snippet inked(value: string, opacity = 1)}
  <path d={scene.d} {...inkAttributes(scene.pen, value, opacity)} />
{/snippet}

{#snippet cut()}
  {#if scene.pen}
    <mask {id} maskUnits="userSpaceOnUse" {...frameBox(scene)}>{@render inked('#ffffff')}</mask>
  {:else}
    <clipPath {id}><path d={scene.d} /></clipPath>
  {/if}
{/snippet}
