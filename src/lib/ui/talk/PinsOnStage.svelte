<script lang="ts">
  import { shapeBox } from '$lib/core/recipe/layout';
  import type { Point } from '$lib/core/geom/point';
  import type { CommentData } from '$lib/contract/talk';
  import type { LayoutDoc } from '../layout/doc';
  import type { View } from '../layout/view.svelte';
  import { WHOLE, type Talk } from './talk.svelte';

  /** The places of comments on the stage, and the place of the next one while it is chosen. */
  type Props = { talk: Talk; doc: LayoutDoc; view: View; width: number; height: number };
  let { talk, doc, view, width, height }: Props = $props();

  function placeOf({ shapeId, x, y }: CommentData): Point | null {
    if (x !== null && y !== null) return { x, y };
    const shape = doc.shapes.find(({ id }) => id === shapeId);
    if (!shape) return null;
    const box = shapeBox(shape);
    return { x: box.x, y: box.y };
  }
  /** A press that is meant for this alone: the stage, which listens further out, does not hear of it. */
  const pressed = (run: (event: MouseEvent) => void) => (node: SVGElement) => {
    const keep = (event: Event): void => event.stopPropagation();
    // Not before the press has ended: it gives the stage the focus.
    const press = (event: MouseEvent): void => {
      event.stopPropagation();
      run(event);
    };
    node.addEventListener('pointerdown', keep);
    node.addEventListener('click', press);
    return () => {
      node.removeEventListener('pointerdown', keep);
      node.removeEventListener('click', press);
    };
  };
  function choose(event: MouseEvent): void {
    const box = (event.currentTarget as SVGRectElement).getBoundingClientRect();
    const at = view.toPage({ x: event.clientX - box.left, y: event.clientY - box.top });
    talk.spot = { ...WHOLE, x: at.x, y: at.y };
    talk.placing = false;
  }
</script>

{#if talk.placing}
  <rect class="catch" {width} {height} role="presentation" {@attach pressed(choose)} />
{/if}
{#each talk.pins as { one, number } (one.id)}
  {@const place = placeOf(one)}
  {#if place}
    {@const at = view.toScreen(place)}
    <g
      class="pin"
      class:chosen={talk.chosen === one.id}
      transform="translate({at.x} {at.y})"
      role="button"
      tabindex="0"
      aria-label="Comment {number}, {one.by.name}: {one.words.slice(0, 60)}"
      {@attach pressed(() => (talk.chosen = one.id))}
      onkeydown={(event) => event.key === 'Enter' && (talk.chosen = one.id)}
    >
      <path d="M0 0V-22H22V-6H6Z" fill={one.by.colour} />
      <text x="12" y="-10">{number}</text>
    </g>
  {/if}
{/each}
{#if talk.spot.x !== null && talk.spot.y !== null}
  {@const at = view.toScreen({ x: talk.spot.x, y: talk.spot.y })}
  <path class="next" transform="translate({at.x} {at.y})" d="M0 0V-22H22V-6H6Z" />
{/if}

<style>
  .catch {
    fill: transparent;
    cursor: crosshair;
    pointer-events: all;
  }
  .pin {
    cursor: pointer;
  }
  .pin path {
    stroke: #fff;
    stroke-width: 1.5px;
  }
  .chosen path {
    stroke: var(--signal);
    stroke-width: 3px;
  }
  text {
    fill: #fff;
    font: 700 11px var(--sans);
    text-anchor: middle;
    pointer-events: none;
  }
  .next {
    fill: none;
    stroke: var(--signal);
    stroke-width: 2px;
    pointer-events: none;
  }
</style>
