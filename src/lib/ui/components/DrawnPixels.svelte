<script lang="ts">
  import type { Pixels } from '$lib/contract/picture-work';

  /** Pixels as a worker made them, as large as the room they are given. */
  type Props = { pixels: Pixels | null; label: string };
  let { pixels, label }: Props = $props();

  let canvas: HTMLCanvasElement | undefined = $state();
  $effect(() => {
    if (!canvas || !pixels) return;
    canvas.width = pixels.width;
    canvas.height = pixels.height;
    canvas.getContext('2d')!.putImageData(new ImageData(pixels.data, pixels.width, pixels.height), 0, 0);
  });
</script>

<canvas bind:this={canvas} aria-label={label || undefined} aria-hidden={label === '' ? 'true' : undefined}
></canvas>

<style>
  canvas {
    display: block;
    width: 100%;
    height: 100%;
  }
</style>
