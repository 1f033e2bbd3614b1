<script lang="ts">
  import { goto } from '$app/navigation';
  import Button from '../components/Button.svelte';
  import { call } from '../state/api';
  import { bringFiles } from '../state/brought';
  import { toasts } from '../state/toasts.svelte';

  /** What an empty studio can begin with: the stock, numbers, a drawing, a file that somebody handed over, a picture. */
  type Props = { onopen: () => void; onstock: () => Promise<unknown> };
  let { onopen, onstock }: Props = $props();

  let busy = $state(false);
  let input: HTMLInputElement | undefined = $state();

  async function hang(): Promise<void> {
    busy = true;
    const done = await call('POST /stock');
    busy = false;
    if (!done.ok) return toasts.problem(done.failure.message);
    await onstock();
  }
  async function bring(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
    bringFiles([...(event.currentTarget.files ?? [])]);
    await goto('/library/new');
  }
</script>

<div class="beginning">
  <h2>No patterns yet</h2>
  <p class="muted">Begin with one of these; all of them can be added later too.</p>
  <ul>
    <li>
      <Button kind="main" href="/library/new?start=measured">Measured</Button>
      <span
        >Stripes, hatches, dots, checks, tiles … from numbers. The quickest way to a pattern of your own.</span
      >
    </li>
    <li>
      <Button disabled={busy} onclick={hang}>Hang the stock</Button>
      <span>Twenty-five plain and useful patterns that ship with Isle, free to use.</span>
    </li>
    <li>
      <Button href="/library/new?start=drawing">Draw a motif</Button>
      <span>Draw on the board, then place what you drew in a unit that repeats.</span>
    </li>
    <li>
      <Button href="/library/new?start=picture">From a picture</Button>
      <span
        >A region of a photograph or a scan becomes a repeat: mirrored, turned, or joined at its edges.</span
      >
    </li>
    <li>
      <Button onclick={() => input?.click()}>Bring a picture or SVG</Button>
      <input
        bind:this={input}
        type="file"
        class="visually-hidden"
        tabindex="-1"
        accept=".svg,image/svg+xml,image/png,image/jpeg,image/webp"
        aria-label="Picture or SVG file to begin with"
        onchange={bring}
      />
      <span>A PNG, JPEG or WebP picture at its true size, or a drawing, becomes a motif.</span>
    </li>
    <li>
      <Button onclick={onopen}>Open files</Button>
      <span>A library that somebody handed you: SVG patterns, a package, palettes.</span>
    </li>
  </ul>
</div>

<style>
  .beginning {
    max-width: 620px;
    margin: 40px auto;
    padding: 28px 32px;
    border-radius: 8px;
    background: #fbfbfa;
  }
  ul {
    display: grid;
    gap: 12px;
    margin-top: 18px;
  }
  li {
    display: grid;
    grid-template-columns: 190px 1fr;
    align-items: center;
    gap: 16px;
  }
</style>
