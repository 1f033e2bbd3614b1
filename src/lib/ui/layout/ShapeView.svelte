<script lang="ts">
  import type { ShapeScene } from '$lib/core/scene/layout';
  import { patternTransform } from '$lib/core/svg/live';
  import { copiesMarkup, visibleCopies } from '$lib/core/svg/layout';
  import { groundPaint } from '$lib/core/svg/paint';
  import type { Bases } from './bases';

  /** One shape on the stage: its ground, and its pattern through a <pattern> of its own that refers to a shared base. */
  type Props = { scene: ShapeScene; bases: Bases; zoom: number; prefix: string };
  let { scene, bases, zoom, prefix }: Props = $props();

  const paint = $derived(scene.paint);
  const base = $derived(paint?.kind === 'pattern' ? bases.of(paint, zoom) : null);
  const fillId = $derived(`${prefix}-f-${scene.id}`);
</script>

<g transform="translate({scene.x} {scene.y})" data-shape={scene.id} class:empty={paint === null}>
  {#if paint?.kind === 'colour'}
    <path d={scene.d} fill={paint.colour} fill-opacity={paint.opacity} />
  {:else if paint?.kind === 'pattern' && base}
    {#if paint.ground}
      {@const ground = groundPaint(paint.ground, paint.matrix)}
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
      {#if ground.defs}<defs>{@html ground.defs}</defs>{/if}
      <path d={scene.d} fill={ground.value} fill-opacity={paint.ground.opacity} />
    {/if}
    {#if base.kind === 'live'}
      <pattern
        id={fillId}
        href="#{base.id}"
        patternTransform={patternTransform(paint.pattern.scene, paint.matrix)}
      />
      <path d={scene.d} fill="url(#{fillId})" fill-opacity={paint.opacity} />
    {:else}
      <clipPath id={fillId}><path d={scene.d} /></clipPath>
      <g clip-path="url(#{fillId})">
        <g opacity={paint.opacity}>
          <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
          {@html copiesMarkup(paint, visibleCopies(scene, paint, scene.box), base.id, zoom)}
        </g>
      </g>
      <path d={scene.d} fill="transparent" />
    {/if}
  {:else}
    <path d={scene.d} class="unfilled" />
  {/if}
</g>

<style>
  .unfilled {
    fill: rgb(255 255 255 / 1%);
    stroke: #6b7472;
    stroke-width: 1px;
    stroke-dasharray: 4 3;
    vector-effect: non-scaling-stroke;
  }
</style>
