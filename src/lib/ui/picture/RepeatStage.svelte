<script lang="ts">
  import type { Point } from '$lib/core/geom/point';
  import { ownSize } from '$lib/core/recipe/made';
  import type { PictureEditor } from './editor.svelte';
  import BrushSurface from '../components/BrushSurface.svelte';
  import type { Blob } from '$lib/core/picture/repeat';
  import { DISTANCES } from '../state/distances';
  import type { Maker } from './maker.svelte';
  import type { Retoucher } from './retoucher.svelte';

  /** The repeat as it lies, three units across; the edges of one of them in kelp. */
  type Props = {
    editor: PictureEditor;
    maker: Maker;
    /** How many units lie across; `null` where it is seen as from a distance. */
    across: number | null;
    distance: (typeof DISTANCES)[number];
    /** What tells most where the unit begins again, in CSS px of it. */
    blob: Blob | null;
    /** By how much of the unit all is shifted: half shows the joins in the middle. */
    half: boolean;
    /** Whether the edges of the unit are shown. */
    edges: boolean;
    /** How wide a unit is shown, px of the screen. */
    shown: number;
    retoucher: Retoucher;
  };
  let {
    editor,
    maker,
    across,
    distance,
    blob,
    half,
    edges,
    shown = $bindable(),
    retoucher,
  }: Props = $props();

  let width = $state(0);
  let height = $state(0);
  let canvas: HTMLCanvasElement | undefined = $state();
  const density = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1;

  /** A screen is looked at from half a metre: what is further away is seen smaller by as much. */
  const SCREEN = DISTANCES[0]!.px;
  const made = $derived(ownSize(editor.pictured.pictured));
  /** The unit on the screen: so wide that `across` of them fit the shorter way. */
  const unitWidth = $derived(
    across === null
      ? Math.max(8, editor.pictured.unit.width * (SCREEN / distance.px))
      : Math.max(8, Math.min(width / across, (height / across) * (made.width / made.height))),
  );
  const unitHeight = $derived((unitWidth * made.height) / made.width);
  // Told anew only when it is another size: what depends on it is painted.
  const unit = $derived({ width: unitWidth, height: unitHeight });
  $effect(() => {
    shown = unit.width * density;
  });
  const lay = $derived(editor.pictured.lay);

  let tile: HTMLCanvasElement | null = null;
  $effect(() => {
    const pixels = maker.unit;
    if (!canvas || !pixels || width === 0) return;
    tile ??= document.createElement('canvas');
    tile.width = pixels.width;
    tile.height = pixels.height;
    tile.getContext('2d')!.putImageData(new ImageData(pixels.data, pixels.width, pixels.height), 0, 0);
    paint(tile);
  });

  /** The place of the unit in the middle, px of the screen. */
  const origin = $derived({
    x: width / 2 - (half ? 0 : unit.width / 2),
    y: height / 2 - (half ? 0 : unit.height / 2),
  });

  function paint(picture: HTMLCanvasElement): void {
    const context = canvas!.getContext('2d')!;
    canvas!.width = Math.round(width * density);
    canvas!.height = Math.round(height * density);
    // Whole pixels of the screen: what would be seen between two units would be the screen's doing, not the repeat's.
    const wide = Math.max(1, Math.round(unit.width * density));
    const high = Math.max(1, Math.round(unit.height * density));
    context.imageSmoothingQuality = 'high';
    const columns = Math.ceil(canvas!.width / wide) + 2;
    const rows = Math.ceil(canvas!.height / high) + 2;
    const step = lay.kind === 'straight' ? 0 : lay.step;
    for (let row = -rows; row <= rows; row += 1)
      for (let column = -columns; column <= columns; column += 1) {
        const along = lay.kind === 'brick' ? modulo(row * step) : 0;
        const down = lay.kind === 'half-drop' ? modulo(column * step) : 0;
        const x = Math.round(origin.x * density) + column * wide + Math.round(along * wide);
        const y = Math.round(origin.y * density) + row * high + Math.round(down * high);
        if (x > canvas!.width || y > canvas!.height || x + wide < 0 || y + high < 0) continue;
        context.drawImage(picture, x, y, wide, high);
      }
  }
  const modulo = (value: number): number => value - Math.floor(value);
</script>

<div class="repeat" bind:clientWidth={width} bind:clientHeight={height}>
  <canvas
    bind:this={canvas}
    style:width="{width}px"
    style:height="{height}px"
    aria-label={across === null
      ? `The repeat as from ${distance.metres} m`
      : `The repeat, ${across} units across`}
  ></canvas>
  {#if edges && maker.unit}
    <svg {width} {height} aria-hidden="true">
      <rect x={origin.x} y={origin.y} width={unit.width} height={unit.height} />
      {#if blob}
        {@const scale = unit.width / editor.pictured.unit.width}
        <g
          data-blob={blob.is}
          transform="translate({origin.x + blob.x * scale} {origin.y + blob.y * scale}) rotate({blob.turn})"
        >
          <ellipse class="under" rx={blob.rx * scale} ry={blob.ry * scale} />
          <ellipse rx={blob.rx * scale} ry={blob.ry * scale} />
        </g>
      {/if}
    </svg>
  {/if}
  {#if retoucher.does && maker.unit && retoucher.why(retoucher.does) === null}
    {@const scale = unit.width / made.width}
    {#if retoucher.healing}
      {@const { points, size } = retoucher.healing}
      <svg {width} {height} aria-hidden="true">
        <polyline
          class="healing"
          points={[...points, points.at(-2)!, points.at(-1)! + 0.01]
            .map((value, index) => value * scale + (index % 2 === 0 ? origin.x : origin.y))
            .join(' ')}
          stroke-width={size * scale}
        />
      </svg>
    {/if}
    <BrushSurface
      label="The repeat, to paint on"
      {scale}
      {origin}
      brush={retoucher.brush}
      pointing={retoucher.pointing}
      from={retoucher.does === 'clone' ? retoucher.from : null}
      onlive={(stroke) => retoucher.live(stroke)}
      onset={(stroke) => void retoucher.set(stroke)}
      {...retoucher.does === 'clone' ? { onpoint: (at: Point) => retoucher.point(at) } : {}}
    />
  {/if}
  {#if !maker.unit && !maker.fault}<p class="wait">Reading the picture …</p>{/if}
</div>

<style>
  .repeat {
    position: relative;
    overflow: hidden;
    background: var(--surround);
  }
  canvas,
  svg {
    position: absolute;
    inset: 0;
  }
  svg {
    pointer-events: none;
  }
  rect {
    fill: none;
    stroke: var(--kelp);
    stroke-width: 2;
  }
  ellipse {
    fill: none;
    stroke: var(--signal);
    stroke-dasharray: 5 4;
    stroke-width: 1.75;
  }
  .under {
    stroke: #fff;
    stroke-dasharray: none;
    stroke-width: 3.5;
  }
  .healing {
    fill: none;
    opacity: 0.35;
    stroke: #fff;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  .wait {
    position: absolute;
    inset: 45% 0 auto;
    color: var(--surround-ink);
    text-align: center;
  }
</style>
