<script lang="ts">
  import { lowerLayout } from '$lib/core/draw/lower';
  import type { PatternLookup } from '$lib/core/scene/pattern';
  import { Bases } from './bases';
  import type { LayoutDoc } from './doc';
  import { MaskPictures } from './mask-pictures';
  import PageDrawing from './PageDrawing.svelte';
  import { panFrom, wheelView, type View } from './view.svelte';

  /** A layout as it was, beside the one that is worked on; both share one zoom and place. */
  type Props = { doc: LayoutDoc; lookup: PatternLookup; view: View };
  let { doc, lookup, view }: Props = $props();

  const prefix = $props.id();
  const bases = new Bases(prefix);
  const masks = new MaskPictures();
  const scene = $derived(lowerLayout(doc, lookup));
  let width = $state(0);
  let height = $state(0);
</script>

<!-- It pans with the stage beside it. -->
<div
  class="still"
  role="img"
  aria-label="{doc.name} as it was pinned"
  bind:clientWidth={width}
  bind:clientHeight={height}
  {@attach wheelView(view)}
  onpointerdown={(event) => panFrom(view, event)}
>
  <PageDrawing {doc} scenes={scene.shapes} {bases} {masks} {view} {prefix} {width} {height} />
</div>

<style>
  .still {
    position: relative;
    overflow: hidden;
    height: 100%;
    isolation: isolate;
    background: var(--surround);
    cursor: grab;
  }
</style>
