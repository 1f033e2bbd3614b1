<script lang="ts">
  import type { Sight } from '$lib/core/colour/vision';
  import type { DrawnShape } from '$lib/core/draw/list';
  import { sightFilter } from '../components/SightFilters.svelte';
  import BaseDefs from './BaseDefs.svelte';
  import type { Bases } from './bases';
  import ChartBorder from './ChartBorder.svelte';
  import type { LayoutDoc } from './doc';
  import type { MaskPictures } from './mask-pictures';
  import { runsOf } from './runs';
  import ShapeView from './ShapeView.svelte';
  import type { View } from './view.svelte';

  /** A page and its shapes on a stage, in drawings over each other; it fills a positioned box of `width` × `height` px. */
  type Props = {
    doc: LayoutDoc;
    /** What is shown of it. */
    scenes: readonly DrawnShape[];
    bases: Bases;
    masks: MaskPictures;
    view: View;
    prefix: string;
    sight?: Sight;
    width: number;
    height: number;
    /**
     * The CSS insets of the page while the size of its place is not known: as the server writes it the browser fits it, so
     * that the page is seen before the view is alive.
     */
    within?: string | null;
  };
  let {
    doc,
    scenes,
    bases,
    masks,
    view,
    prefix,
    sight = 'full',
    width,
    height,
    within = null,
  }: Props = $props();

  const needed = $derived(bases.needed(scenes, view.zoom));
  let lastRuns: readonly (readonly DrawnShape[])[] = [];
  // Colours are changed for the whole page at once where the eye of somebody else is tried.
  const runs = $derived.by(() => (lastRuns = sight === 'full' ? runsOf(scenes, lastRuns) : [scenes]));
  const sheet = $derived({
    x: -doc.bleed,
    y: -doc.bleed,
    width: doc.width + 2 * doc.bleed,
    height: doc.height + 2 * doc.bleed,
  });
  const placed = $derived(
    within === null ? `translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})` : undefined,
  );
  const viewBox = $derived(within === null ? undefined : `0 0 ${doc.width} ${doc.height}`);
  // In px, not in per cent: so a change beside the stage does not make the browser lay all shapes out again.
  const size = $derived(within ?? `width: ${width}px; height: ${height}px`);
</script>

<svg style={size} {viewBox}>
  <defs>
    <BaseDefs bases={needed} />
    <clipPath id="{prefix}-page"><rect {...sheet} /></clipPath>
  </defs>
  {#if within === null}<ChartBorder width={doc.width} height={doc.height} measure={doc.measure} {view} />{/if}
  <rect
    data-paper
    transform={placed}
    width={doc.width}
    height={doc.height}
    fill={doc.background ?? '#ffffff'}
    filter={sightFilter(sight)}
  />
</svg>
{#each runs as run, index (index)}
  <svg class="run" style={size} {viewBox}>
    <g transform={placed} filter={sightFilter(sight)}>
      <!-- A clipped group blends within itself: the page's colour is part of it, a clear page is not. -->
      <g clip-path="url(#{prefix}-page)" class="page">
        {#if index === 0 && doc.background !== null}<rect {...sheet} fill={doc.background} />{/if}
        {#each run as scene (scene.id)}
          <ShapeView {scene} {bases} {masks} zoom={view.zoom} {prefix} />
        {/each}
      </g>
    </g>
  </svg>
{/each}

<style>
  svg {
    position: absolute;
    top: 0;
    left: 0;
    display: block;
  }
  .run {
    pointer-events: none;
  }
  .run > g {
    pointer-events: visiblePainted;
  }
</style>
