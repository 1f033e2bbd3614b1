<script lang="ts">
  import type { ShapePaint, ShapeScene } from '$lib/core/scene/layout';
  import { alphaMask, gradientPaint, isOpaqueGradient, layPicture, maskMarkup } from '$lib/core/svg/fill';
  import { inkAttributes } from '$lib/core/svg/ink';
  import { patternTransform } from '$lib/core/svg/live';
  import { copiesMarkup, frameBox, visibleCopies } from '$lib/core/svg/layout';
  import { groundPaint } from '$lib/core/svg/paint';
  import type { Bases } from './bases';
  import type { MaskPictures } from './mask-pictures';

  /** One fill of a shape on the stage, blended and masked as a whole. A drag of a pattern changes one attribute. */
  type Props = {
    scene: ShapeScene;
    paint: ShapePaint;
    bases: Bases;
    masks: MaskPictures;
    zoom: number;
    prefix: string;
  };
  let { scene, paint, bases, masks, zoom, prefix }: Props = $props();

  const base = $derived(paint.kind === 'pattern' ? bases.of(paint, zoom) : null);
  const id = $derived(`${prefix}-f-${scene.id}-${paint.fill}`);
  const gradient = $derived(paint.kind === 'gradient' ? gradientPaint(paint.gradient) : null);
  /** A picture or a pattern of single copies is cut to the shape; a line cuts as a mask, for a clip path knows no strokes. */
  const cutBy = $derived(scene.pen ? { mask: `url(#${id})` } : { 'clip-path': `url(#${id})` });
  const wash = $derived(paint.kind === 'pattern' && paint.wash ? gradientPaint(paint.wash) : null);
  const mask = $derived(
    paint.mask ? maskMarkup(`${id}-m`, paint.mask, frameBox(scene), (one) => masks.of(one, zoom)) : '',
  );
  const covered = $derived(paint.kind === 'pattern' && paint.wash !== null && isOpaqueGradient(paint.wash));
  /** The gradient over motifs is cut by what the motifs draw. */
  const washMask = $derived(wash ? alphaMask(`${id}-w`, frameBox(scene), `<use href="#${id}-a"/>`) : '');
</script>

<!-- eslint-disable svelte/no-at-html-tags -- numbers, hex colours and addresses of assets only, written by core/svg -->
{#if paint.blend === 'normal' && !mask}
  {@render ink()}
{:else}
  <g style:mix-blend-mode={paint.blend}>
    {#if mask}<defs>{@html mask}</defs>{/if}
    <g mask={mask ? `url(#${id}-m)` : undefined}>{@render ink()}</g>
    {#if mask}{@render inked('transparent')}{/if}
  </g>
{/if}

{#snippet ink()}
  {#if paint.kind === 'colour'}
    {@render inked(paint.colour, paint.opacity)}
  {:else if gradient}
    <defs>{@html gradient.defs}</defs>
    {@render inked(gradient.value, paint.opacity)}
  {:else if paint.kind === 'picture'}
    {@render cut()}
    <g {...cutBy} opacity={paint.opacity}>{@html layPicture(paint)}</g>
    {@render inked('transparent')}
  {:else if paint.kind === 'pattern' && base}
    {#if paint.ground}
      {@const ground = groundPaint(paint.ground, paint.matrix)}
      {#if ground.defs}<defs>{@html ground.defs}</defs>{/if}
      {@render inked(ground.value, paint.ground.opacity)}
    {/if}
    {#if base.kind === 'live'}
      <pattern
        {id}
        href="#{base.id}"
        patternTransform={patternTransform(paint.pattern.scene, paint.matrix)}
      />
    {:else}
      {@render cut()}
    {/if}
    {#if wash}
      <defs>
        <g id="{id}-a">{@render motifs(1)}</g>
        {@html wash.defs}
        {@html washMask}
      </defs>
      <g opacity={paint.opacity}>
        {#if !covered}<use href="#{id}-a" />{/if}
        <g mask="url(#{id}-w)">{@render inked(wash.value)}</g>
      </g>
    {:else}
      {@render motifs(paint.opacity)}
    {/if}
    {#if wash || base.kind !== 'live'}{@render inked('transparent')}{/if}
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

{#snippet motifs(opacity: number)}
  {#if paint.kind === 'pattern' && base}
    {#if base.kind === 'live'}
      {@render inked(`url(#${id})`, opacity)}
    {:else}
      <g {...cutBy}>
        <g {opacity}>{@html copiesMarkup(paint, visibleCopies(scene, paint, scene.box), base.id, zoom)}</g>
      </g>
    {/if}
  {/if}
{/snippet}
