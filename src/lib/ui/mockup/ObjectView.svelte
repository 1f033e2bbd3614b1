<script lang="ts">
  import { untrack } from 'svelte';
  import type { Size } from '$lib/core/lattice/size';
  import type { Layout } from '$lib/core/recipe/layout';
  import type { PatternLookup } from '$lib/core/scene/layout';
  import { compileLayout } from '$lib/core/scene/layout';
  import { cutSheet, OBJECTS, type ObjectSpec } from '$lib/core/mockup/objects';
  import { seenFrom } from '$lib/core/mockup/seen';
  import { clamp, wrapDegrees } from '$lib/core/num/tolerance';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { saveFile } from '../state/save-file';
  import { drawSheet } from './draw-sheet';
  import { paintObject, type ObjectPlace, type SheetPicture } from './paint-object';

  /** A layout on the object that its page is cut for: turned by a drag, by keys and by numbers. */
  type Props = { object: ObjectSpec; name: string; layout: Layout; lookup: PatternLookup; busy: boolean };
  let { object, name, layout, lookup, busy }: Props = $props();

  /** The sheet is drawn with so many px along its longer side. */
  const TEXTURE_SIDE = 2400;
  const MOST_TEXTURE = 8192;
  const SIDES = { least: 256, most: 4096 };
  const WAIT = 150;
  const VIEWS = [
    { name: 'Front', turn: 0, raised: 12 },
    { name: 'Three-quarter', turn: 32, raised: 22 },
    { name: 'Back', turn: 180, raised: 12 },
    { name: 'Above', turn: 32, raised: 62 },
  ];

  let turn = $state(32);
  let raised = $state(22);
  let texture: SheetPicture | null = $state.raw(null);
  let fault: string | null = $state(null);
  let canvas: HTMLCanvasElement | undefined = $state();
  let shade: CanvasRenderingContext2D | null = null;
  let width = $state(0);
  let height = $state(0);
  const sheet = $derived.by(() => {
    const cut = cutSheet(object);
    return cut.ok ? cut.sheet : null;
  });
  const cells = $derived(sheet ? seenFrom(sheet, { turn, raised }) : []);
  // What is drawn on the sheet, anew a moment after each change.
  $effect(() => {
    if (!sheet || busy) return;
    const scene = compileLayout(layout, lookup);
    const of = sheet;
    let wanted = true;
    const wait = setTimeout(
      () => {
        drawSheet(scene, of, TEXTURE_SIDE).then(
          (drawn) => wanted && ([texture, fault] = [drawn, null]),
          () => wanted && (fault = 'What is drawn on the page cannot be shown on it just now.'),
        );
      },
      untrack(() => texture) ? WAIT : 0,
    );
    return () => {
      wanted = false;
      clearTimeout(wait);
    };
  });

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
    if (!canvas || !texture || width === 0) return;
    canvas.width = Math.round(width * devicePixelRatio);
    canvas.height = Math.round(height * devicePixelRatio);
    shade ??= document.createElement('canvas').getContext('2d')!;
    paintObject(canvas.getContext('2d')!, shade, cells, texture, placeIn(canvas));
  });

  /** The object in the middle of a picture, as large as it fits from everywhere at this height. */
  function placeIn(frame: Size): ObjectPlace {
    const { across, low, high } = reach;
    const lean = (raised * Math.PI) / 180;
    const tall = (high - low) * Math.cos(lean) + 2 * across * Math.abs(Math.sin(lean));
    const scale = 0.9 * Math.min(frame.width / (2 * across), frame.height / tall);
    const middle = ((high + low) / 2) * Math.cos(lean);
    return { scale, x: frame.width / 2, y: frame.height / 2 + middle * scale };
  }

  let side = $state(2048);
  let saving = $state(false);
  /** Saves what is seen as a square picture on a clear ground, its sheet drawn as finely as that shows. */
  async function savePicture(): Promise<void> {
    if (!sheet) return;
    saving = true;
    try {
      const fine = await drawSheet(compileLayout(layout, lookup), sheet, Math.min(MOST_TEXTURE, 3 * side));
      const made = document.createElement('canvas');
      made.width = made.height = side;
      const own = document.createElement('canvas').getContext('2d')!;
      paintObject(made.getContext('2d')!, own, cells, fine, placeIn(made));
      const blob = await new Promise<Blob | null>((resolve) => made.toBlob(resolve, 'image/png'));
      if (!blob) throw new Error('The browser made no picture.');
      saveFile(blob, `${name} on the ${OBJECTS[object.kind].noun}.png`);
      fault = null;
    } catch {
      fault = 'The picture could not be made; try a smaller one.';
    } finally {
      saving = false;
    }
  }

  let from: { x: number; y: number; turn: number; raised: number } | null = null;
  function look(toTurn: number, toRaised: number): void {
    turn = wrapDegrees(Math.round(toTurn));
    raised = clamp(Math.round(toRaised), -30, 89);
  }
  /** What is seen goes where the arrow points, as under a hand. */
  function onkeydown(event: KeyboardEvent): void {
    const step = event.shiftKey ? 15 : 3;
    const to = {
      ArrowLeft: [turn + step, raised],
      ArrowRight: [turn - step, raised],
      ArrowUp: [turn, raised - step],
      ArrowDown: [turn, raised + step],
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
        look(from.turn - (event.clientX - from.x) * 0.6, from.raised + (event.clientY - from.y) * 0.4);
    }}
    onpointerup={() => (from = null)}
    onpointercancel={() => (from = null)}
  >
    <canvas
      bind:this={canvas}
      data-drawn={texture ? `${turn} ${raised}` : null}
      style:width="{width}px"
      style:height="{height}px"
      aria-label="The layout on the {OBJECTS[object.kind].label.toLowerCase()}"
    ></canvas>
  </div>
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
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
    <span class="numbers muted">
      <Button disabled={saving || !texture} onclick={savePicture}
        >{saving ? 'Making it …' : 'Save a picture'}</Button
      >
      of
      <NumberField
        label="Side of the picture"
        value={side}
        kind={{ suffix: 'px' }}
        digits={0}
        {...SIDES}
        onset={(value) => (side = Math.round(value))}
      />
    </span>
  </div>
</div>

<style>
  .view {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto auto;
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
  .fault {
    padding: 4px 10px;
    color: var(--signal);
    font-size: var(--small);
  }
  .bar {
    grid-row: 3;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    padding: 6px 8px;
    background: var(--card);
  }
  .numbers {
    display: flex;
    gap: 6px;
    align-items: baseline;
    font-size: var(--small);
  }
</style>
