<script lang="ts">
  import { compileLayout, type PatternLookup } from '$lib/core/scene/layout';
  import { Bases } from './bases';
  import ChartBorder from './ChartBorder.svelte';
  import type { LayoutDoc } from './doc';
  import { MaskPictures } from './mask-pictures';
  import ShapeView from './ShapeView.svelte';
  import { panFrom, wheelView, type View } from './view.svelte';

  /** A layout as it was, beside the one that is worked on; both share one zoom and place. */
  type Props = { doc: LayoutDoc; lookup: PatternLookup; view: View };
  let { doc, lookup, view }: Props = $props();

  const prefix = $props.id();
  const bases = new Bases(prefix);
  const masks = new MaskPictures();
  const scene = $derived(compileLayout(doc, lookup));
  const needed = $derived(bases.needed(scene.shapes, view.zoom));
</script>

<svg
  role="img"
  aria-label="{doc.name} as it was pinned"
  {@attach wheelView(view)}
  onpointerdown={(event) => panFrom(view, event)}
>
  <defs>
    {#each needed as base (base.id)}
      {#if base.kind === 'live'}
        <pattern id={base.id} width={base.width} height={base.height} patternUnits="userSpaceOnUse">
          <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
          {@html base.markup}
        </pattern>
      {:else}
        <g id={base.id}>
          <!-- eslint-disable-next-line svelte/no-at-html-tags -- as above -->
          {@html base.markup}
        </g>
      {/if}
    {/each}
    <clipPath id="{prefix}-page"><rect width={doc.width} height={doc.height} /></clipPath>
  </defs>
  <ChartBorder width={doc.width} height={doc.height} measure={doc.measure} {view} />
  <g transform="translate({view.pan.x} {view.pan.y}) scale({view.zoom})">
    <g clip-path="url(#{prefix}-page)">
      <rect width={doc.width} height={doc.height} fill={doc.background ?? '#ffffff'} />
      {#each scene.shapes as shape (shape.id)}
        <ShapeView scene={shape} {bases} {masks} zoom={view.zoom} {prefix} />
      {/each}
    </g>
  </g>
</svg>

<style>
  svg {
    width: 100%;
    height: 100%;
    background: var(--surround);
    cursor: grab;
  }
</style>
