<script lang="ts">
  import type { Layout } from '$lib/core/recipe/layout';
  import type { PatternLookup } from '$lib/core/scene/layout';
  import { compileLayout } from '$lib/core/scene/layout';
  import { layoutSvg } from '$lib/core/svg/layout';
  import { cutSheet, OBJECTS, type ObjectSpec } from '$lib/core/mockup/objects';
  import { seenFrom } from '$lib/core/mockup/seen';
  import { maskPicture } from '$lib/core/formats/mask-picture';
  import { clamp, wrapDegrees } from '$lib/core/num/tolerance';
  import { CSS_PPI } from '$lib/core/num/length';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { imageOf } from '../state/raster';
  import { paintObject } from './paint-object';

  /** A layout on the object that its page is cut for: turned by a drag, by keys and by numbers. */
  type Props = { object: ObjectSpec; layout: Layout; lookup: PatternLookup; busy: boolean };
  let { object, layout, lookup, busy }: Props = $props();

  /** The sheet is drawn with so many px along its longer side. */
  const TEXTURE_SIDE = 2400;
  const WAIT = 150;
  const VIEWS = [
    { name: 'Front', turn: 0, raised: 12 },
    { name: 'Three-quarter', turn: 32, raised: 22 },
    { name: 'Back', turn: 180, raised: 12 },
    { name: 'Above', turn: 32, raised: 62 },
  ];

  let turn = $state(32);
  let raised = $state(22);
  let picture: HTMLCanvasElement | null = $state.raw(null);
  let canvas: HTMLCanvasElement | undefined = $state();
  let shade: CanvasRenderingContext2D | null = null;
  let width = $state(0);
  let height = $state(0);
  const sheet = $derived.by(() => {
    const cut = cutSheet(object);
    return cut.ok ? cut.sheet : null;
  });
  const px = $derived(sheet ? TEXTURE_SIDE / Math.max(sheet.width, sheet.height) : 1);
  const cells = $derived(sheet ? seenFrom(sheet, { turn, raised }) : []);
  // What is drawn on the sheet, anew a moment after each change.
  $effect(() => {
    if (!sheet || busy) return;
    const scale = (px * 25.4) / CSS_PPI;
    const scene = compileLayout(layout, lookup);
    const region = {
      x: 0,
      y: 0,
      width: (sheet.width * CSS_PPI) / 25.4,
      height: (sheet.height * CSS_PPI) / 25.4,
    };
    let wanted = true;
    const wait = setTimeout(
      () => {
        const svg = layoutSvg(scene, {
          patterns: 'live',
          region,
          width: String(Math.round(sheet.width * px)),
          height: String(Math.round(sheet.height * px)),
          scale,
          maskPicture: (mask) => maskPicture(mask, scale),
        });
        void imageOf(svg).then((drawn) => wanted && (picture = asPixels(drawn)));
      },
      picture ? WAIT : 0,
    );
    return () => {
      wanted = false;
      clearTimeout(wait);
    };
  });

  /** A drawing as pixels: it is laid on the object piece by piece, many times while it is turned. */
  function asPixels(drawn: HTMLImageElement): HTMLCanvasElement {
    const made = document.createElement('canvas');
    [made.width, made.height] = [drawn.naturalWidth, drawn.naturalHeight];
    made.getContext('2d')!.drawImage(drawn, 0, 0);
    return made;
  }

  /** As large as it is seen from everywhere: what turns does not jump. */
  const reach = $derived.by(() => {
    if (!sheet) return { across: 1, low: 0, high: 1 };
    const places = [
      ...sheet.blanks.flatMap(({ corners }) => corners),
      ...sheet.panels.flatMap(({ at, cells: all }) =>
        at ? all.flatMap((cell) => cell.map((point) => at(point))) : [],
      ),
    ];
    return {
      across: Math.max(...places.map(({ x, z }) => Math.hypot(x, z))),
      low: Math.min(...places.map(({ y }) => y)),
      high: Math.max(...places.map(({ y }) => y)),
    };
  });
  $effect(() => {
    if (!canvas || !picture || width === 0) return;
    const density = devicePixelRatio;
    canvas.width = Math.round(width * density);
    canvas.height = Math.round(height * density);
    const context = canvas.getContext('2d')!;
    const { across, low, high } = reach;
    const lean = (raised * Math.PI) / 180;
    const tall = (high - low) * Math.cos(lean) + 2 * across * Math.abs(Math.sin(lean));
    const scale = 0.9 * Math.min(canvas.width / (2 * across), canvas.height / tall);
    const middle = ((high + low) / 2) * Math.cos(lean);
    shade ??= document.createElement('canvas').getContext('2d')!;
    paintObject(
      context,
      shade,
      cells,
      { picture, px },
      { scale, x: canvas.width / 2, y: canvas.height / 2 + middle * scale },
    );
  });

  let from: { x: number; y: number; turn: number; raised: number } | null = null;
  function look(toTurn: number, toRaised: number): void {
    turn = wrapDegrees(Math.round(toTurn));
    raised = clamp(Math.round(toRaised), -30, 89);
  }
  function onkeydown(event: KeyboardEvent): void {
    const step = event.shiftKey ? 15 : 3;
    const to = {
      ArrowLeft: [turn - step, raised],
      ArrowRight: [turn + step, raised],
      ArrowUp: [turn, raised + step],
      ArrowDown: [turn, raised - step],
    }[event.key] as [number, number] | undefined;
    if (!to) return;
    event.preventDefault();
    look(...to);
  }
</script>

<div class="view">
  <!-- A picture that is turned by its arrows: the numbers below do the same. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    class="stage"
    role="application"
    aria-label="{OBJECTS[object.kind].label}. Arrow keys turn it"
    tabindex="0"
    bind:clientWidth={width}
    bind:clientHeight={height}
    {onkeydown}
    onpointerdown={(event) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      from = { x: event.clientX, y: event.clientY, turn, raised };
    }}
    onpointermove={(event) => {
      if (from)
        look(from.turn + (event.clientX - from.x) * 0.6, from.raised + (event.clientY - from.y) * 0.4);
    }}
    onpointerup={() => (from = null)}
    onpointercancel={() => (from = null)}
  >
    <canvas
      bind:this={canvas}
      data-drawn={picture ? `${turn} ${raised}` : null}
      style:width="{width}px"
      style:height="{height}px"
      aria-label="The layout on the {OBJECTS[object.kind].label.toLowerCase()}"
    ></canvas>
  </div>
  <div class="bar">
    <span class="views">
      {#each VIEWS as view (view.name)}
        <Button
          kind="quiet"
          pressed={view.turn === turn && view.raised === raised}
          onclick={() => look(view.turn, view.raised)}>{view.name}</Button
        >
      {/each}
    </span>
    <span class="numbers muted">
      turned
      <NumberField
        label="Turned by"
        value={turn}
        kind={{ suffix: '°' }}
        digits={0}
        least={-360}
        most={360}
        onset={(value) => look(value, raised)}
      />
      tilted
      <NumberField
        label="Seen from above by"
        value={raised}
        kind={{ suffix: '°' }}
        digits={0}
        least={-30}
        most={89}
        onset={(value) => look(turn, value)}
      />
    </span>
  </div>
</div>

<style>
  .view {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    min-height: 0;
  }
  .stage {
    min-height: 0;
    overflow: hidden;
    cursor: grab;
    touch-action: none;
  }
  .stage:active {
    cursor: grabbing;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    padding: 6px 8px;
  }
  .numbers {
    display: flex;
    gap: 6px;
    align-items: baseline;
    font-size: var(--small);
  }
</style>
