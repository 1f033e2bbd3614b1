<script lang="ts">
  import type { View } from '../layout/view.svelte';
  import type { LayoutPlates } from './layout-plates.svelte';
  import { markImage, plateImage } from './plate-pixels';

  /** The plates that are looked at, over the page; and what is marked on them. */
  type Props = { plates: LayoutPlates; view: View };
  let { plates, view }: Props = $props();

  /** Where there is too much ink, and what the press cannot show. */
  const MARKS = { ink: [214, 0, 76], beyond: [122, 40, 200] } as const;

  let canvas: HTMLCanvasElement | undefined = $state();
  const { over } = $derived(plates);

  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!context || !over) return;
    const size = { width: over.width, height: over.height };
    const { on, mark, settings } = plates;
    if (on.length === over.plates.length) context.drawImage(over.look, 0, 0);
    else context.putImageData(plateImage(on, size), 0, 0);
    if (mark === 'none') return;
    const total = plates.sum?.total;
    const isMarked =
      mark === 'ink'
        ? (at: number): boolean => (total?.[at] ?? 0) > settings.inkLimit
        : (at: number): boolean => over.beyond !== null && over.beyond.mask[at]! > 0;
    const layer = new OffscreenCanvas(size.width, size.height);
    layer.getContext('2d')!.putImageData(markImage(isMarked, size, MARKS[mark]), 0, 0);
    context.drawImage(layer, 0, 0);
  });
</script>

{#if over}
  <canvas
    bind:this={canvas}
    class="plates"
    width={over.width}
    height={over.height}
    style:left="{view.pan.x}px"
    style:top="{view.pan.y}px"
    style:width="{over.doc.width * view.zoom}px"
    style:height="{over.doc.height * view.zoom}px"
    aria-hidden="true"
  ></canvas>
{/if}

<style>
  .plates {
    position: absolute;
    pointer-events: none;
  }
</style>
