<script lang="ts">
  import { untrack } from 'svelte';
  import { apply, invert } from '$lib/core/geom/affine';
  import { regionAspect, foldOf } from '$lib/core/lattice/fold';
  import type { Point } from '$lib/core/geom/point';
  import { clamp, roundTo, wrapDegrees } from '$lib/core/num/tolerance';
  import { regionMatrix } from '$lib/core/picture/patch';
  import { cornersOf, placed, placing } from '$lib/core/picture/straight';
  import { groupOf, movedRegion, PICTURED_LIMITS, type Region } from '$lib/core/recipe/pictured';
  import type { Pixels } from '$lib/contract/picture-work';
  import { pictureAddress } from '$lib/core/svg/paint';
  import DrawnPixels from '../components/DrawnPixels.svelte';
  import { View } from '../layout/view.svelte';
  import { inRun } from '../state/run';
  import type { PictureEditor } from './editor.svelte';
  import { withCorner } from './pictured-recipes';

  /** The picture with its region on it: moved by its middle, sized by its corners, turned by the knob below it. */
  type Props = {
    editor: PictureEditor;
    /** The picture that numbers make, where it is none that was brought in. */
    texture: Pixels | null;
  };
  let { editor, texture }: Props = $props();

  const view = new View();
  let width = $state(0);
  let height = $state(0);
  let stage: HTMLElement | undefined = $state();
  const steps = $derived(editor.pictured.pictured);
  const { source } = $derived(steps);
  const region = $derived(steps.region);
  const place = $derived(placing(region));
  const group = $derived(groupOf(steps));
  $effect(() => {
    const stageSize = { width, height };
    const { width: wide, height: high } = source;
    if (width > 0 && height > 0)
      untrack(() => view.fit(stageSize, { width: wide, height: high }, { side: 16, top: 16, foot: 16 }));
  });

  const onScreen = (point: Point): Point => view.toScreen(placed(place, point));
  const corners = $derived(cornersOf(region).map((corner) => view.toScreen(corner)));
  const text = (points: readonly Point[]): string => points.map(({ x, y }) => `${x},${y}`).join(' ');
  /** The part of the region that counts, where that is not all of it. */
  const part = $derived(
    steps.symmetry.on ? foldOf(group, region).part.map((corner) => onScreen(corner)) : null,
  );
  const knob = $derived.by(() => {
    const foot = onScreen({ x: region.width / 2, y: region.height });
    const middle = view.toScreen(region);
    const size = Math.hypot(foot.x - middle.x, foot.y - middle.y) || 1;
    return { x: foot.x + ((foot.x - middle.x) / size) * 24, y: foot.y + ((foot.y - middle.y) / size) * 24 };
  });

  const placeOf = (event: PointerEvent): Point => {
    const box = stage!.getBoundingClientRect();
    return view.toPage({ x: event.clientX - box.left, y: event.clientY - box.top });
  };

  /** Follows the pointer from a press on: `move` answers the region for where it is; Escape puts it back. */
  function drag(
    event: PointerEvent,
    move: (from: Region, start: Point, at: Point, shift: boolean) => Region,
  ): void {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    const held = event.currentTarget as Element;
    held.setPointerCapture(event.pointerId);
    const from = region;
    const start = placeOf(event);
    let moved = false;
    const follow = (next: PointerEvent): void => {
      moved = true;
      editor.region(() => move(from, start, placeOf(next), next.shiftKey), true);
    };
    const end = (): void => {
      held.removeEventListener('pointermove', follow as EventListener);
      held.removeEventListener('pointerup', finish);
      held.removeEventListener('pointercancel', cancel);
      window.removeEventListener('keydown', escape, true);
    };
    const finish = (): void => {
      end();
      if (moved) editor.history.commit();
    };
    const cancel = (): void => {
      end();
      editor.history.cancel();
    };
    const escape = (key: KeyboardEvent): void => {
      if (key.key !== 'Escape') return;
      key.preventDefault();
      key.stopPropagation();
      cancel();
    };
    held.addEventListener('pointermove', follow as EventListener);
    held.addEventListener('pointerup', finish);
    held.addEventListener('pointercancel', cancel);
    window.addEventListener('keydown', escape, true);
  }

  const moved = (from: Region, start: Point, at: Point): Region =>
    movedRegion(from, { x: at.x - start.x, y: at.y - start.y });

  /** The region with one corner at the pointer and the opposite one where it was. */
  function cornered(index: number): (from: Region, start: Point, at: Point) => Region {
    return (from, _start, at) => {
      if (from.corners) return withCorner(from, index, at, editor.square);
      const own = regionMatrix(from);
      const sign = { x: index === 1 || index === 2 ? 1 : -1, y: index >= 2 ? 1 : -1 };
      const local = apply(invert(own)!, at);
      const { least } = PICTURED_LIMITS.region;
      let wide = Math.max(least, sign.x > 0 ? local.x : from.width - local.x);
      let high = Math.max(least, sign.y > 0 ? local.y : from.height - local.y);
      const aspect = steps.symmetry.on
        ? regionAspect(group)
        : editor.square
          ? from.height / from.width
          : null;
      if (aspect !== null) {
        wide = Math.max(wide, high / aspect);
        high = wide * aspect;
      }
      const size = {
        width: Math.round(wide),
        height: aspect === null ? Math.round(high) : Math.round(wide) * aspect,
      };
      const middle = apply(own, {
        x: sign.x > 0 ? size.width / 2 : from.width - size.width / 2,
        y: sign.y > 0 ? size.height / 2 : from.height - size.height / 2,
      });
      return { ...from, ...size, ...middle };
    };
  }

  function turned(from: Region, start: Point, at: Point, shift: boolean): Region {
    const angle = (point: Point): number => Math.atan2(point.y - from.y, point.x - from.x);
    const turn = from.turn + ((angle(at) - angle(start)) * 180) / Math.PI;
    return { ...from, turn: wrapDegrees(shift ? Math.round(turn / 15) * 15 : roundTo(turn, 1)) };
  }

  function onkeydown(event: KeyboardEvent): void {
    const step = event.shiftKey ? 10 : 1;
    const by = {
      ArrowLeft: { x: -step, y: 0 },
      ArrowRight: { x: step, y: 0 },
      ArrowUp: { x: 0, y: -step },
      ArrowDown: { x: 0, y: step },
    }[event.key];
    if (by) inRun('nudge', () => editor.region((from) => movedRegion(from, by)));
    else if (region.corners) return;
    else if (event.key === '+' || event.key === '-') {
      const factor = event.key === '+' ? 1.05 : 1 / 1.05;
      inRun('size', () =>
        editor.region((from) => ({ ...from, width: from.width * factor, height: from.height * factor })),
      );
    } else if (event.key === '[' || event.key === ']') {
      const turn = event.key === ']' ? step : -step;
      inRun('turn', () => editor.region((from) => ({ ...from, turn: wrapDegrees(from.turn + turn) })));
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  const handleBox = 12;
  const shownAt = $derived({
    left: view.pan.x,
    top: view.pan.y,
    width: source.width * view.zoom,
    height: source.height * view.zoom,
  });
  const style = $derived(
    Object.entries(shownAt)
      .map(([side, px]) => `${side}: ${px}px`)
      .join('; '),
  );
  const veil = $derived.by(() => {
    const outer = `M0 0H${clamp(width, 0, 1e5)}V${clamp(height, 0, 1e5)}H0Z`;
    return `${outer}M${text(corners).replaceAll(' ', 'L')}Z`;
  });
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  class="photo"
  bind:this={stage}
  bind:clientWidth={width}
  bind:clientHeight={height}
  role="application"
  aria-label="The region on “{source.name}”: arrow keys move it{region.corners
    ? ''
    : ', + and − size it, [ and ] turn it'}"
  tabindex="0"
  {onkeydown}
>
  {#if source.texture}
    <div class="texture" {style}><DrawnPixels pixels={texture} label="" /></div>
  {:else}
    <img src={pictureAddress({ asset: source.asset, look: null })} alt="" draggable="false" {style} />
  {/if}
  <svg {width} {height} aria-hidden="true">
    <path class="veil" d={veil} fill-rule="evenodd" />
    <polygon
      class="inside"
      points={text(corners)}
      role="presentation"
      onpointerdown={(event) => drag(event, moved)}
    />
    {#if part}<polygon class="part" points={text(part)} />{/if}
    <polygon class="edge" points={text(corners)} />
    <polygon class="line" points={text(corners)} />
    {#each corners as corner, index (index)}
      <rect
        class="handle"
        x={corner.x - handleBox / 2}
        y={corner.y - handleBox / 2}
        width={handleBox}
        height={handleBox}
      />
      <rect
        class="grip"
        role="presentation"
        data-corner={index}
        x={corner.x - 13}
        y={corner.y - 13}
        width="26"
        height="26"
        onpointerdown={(event) => drag(event, cornered(index))}
      />
    {/each}
    {#if !region.corners}
      <circle class="handle round" cx={knob.x} cy={knob.y} r="6" />
      <circle
        class="grip"
        role="presentation"
        data-knob
        cx={knob.x}
        cy={knob.y}
        r="13"
        onpointerdown={(event) => drag(event, turned)}
      />{/if}
  </svg>
</div>

<style>
  .photo {
    position: relative;
    overflow: hidden;
    background: var(--surround);
    touch-action: none;
  }
  .photo:focus-visible {
    outline: 2px solid var(--kelp);
    outline-offset: -2px;
  }
  img,
  .texture,
  svg {
    position: absolute;
  }
  svg {
    inset: 0;
  }
  .veil {
    fill: rgb(195 197 195 / 62%);
    pointer-events: none;
  }
  .inside {
    fill: transparent;
    cursor: move;
  }
  .edge,
  .line,
  .part {
    fill: none;
    pointer-events: none;
  }
  .edge {
    stroke: #fff;
    stroke-width: 3.5;
  }
  .line {
    stroke: var(--signal);
    stroke-width: 1.5;
  }
  .part {
    stroke: var(--signal);
    stroke-dasharray: 5 4;
    stroke-width: 1.5;
  }
  .handle {
    fill: #fff;
    stroke: var(--signal);
    stroke-width: 2;
    pointer-events: none;
  }
  .grip {
    fill: transparent;
    cursor: nwse-resize;
  }
  [data-knob] {
    cursor: grab;
  }
</style>
