<script lang="ts">
  import { judgeLine, meanPicture, type LineVerdict } from '$lib/core/raster/line';
  import type { StraightPicture } from '$lib/core/raster/recolour';
  import type { Box } from '$lib/core/geom/box';
  import type { Point } from '$lib/core/geom/point';
  import { toasts } from '../state/toasts.svelte';
  import type { View } from '../layout/view.svelte';
  import Button from './Button.svelte';

  /**
   * Lies over a stage while one asks whether a line on it is real: the pressed place is drawn once as the screen draws
   * it, and once from its definition with many samples a pixel; what only the first shows is gone in a file.
   */
  type Props = {
    view: View;
    /** Draws a box of the plane in `side` px as the screen does, or exactly. */
    draw: (box: Box, side: number, how: 'screen' | 'exact') => Promise<StraightPicture>;
    /** Where on the pattern a point lies, in words. */
    place: (at: Point) => string | null;
    onend: () => void;
  };
  let { view, draw, place, onend }: Props = $props();

  /** Px of the screen that are looked at to each side, and samples of each of them across and down. */
  const SIDE = 25;
  const SAMPLES = 8;
  /** A line that stands out by less, of 255, is not to be seen. */
  const SEEN = 3;
  const ENLARGED = 5;

  type Found = { verdict: LineVerdict; shown: StraightPicture; exact: StraightPicture; where: string | null };
  let found: Found | null = $state.raw(null);
  let busy = $state(false);
  let asked = 0;

  const words = (verdict: LineVerdict): string => {
    const part = (depth: number): string => `${Math.round((100 * depth) / 255)} %`;
    switch (verdict.kind) {
      case 'none':
        return 'There is no line here: the place is of one colour.';
      case 'edge':
        return 'There is no line here: two colours meet, as they are defined.';
      case 'real':
        if (verdict.shown < SEEN)
          return `The pattern is finer here than this zoom shows: it has lines that stand out by ${part(verdict.depth)}. Zoom in to see them.`;
        return `The line is in the pattern: it stands out by ${part(verdict.depth)}. An exported file has it too.`;
      case 'screen':
        return `Only the screen draws this line (${part(verdict.shown)}); the pattern has none here, and an exported file has none.`;
    }
  };

  async function ask(event: PointerEvent & { currentTarget: HTMLElement }): Promise<void> {
    const frame = event.currentTarget.getBoundingClientRect();
    const density = window.devicePixelRatio || 1;
    // Whole px of the screen, so that the edges of the pixels lie where the screen has them.
    const px = (at: number): number => Math.floor(at * density) / density;
    const reach = Math.floor(SIDE / 2) / density;
    const corner = view.toPage({
      x: px(event.clientX - frame.left) - reach,
      y: px(event.clientY - frame.top) - reach,
    });
    const side = SIDE / density / view.zoom;
    const box: Box = { ...corner, width: side, height: side };
    const turn = ++asked;
    busy = true;
    try {
      const [shown, fine] = await Promise.all([
        draw(box, SIDE, 'screen'),
        draw(box, SIDE * SAMPLES, 'exact'),
      ]);
      const exact = meanPicture(fine, SAMPLES);
      const middle = { x: corner.x + side / 2, y: corner.y + side / 2 };
      if (turn === asked) found = { verdict: judgeLine(shown, exact), shown, exact, where: place(middle) };
    } catch {
      toasts.problem('That place could not be drawn; zoom in, and press the line again.');
    } finally {
      if (turn === asked) busy = false;
    }
  }
  const paint =
    ({ width, height, data }: StraightPicture) =>
    (canvas: HTMLCanvasElement): void => {
      canvas.width = width;
      canvas.height = height;
      const image = new ImageData(new Uint8ClampedArray(data), width, height);
      canvas.getContext('2d')?.putImageData(image, 0, 0);
    };
</script>

<svelte:document
  onkeydowncapture={(event) => {
    if (event.key !== 'Escape') return;
    event.stopPropagation();
    onend();
  }}
/>

<div class="layer" class:busy role="presentation" onpointerdown={ask}></div>
<div class="card" role="status">
  {#if found}
    <strong>{words(found.verdict)}</strong>
    {#if found.where}<span class="muted">{found.where}</span>{/if}
    <div class="pictures">
      {#each [{ name: 'On this screen', picture: found.shown }, { name: 'As it is defined', picture: found.exact }] as { name, picture } (name)}
        <figure>
          <canvas
            {@attach paint(picture)}
            style:width="{SIDE * ENLARGED}px"
            style:height="{SIDE * ENLARGED}px"
          ></canvas>
          <figcaption class="muted">{name}</figcaption>
        </figure>
      {/each}
    </div>
    <span class="muted">Press another place, or end the question.</span>
  {:else}
    <strong>Press the line that you ask about.</strong>
    <span class="muted">It is drawn once more from its definition, {SAMPLES * SAMPLES} samples a pixel.</span>
  {/if}
  <Button kind="quiet" onclick={onend}>End (Esc)</Button>
</div>

<style>
  .layer {
    position: absolute;
    inset: 0;
    z-index: 5;
    cursor: crosshair;
  }
  .busy {
    cursor: progress;
  }
  .card {
    position: absolute;
    bottom: 12px;
    left: 12px;
    z-index: 6;
    display: grid;
    justify-items: start;
    gap: 6px;
    max-width: 320px;
    padding: 10px 12px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
  }
  .pictures {
    display: flex;
    gap: 12px;
  }
  figure {
    margin: 0;
  }
  canvas {
    display: block;
    image-rendering: pixelated;
  }
  figcaption {
    font-size: var(--small);
  }
</style>
