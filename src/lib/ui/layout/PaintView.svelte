<script lang="ts">
  import type { ShapePaint, ShapeScene } from '$lib/core/scene/layout';
  import { alphaMask, gradientPaint, isOpaqueGradient, layPicture, maskMarkup } from '$lib/core/svg/fill';
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
    {#if mask}<path d={scene.d} fill="transparent" />{/if}
  </g>
{/if}

{#snippet ink()}
  {#if paint.kind === 'colour'}
    <path d={scene.d} fill={paint.colour} fill-opacity={paint.opacity} />
  {:else if gradient}
    <defs>{@html gradient.defs}</defs>
    <path d={scene.d} fill={gradient.value} fill-opacity={paint.opacity} />
  {:else if paint.kind === 'picture'}
    <clipPath {id}><path d={scene.d} /></clipPath>
    <g clip-path="url(#{id})" opacity={paint.opacity}>{@html layPicture(paint)}</g>
    <path d={scene.d} fill="transparent" />
  {:else if paint.kind === 'pattern' && base}
    {#if paint.ground}
      {@const ground = groundPaint(paint.ground, paint.matrix)}
      {#if ground.defs}<defs>{@html ground.defs}</defs>{/if}
      <path d={scene.d} fill={ground.value} fill-opacity={paint.ground.opacity} />
    {/if}
    {#if base.kind === 'live'}
      <pattern
        {id}
        href="#{base.id}"
        patternTransform={patternTransform(paint.pattern.scene, paint.matrix)}
      />
    {:else}
      <clipPath {id}><path d={scene.d} /></clipPath>
    {/if}
    {#if wash}
      <defs>
        <g id="{id}-a">{@render motifs(1)}</g>
        {@html wash.defs}
        {@html washMask}
      </defs>
      <g opacity={paint.opacity}>
        {#if !covered}<use href="#{id}-a" />{/if}
        <path d={scene.d} fill={wash.value} mask="url(#{id}-w)" />
      </g>
    {:else}
      {@render motifs(paint.opacity)}
    {/if}
    {#if wash || base.kind !== 'live'}<path d={scene.d} fill="transparent" />{/if}
  {/if}
{/snippet}

{#snippet motifs(opacity: number)}
  {#if paint.kind === 'pattern' && base}
    {#if base.kind === 'live'}
      <path d={scene.d} fill="url(#{id})" fill-opacity={opacity} />
    {:else}
      <g clip-path="url(#{id})">
        <g {opacity}>{@html copiesMarkup(paint, visibleCopies(scene, paint, scene.box), base.id, zoom)}</g>
      </g>
    {/if}
  {/if}
{/snippet}
