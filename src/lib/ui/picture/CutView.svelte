<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { Pixels, SeenPiece } from '$lib/contract/picture-work';
  import type { Point } from '$lib/core/geom/point';
  import type { Size } from '$lib/core/lattice/size';
  import { clamp } from '$lib/core/num/tolerance';
  import { CUT_LIMITS, type CutOut, type CutStroke } from '$lib/core/recipe/cut-out';
  import { STROKE_LIMITS } from '$lib/core/recipe/stroke';
  import BrushNumbers from '../components/BrushNumbers.svelte';
  import BrushSurface from '../components/BrushSurface.svelte';
  import Button from '../components/Button.svelte';
  import DrawnPixels from '../components/DrawnPixels.svelte';
  import Switch from '../components/Switch.svelte';
  import Tick from '../components/Tick.svelte';

  /** What is left of a picture: a press keeps one of its pieces alone, a brush gives back and takes away. */
  type Props = {
    source: Size;
    by: CutOut;
    pixels: Pixels | null;
    pieces: readonly SeenPiece[];
    /** Shown on a chequered ground. */
    checked: boolean;
    onlive: (stroke: CutStroke | null) => void;
    onset: (by: CutOut) => void;
    children: Snippet;
  };
  let { source, by, pixels, pieces, checked, onlive, onset, children }: Props = $props();

  const WIDE = 400;
  const HIGH = 320;
  /** What is paler than this is no piece: those that are not kept are seen at a fifth. */
  const LEAST_SEEN = 24;
  let does: 'pieces' | CutStroke['mode'] = $state('pieces');
  let zoom: '1' | '2' | '4' = $state('1');
  let edges = $state(true);
  // svelte-ignore state_referenced_locally
  let brush = $state({
    size: Math.max(4, Math.round(Math.min(source.width, source.height) / 12)),
    softness: 0.5,
    strength: 1,
  });
  const strokes = $derived(by.strokes ?? []);
  const scale = $derived(Math.min(WIDE / source.width, HIGH / source.height) * Number(zoom));
  const same = (one: Point, other: Point): boolean => one.x === other.x && one.y === other.y;
  /** Whether a place was picked for a piece: by its number, or by a press anywhere in it. */
  const isOf = (place: Point, piece: SeenPiece): boolean =>
    same(place, piece) || piece.holds.some((held) => same(place, held));
  const isKept = (piece: SeenPiece): boolean => by.only.some((place) => isOf(place, piece));

  function keepPiece(event: MouseEvent): void {
    if (!pixels || does !== 'pieces') return;
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const [across, down] = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    const at = (part: number, length: number): number => clamp(Math.floor(part * length), 0, length - 1);
    const alpha = pixels.data[(at(down, pixels.height) * pixels.width + at(across, pixels.width)) * 4 + 3]!;
    if (checked && alpha < LEAST_SEEN) return;
    const held = event.shiftKey ? by.only.slice(-(CUT_LIMITS.only - 1)) : [];
    onset({ ...by, only: [...held, { x: at(across, source.width), y: at(down, source.height) }] });
  }
  function togglePiece(piece: SeenPiece): void {
    const { x, y } = piece;
    const only = isKept(piece)
      ? by.only.filter((place) => !isOf(place, piece))
      : [...by.only.slice(-(CUT_LIMITS.only - 1)), { x, y }];
    onset({ ...by, only });
  }
  function onkeydown(event: KeyboardEvent): void {
    if (event.key !== 'z' || !(event.ctrlKey || event.metaKey) || does === 'pieces') return;
    if ((event.target as Element).matches('input')) return;
    event.preventDefault();
    takeBack();
  }
  const takeBack = (): void => onset({ ...by, strokes: strokes.slice(0, -1) });
</script>

<svelte:window {onkeydown} />

<div>
  <div class="room">
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <div
      class="view"
      class:checked
      style:width="{source.width * scale}px"
      style:height="{source.height * scale}px"
      onclick={keepPiece}
    >
      <DrawnPixels {pixels} label="What is left of the picture" />
      {#if does === 'pieces' && pieces.length > 1}
        {#each pieces as { x, y }, index (index)}
          <span class="number" aria-hidden="true" style:left="{x * scale}px" style:top="{y * scale}px"
            >{index + 1}</span
          >
        {/each}
      {:else if does !== 'pieces'}
        <BrushSurface
          label={does === 'erase' ? 'Takes away what it goes over' : 'Gives back what it goes over'}
          {scale}
          {brush}
          onlive={(stroke) => onlive(stroke && { ...stroke, mode: does as CutStroke['mode'], edges })}
          onset={(stroke) =>
            strokes.length < STROKE_LIMITS.strokes &&
            onset({ ...by, strokes: [...strokes, { ...stroke, mode: does as CutStroke['mode'], edges }] })}
        />
      {/if}
    </div>
  </div>
  <div class="row">
    {@render children()}
    <Switch
      label="How large it is shown"
      value={zoom}
      options={[
        { value: '1', label: '1×' },
        { value: '2', label: '2×' },
        { value: '4', label: '4×' },
      ]}
      onset={(value) => (zoom = value)}
    />
  </div>
  <div class="row">
    <Switch
      label="What the pointer does"
      value={does}
      options={[
        { value: 'pieces', label: 'Pick pieces' },
        { value: 'erase', label: 'Take away' },
        { value: 'restore', label: 'Give back' },
      ]}
      onset={(value) => (does = value)}
    />
  </div>
  {#if does === 'pieces'}
    <p class="muted only">
      {#if by.only.length === 0}Press a piece to keep it alone, with Shift one more.
      {:else}
        {by.only.length === 1 ? 'One piece is' : `${by.only.length} pieces are`} kept.
        <Button kind="quiet" onclick={() => onset({ ...by, only: [] })}>Keep all</Button>
      {/if}
    </p>
    {#if pieces.length > 1}
      <div class="pieces" role="group" aria-label="The largest pieces">
        {#each pieces as piece, index (index)}
          <button
            type="button"
            aria-pressed={isKept(piece)}
            aria-label="Keep piece {index + 1}, {(piece.share * 100).toFixed(1)} % of the picture"
            onclick={() => togglePiece(piece)}>{index + 1}</button
          >
        {/each}
      </div>
    {/if}
  {:else}
    <BrushNumbers {brush} onset={(next) => (brush = next)} />
    <div class="row">
      <Tick label="stops at edges" checked={edges} onset={(on) => (edges = on)} />
      <Button kind="quiet" disabled={strokes.length === 0} onclick={takeBack}
        >Take the last stroke back</Button
      >
    </div>
    {#if strokes.length >= STROKE_LIMITS.strokes}
      <p class="muted" role="status">
        {STROKE_LIMITS.strokes} strokes are as many as one cut-out holds; take some back, or move its levels.
      </p>
    {/if}
  {/if}
</div>

<style>
  .room {
    display: grid;
    overflow: auto;
    width: 400px;
    max-height: 336px;
    margin-bottom: 8px;
    border-radius: 6px;
    place-items: safe center;
  }
  .view {
    position: relative;
    overflow: hidden;
    cursor: crosshair;
  }
  .checked {
    background: repeating-conic-gradient(#d5d8d5 0 25%, #fff 0 50%) 0 0 / 16px 16px;
  }
  .number {
    position: absolute;
    width: 18px;
    height: 18px;
    margin: -9px 0 0 -9px;
    border-radius: 50%;
    background: var(--card);
    box-shadow: var(--shadow);
    font-size: 11px;
    line-height: 18px;
    pointer-events: none;
    text-align: center;
  }
  .row {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    margin-bottom: 8px;
  }
  p {
    margin: 0 0 8px;
    font-size: var(--small);
  }
  .pieces {
    display: flex;
    gap: 4px;
  }
  .pieces button {
    min-width: 26px;
    height: 26px;
    border: 1px solid var(--rule);
    border-radius: 13px;
    background: none;
    cursor: pointer;
  }
  .pieces [aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    font-weight: 600;
  }
</style>
