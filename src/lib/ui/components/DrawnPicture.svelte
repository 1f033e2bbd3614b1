<script lang="ts">
  import type { Failure } from '$lib/contract/failure';

  /**
   * A picture that the server draws. Where it cannot be drawn its place says why; while the server has too much to do it
   * is asked for again.
   */
  type Props = { src: string; alt: string; width: number; height: number; lazy?: boolean };
  let { src, alt, width, height, lazy = false }: Props = $props();

  const MOST_TRIES = 6;
  let tries = $state(0);
  let fault = $state.raw<{ src: string; message: string } | null>(null);
  const said = $derived(fault?.src === src ? fault.message : null);

  let image: HTMLImageElement | undefined = $state();
  /** Hears of a picture that fails, also of one that failed before the page came to life; an inline handler may not be. */
  $effect(() => {
    const heard = image;
    if (!heard) return;
    const failed = (): void => {
      if (tries < MOST_TRIES) void askWhy(src);
    };
    heard.addEventListener('error', failed);
    if (heard.complete && heard.naturalWidth === 0 && heard.loading !== 'lazy') failed();
    return () => heard.removeEventListener('error', failed);
  });

  async function askWhy(failed: string): Promise<void> {
    const answer = await fetch(failed).catch(() => null);
    if (answer?.ok) return void (tries += 1);
    if ((!answer || answer.status === 503) && tries < MOST_TRIES) {
      await new Promise((resolve) => setTimeout(resolve, 1500));
      return void (tries += 1);
    }
    const failure = (await answer?.json().catch(() => null)) as Partial<Failure> | null;
    fault = { src: failed, message: failure?.message ?? 'The server does not answer.' };
  }
</script>

{#if said}
  <span class="fault" style:aspect-ratio="{width} / {height}" title={said}>{said}</span>
{:else}
  {#key tries}
    <img
      {src}
      {alt}
      {width}
      {height}
      loading={lazy ? 'lazy' : undefined}
      decoding="async"
      draggable="false"
      bind:this={image}
    />
  {/key}
{/if}

<style>
  img {
    display: block;
    width: 100%;
    height: 100%;
    object-fit: cover;
  }
  .fault {
    display: block;
    width: 100%;
    height: 100%;
    overflow: hidden;
    padding: 8px 10px;
    background: var(--paper);
    color: #6d4500;
    font-size: 12px;
    line-height: 1.35;
  }
</style>
