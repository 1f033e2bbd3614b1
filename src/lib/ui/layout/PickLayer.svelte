<script lang="ts">
  import { hexOf, type Hex } from '$lib/core/colour/parse';
  import { averageColour } from '$lib/core/raster/recolour';
  import type { DisplayList } from '$lib/core/draw/list';
  import { layoutSvg } from '$lib/core/svg/layout';
  import { PICK_SIDES, type Eyedropper } from '../state/eyedropper.svelte';
  import { rasterOf } from '../state/raster';
  import { toasts } from '../state/toasts.svelte';
  import type { View } from './view.svelte';

  /**
   * Lies over the stage while a colour is to be taken off it. What is under the pointer is drawn as the file would draw
   * it, so that the colour is exact: of one pixel of the screen, or the mean of an area.
   */
  type Props = { eyedropper: Eyedropper; scene: DisplayList; view: View };
  let { eyedropper, scene, view }: Props = $props();

  let at: { x: number; y: number } | null = $state(null);
  let shown: Hex | null = $state(null);
  let busy = false;

  async function read(x: number, y: number): Promise<Hex | null> {
    const { side } = eyedropper;
    const middle = view.toPage({ x, y });
    const width = side / view.zoom;
    const region = { x: middle.x - width / 2, y: middle.y - width / 2, width, height: width };
    const svg = layoutSvg(scene, {
      patterns: 'live',
      region,
      width: String(side),
      height: String(side),
      scale: view.zoom,
    });
    const raster = await rasterOf(svg, side, side);
    const mean = averageColour(raster, Math.floor(side / 2), Math.floor(side / 2), side);
    return mean && hexOf(mean);
  }
  async function move(event: PointerEvent & { currentTarget: HTMLElement }): Promise<void> {
    const box = event.currentTarget.getBoundingClientRect();
    at = { x: event.clientX - box.left, y: event.clientY - box.top };
    if (busy) return;
    busy = true;
    try {
      shown = await read(at.x, at.y);
    } finally {
      busy = false;
    }
  }
  async function take(event: PointerEvent & { currentTarget: HTMLElement }): Promise<void> {
    const box = event.currentTarget.getBoundingClientRect();
    const hex = await read(event.clientX - box.left, event.clientY - box.top);
    if (hex) eyedropper.answer(hex);
    else toasts.problem('Nothing is drawn there; press where there is a colour.');
  }
</script>

<svelte:window
  onkeydown={(event) => {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    eyedropper.answer(null);
  }}
/>

<div class="layer" role="presentation" onpointermove={move} onpointerdown={take}></div>
<div class="bar">
  <span>Press where the colour is.</span>
  <label
    >It takes
    <select bind:value={eyedropper.side}>
      {#each PICK_SIDES as side (side)}<option value={side}
          >{side === 1 ? 'one pixel' : `the mean of ${side} × ${side} px`}</option
        >{/each}
    </select></label
  >
  <button type="button" onclick={() => eyedropper.answer(null)}>Cancel</button>
</div>
{#if at && shown}
  <span class="lens" style:left="{at.x + 14}px" style:top="{at.y + 14}px"
    ><i style:background={shown}></i><span class="mono">{shown}</span></span
  >
{/if}

<style>
  .layer {
    position: absolute;
    inset: 0;
    z-index: 5;
    cursor: crosshair;
  }
  .bar {
    position: absolute;
    top: 12px;
    left: 50%;
    z-index: 6;
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 7px 12px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
    transform: translateX(-50%);
  }
  .bar button {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
  .lens {
    position: absolute;
    z-index: 6;
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 3px 7px 3px 3px;
    border-radius: 6px;
    background: var(--card);
    box-shadow: var(--shadow);
    pointer-events: none;
  }
  .lens i {
    width: 24px;
    height: 24px;
    border-radius: 4px;
  }
</style>
