<script lang="ts">
  import { onMount } from 'svelte';
  import { freshTexture, TEXTURE_KINDS, TEXTURES, type TextureKind } from '$lib/core/recipe/texture';
  import { Stopped, PictureWorker } from '$lib/workers/client';

  /** The textures that numbers make, each as it starts. */
  let { onpick }: { onpick: (kind: TextureKind) => void } = $props();

  /** A sample shows so many px of a texture, at half its size. */
  const SAMPLE = { width: 264, height: 176 };

  const canvases: Partial<Record<TextureKind, HTMLCanvasElement>> = $state({});
  onMount(() => {
    const worker = new PictureWorker();
    void draw(worker).catch((error: unknown) => {
      if (!(error instanceof Stopped)) throw error;
    });
    return () => worker.stop();
  });
  async function draw(worker: PictureWorker): Promise<void> {
    for (const kind of TEXTURE_KINDS) {
      const made = await worker.ask('sample', { ...freshTexture(kind), ...SAMPLE });
      canvases[kind]?.getContext('2d')?.putImageData(new ImageData(made.data, made.width, made.height), 0, 0);
    }
  }
</script>

<ul>
  {#each TEXTURE_KINDS as kind (kind)}
    <li>
      <button type="button" onclick={() => onpick(kind)}>
        <canvas {...SAMPLE} bind:this={canvases[kind]} aria-hidden="true"></canvas>
        {TEXTURES[kind].label}
      </button>
    </li>
  {/each}
</ul>

<style>
  ul {
    display: grid;
    grid-template-columns: repeat(3, 132px);
    padding: 0;
    margin: 0;
    list-style: none;
    gap: 10px 12px;
  }
  button {
    display: grid;
    gap: 4px;
    padding: 0;
    border: 0;
    background: none;
    cursor: pointer;
    font: inherit;
    justify-items: start;
  }
  canvas {
    width: 132px;
    height: 88px;
    border-radius: 6px;
    background: var(--surround);
    box-shadow: var(--shadow);
  }
  button:hover canvas {
    outline: 2px solid var(--kelp);
  }
</style>
