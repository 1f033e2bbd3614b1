<script lang="ts">
  import { PLANE_GROUPS, shortSymbol, type PlaneGroup } from '$lib/core/lattice/groups';
  import type { Pixels } from '$lib/contract/picture-work';
  import type { PictureEditor } from './editor.svelte';
  import type { Maker } from './maker.svelte';

  /** The region as it is and in each plane group, as small repeats: one looks, and picks. */
  type Props = { editor: PictureEditor; maker: Maker };
  let { editor, maker }: Props = $props();

  const WIDTH = 92;
  const HEIGHT = 76;
  const symmetry = $derived(editor.pictured.pictured.symmetry);
  /** p1 is the region as it is. */
  const chosen = $derived(symmetry.on ? symmetry.group : 'p1');
  const SAID: Partial<Record<PlaneGroup, string>> = {
    p1: 'as it is',
    pm: 'pm, mirrored',
    p2mm: 'pmm, mirrored',
  };

  function painted(pixels: Pixels | undefined): (node: HTMLCanvasElement) => void {
    return (node) => {
      if (!pixels) return;
      const tile = document.createElement('canvas');
      tile.width = pixels.width;
      tile.height = pixels.height;
      tile.getContext('2d')!.putImageData(new ImageData(pixels.data, pixels.width, pixels.height), 0, 0);
      const context = node.getContext('2d')!;
      context.fillStyle = context.createPattern(tile, 'repeat')!;
      context.fillRect(0, 0, node.width, node.height);
    };
  }
  /** What is chosen is in sight, also where many lie before it. */
  let list: HTMLElement | undefined = $state();
  $effect(() => {
    list?.querySelector(`[data-group="${chosen}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  });
  function pick(group: PlaneGroup): void {
    if (group === 'p1') editor.setSymmetry(false);
    else editor.setSymmetry(true, group);
  }
  function onkeydown(event: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const at = (PLANE_GROUPS.indexOf(chosen) + step + PLANE_GROUPS.length) % PLANE_GROUPS.length;
    pick(PLANE_GROUPS[at]!);
    queueMicrotask(() => list?.querySelector<HTMLElement>('[aria-checked="true"]')?.focus());
  }
</script>

<div class="tray" role="radiogroup" aria-label="Symmetry" bind:this={list}>
  {#each PLANE_GROUPS as group (group)}
    <button
      type="button"
      role="radio"
      aria-checked={group === chosen}
      data-group={group}
      tabindex={group === chosen ? 0 : -1}
      title={group === 'p1' ? 'The region as it is' : `The plane group ${group}`}
      onclick={() => pick(group)}
      {onkeydown}
    >
      <canvas width={WIDTH} height={HEIGHT} aria-hidden="true" {@attach painted(maker.tray.get(group))}
      ></canvas>
      <span>{SAID[group] ?? shortSymbol(group)}</span>
    </button>
  {/each}
</div>

<style>
  .tray {
    display: flex;
    gap: 6px;
    padding: 6px 10px 8px;
    overflow-x: auto;
    border-top: 1px solid var(--rule);
    background: var(--card);
    scrollbar-width: thin;
  }
  button {
    display: grid;
    flex: none;
    gap: 3px;
    padding: 3px;
    border: 2px solid transparent;
    border-radius: 4px;
    background: none;
    font-size: var(--small);
    justify-items: center;
    cursor: pointer;
  }
  button:hover {
    background: var(--kelp-tint);
  }
  [aria-checked='true'] {
    border-color: var(--kelp);
    font-weight: 650;
  }
  canvas {
    width: 92px;
    height: 76px;
    background: var(--surround);
  }
</style>
