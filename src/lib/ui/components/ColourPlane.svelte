<script lang="ts">
  import { clamp } from '$lib/core/num/tolerance';
  import type { Hex } from '$lib/core/colour/parse';
  import { inRun } from '../state/run';
  import { fromOklch, mostChroma, toOklch } from '$lib/core/colour/space';

  /**
   * A colour on a plane of OKLCH: lightness up, chroma to the right, at one hue, which has a slider of its own. The line
   * is the limit of sRGB; beyond it nothing is drawn and nothing can be chosen.
   */
  type Props = { colour: Hex; label: string; onlive: (colour: Hex) => void; onset: (colour: Hex) => void };
  let { colour, label, onlive, onset }: Props = $props();

  const run = $props.id();
  const WIDTH = 208;
  const HEIGHT = 116;
  const MOST = 0.34;

  /** Greys have no hue: the one that was chosen last stays. */
  let lastHue = $state(toOklch(untrackedColour()).h);
  function untrackedColour(): Hex {
    return colour;
  }
  const at = $derived(toOklch(colour));
  const hue = $derived(at.c > 0.004 ? at.h : lastHue);
  const limit = $derived(
    Array.from({ length: 40 }, (_, index) => {
      const l = index / 39;
      return `${((mostChroma(l, hue) / MOST) * WIDTH).toFixed(1)},${((1 - l) * HEIGHT).toFixed(1)}`;
    }).join(' '),
  );
  let dragging = $state(false);

  /** The plane at a hue: coarse pixels drawn large and smooth, cut along the limit of sRGB, so that a slider's move stays within a frame. */
  function paint(canvas: HTMLCanvasElement): void {
    const step = 4;
    const context = canvas.getContext('2d');
    if (!context) return;
    const coarse = document.createElement('canvas');
    [coarse.width, coarse.height] = [WIDTH / step, HEIGHT / step];
    const pixels = coarse.getContext('2d');
    if (!pixels) return;
    for (let y = 0; y < coarse.height; y += 1)
      for (let x = 0; x < coarse.width; x += 1) {
        pixels.fillStyle = `oklch(${1 - (y + 0.5) / coarse.height} ${((x + 0.5) / coarse.width) * MOST} ${hue})`;
        pixels.fillRect(x, y, 1, 1);
      }
    context.clearRect(0, 0, WIDTH, HEIGHT);
    context.save();
    context.beginPath();
    context.moveTo(0, HEIGHT);
    for (const point of limit.split(' ')) {
      const [x = 0, y = 0] = point.split(',').map(Number);
      context.lineTo(x, y);
    }
    context.closePath();
    context.clip();
    context.imageSmoothingQuality = 'high';
    context.drawImage(coarse, 0, 0, WIDTH, HEIGHT);
    context.restore();
  }

  function choose(l: number, c: number, h: number, live: boolean): void {
    const light = clamp(l, 0, 1);
    lastHue = h;
    const next = fromOklch({ l: light, c: clamp(c, 0, mostChroma(light, h)), h });
    (live ? onlive : onset)(next);
  }
  function point(event: PointerEvent, live: boolean): void {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    choose(1 - (event.clientY - box.top) / HEIGHT, ((event.clientX - box.left) / WIDTH) * MOST, hue, live);
  }
  function onkey(event: KeyboardEvent): void {
    const step = event.shiftKey ? 10 : 1;
    const moves: Record<string, [number, number]> = {
      ArrowUp: [0.005, 0],
      ArrowDown: [-0.005, 0],
      ArrowRight: [0, 0.002],
      ArrowLeft: [0, -0.002],
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    event.stopPropagation();
    inRun(run, () => choose(at.l + move[0] * step, at.c + move[1] * step, hue, false));
  }
</script>

<div class="plane">
  <div
    class="area"
    role="slider"
    tabindex="0"
    aria-label="{label}, lightness and chroma"
    aria-valuenow={Math.round(at.l * 100)}
    aria-valuetext="lightness {Math.round(at.l * 100)} %, chroma {at.c.toFixed(3)}"
    style:width="{WIDTH}px"
    style:height="{HEIGHT}px"
    onpointerdown={(event) => {
      dragging = true;
      event.currentTarget.setPointerCapture(event.pointerId);
      point(event, true);
    }}
    onpointermove={(event) => dragging && point(event, true)}
    onpointerup={(event) => {
      if (!dragging) return;
      dragging = false;
      point(event, false);
    }}
    onkeydown={onkey}
  >
    <canvas width={WIDTH} height={HEIGHT} {@attach (node) => paint(node)}></canvas>
    <svg width={WIDTH} height={HEIGHT} aria-hidden="true">
      <polyline points={limit} />
      <circle cx={(at.c / MOST) * WIDTH} cy={(1 - at.l) * HEIGHT} r="6" />
      <circle class="inner" cx={(at.c / MOST) * WIDTH} cy={(1 - at.l) * HEIGHT} r="4.5" />
    </svg>
  </div>
  <input
    type="range"
    min="0"
    max="360"
    step="1"
    value={hue}
    aria-label="{label}, hue"
    aria-valuetext="hue {Math.round(hue)}°"
    oninput={(event) => choose(at.l, at.c, Number(event.currentTarget.value), true)}
    onchange={(event) => choose(at.l, at.c, Number(event.currentTarget.value), false)}
  />
  <p class="mono muted">L {Math.round(at.l * 100)} % · C {at.c.toFixed(3)} · H {Math.round(hue)}°</p>
</div>

<style>
  .plane {
    display: grid;
    gap: 6px;
    margin-top: 10px;
  }
  .area {
    position: relative;
    border-radius: 4px;
    background: var(--paper);
    box-shadow: inset 0 0 0 1px var(--rule);
    cursor: crosshair;
    touch-action: none;
  }
  canvas,
  svg {
    position: absolute;
    inset: 0;
    border-radius: 4px;
  }
  polyline {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1;
  }
  circle {
    fill: none;
    stroke: #fff;
    stroke-width: 2;
  }
  .inner {
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  input {
    width: 100%;
    height: 14px;
    margin: 0;
    border-radius: 7px;
    appearance: none;
    background: linear-gradient(
      to right,
      oklch(0.72 0.13 0),
      oklch(0.72 0.13 60),
      oklch(0.72 0.13 120),
      oklch(0.72 0.13 180),
      oklch(0.72 0.13 240),
      oklch(0.72 0.13 300),
      oklch(0.72 0.13 360)
    );
  }
  input::-webkit-slider-thumb {
    width: 14px;
    height: 14px;
    border: 2px solid #fff;
    border-radius: 50%;
    appearance: none;
    background: var(--ink);
  }
  p {
    font-size: 11.5px;
  }
</style>
