<script lang="ts">
  import { clusterColours, type Cluster } from '$lib/core/colour/cluster';
  import { fromOklab } from '$lib/core/colour/space';
  import { hexOf, type Hex } from '$lib/core/colour/parse';
  import { averageColour, samplePoints, type StraightPicture } from '$lib/core/raster/recolour';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { PICK_SIDES } from '../state/eyedropper.svelte';

  /** Colours from a picture: the middles of its clusters in OKLab, and any that are taken off it by hand. The picture stays in the browser. */
  type Props = { ontake: (colours: { name: string; hex: Hex }[]) => void; onclose: () => void };
  let { ontake, onclose }: Props = $props();

  let picture: StraightPicture | null = $state.raw(null);
  let url: string | null = $state(null);
  let count = $state(6);
  let seed = $state(1);
  let side = $state<(typeof PICK_SIDES)[number]>(5);
  let picked: Hex[] = $state([]);
  let left: Hex[] = $state([]);
  let problem: string | null = $state(null);
  const MOST_SIDE = 1600;

  const clusters = $derived<Cluster[]>(picture ? clusterColours(samplePoints(picture), count, { seed }) : []);
  const found = $derived(clusters.map(({ centre, share }) => ({ hex: fromOklab(centre), share })));
  const taken = $derived([...found.map(({ hex }) => hex), ...picked].filter((hex) => !left.includes(hex)));

  async function read(file: File | undefined): Promise<void> {
    if (!file) return;
    problem = null;
    try {
      const bitmap = await createImageBitmap(file);
      const scale = Math.min(1, MOST_SIDE / Math.max(bitmap.width, bitmap.height));
      const [width, height] = [bitmap.width, bitmap.height].map((one) =>
        Math.max(1, Math.round(one * scale)),
      ) as [number, number];
      const canvas = new OffscreenCanvas(width, height);
      const context = canvas.getContext('2d', { willReadFrequently: true });
      context?.drawImage(bitmap, 0, 0, width, height);
      const pixels = context?.getImageData(0, 0, width, height);
      if (!pixels) throw new Error('no canvas');
      picture = { width, height, data: pixels.data };
      if (url) URL.revokeObjectURL(url);
      url = URL.createObjectURL(file);
      picked = [];
      left = [];
    } catch {
      problem = `“${file.name}” is no picture that this browser can read; choose a PNG, JPEG or WebP file.`;
    }
  }
  function pick(event: MouseEvent & { currentTarget: HTMLElement }): void {
    if (!picture) return;
    const box = event.currentTarget.getBoundingClientRect();
    const x = Math.floor(((event.clientX - box.left) / box.width) * picture.width);
    const y = Math.floor(((event.clientY - box.top) / box.height) * picture.height);
    const mean = averageColour(picture, x, y, side);
    if (mean) picked.push(hexOf(mean));
  }
  function toggle(hex: Hex): void {
    if (left.includes(hex)) left = left.filter((one) => one !== hex);
    else left = [...left, hex];
  }
</script>

<Dialog title="Colours from a picture" width={640} {onclose}>
  <input
    type="file"
    accept="image/png,image/jpeg,image/webp"
    aria-label="Picture"
    onchange={(event) => read(event.currentTarget.files?.[0])}
  />
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if picture && url}
    <button type="button" class="picture" title="Press to take a colour off it" onclick={pick}>
      <img src={url} alt="What the colours come from" />
    </button>
    <div class="row">
      <span class="muted">Clusters</span>
      <NumberField
        label="Clusters"
        value={count}
        kind={{ suffix: '' }}
        least={1}
        most={24}
        digits={0}
        onset={(value) => (count = Math.round(value))}
      />
      <span class="muted">Seed</span>
      <NumberField
        label="Seed"
        value={seed}
        kind={{ suffix: '' }}
        least={1}
        most={9999}
        digits={0}
        onset={(value) => (seed = Math.round(value))}
      />
      <label class="muted"
        >A press takes
        <select bind:value={side}>
          {#each PICK_SIDES as one (one)}<option value={one}
              >{one === 1 ? 'one pixel' : `the mean of ${one} × ${one}`}</option
            >{/each}
        </select></label
      >
    </div>
    <ul>
      {#each found as { hex, share }, index (index)}
        <li>
          <button
            type="button"
            class:left={left.includes(hex)}
            aria-pressed={!left.includes(hex)}
            onclick={() => toggle(hex)}
          >
            <span style:background={hex}></span><span class="mono">{hex}</span>
            <span class="muted">{Math.round(share * 100)} %</span>
          </button>
        </li>
      {/each}
      {#each picked as hex, index (index)}
        <li>
          <button
            type="button"
            class:left={left.includes(hex)}
            aria-pressed={!left.includes(hex)}
            onclick={() => toggle(hex)}
          >
            <span style:background={hex}></span><span class="mono">{hex}</span><span class="muted">taken</span
            >
          </button>
        </li>
      {/each}
    </ul>
  {:else}
    <p class="muted">
      Choose a picture: its main colours are found as clusters in OKLab, the same each time.
    </p>
  {/if}
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button
      kind="main"
      disabled={taken.length === 0}
      onclick={() => ontake(taken.map((hex, index) => ({ name: `Picture ${index + 1}`, hex })))}
      >Add {taken.length === 1 ? 'one colour' : `${taken.length} colours`}</Button
    >
  {/snippet}
</Dialog>

<style>
  .picture {
    justify-self: start;
    padding: 0;
    border: 0;
    background: var(--surround);
    cursor: crosshair;
  }
  img {
    display: block;
    max-width: 100%;
    max-height: 260px;
  }
  .row {
    display: flex;
    align-items: baseline;
    gap: 8px;
  }
  label {
    margin-left: auto;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  li button {
    display: grid;
    justify-items: center;
    gap: 2px;
    width: 76px;
    padding: 4px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    font-size: 11.5px;
    cursor: pointer;
  }
  li span:first-child {
    width: 100%;
    height: 34px;
    border-radius: 3px;
  }
  .left {
    opacity: 0.4;
  }
</style>
