<script lang="ts">
  import type { LayoutDoc } from './doc';
  import type { View } from './view.svelte';

  /** Where the page is cut, the room that is kept within it, and its guides. They are never drawn in files. */
  type Props = { doc: LayoutDoc; view: View };
  let { doc, view }: Props = $props();

  const corner = $derived(view.toScreen({ x: 0, y: 0 }));
  const inner = $derived(view.toScreen({ x: doc.margin, y: doc.margin }));
  const across = $derived(Math.max(0, doc.width - 2 * doc.margin) * view.zoom);
  const down = $derived(Math.max(0, doc.height - 2 * doc.margin) * view.zoom);
</script>

<g class="lines">
  {#if doc.bleed > 0}
    <rect
      class="trim"
      x={corner.x}
      y={corner.y}
      width={doc.width * view.zoom}
      height={doc.height * view.zoom}
    />
  {/if}
  {#if doc.margin > 0}
    <rect class="margin" x={inner.x} y={inner.y} width={across} height={down} />
  {/if}
</g>

<style>
  .lines {
    fill: none;
    pointer-events: none;
  }
  .trim {
    stroke: #fff;
    stroke-width: 1px;
    mix-blend-mode: difference;
  }
  .margin {
    stroke: var(--kelp);
    stroke-width: 1px;
    stroke-dasharray: 6 4;
  }
</style>
