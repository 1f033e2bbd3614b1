<script lang="ts">
  import { onDestroy } from 'svelte';
  import type { Surface } from '../components/surfaces';
  import Hanger from './Hanger.svelte';
  import { whenBegun, type Choosing, type PatternList } from './list.svelte';
  import { rowsInSight, scrollToRow, toTop } from './virtual';

  /** The wall of hangers. Only what is in sight is drawn and fetched, so that it scrolls alike for ten patterns or ten thousand. */
  type Props = {
    list: PatternList;
    choosing: Choosing;
    scale: number;
    surface: Surface;
    onchoose: (index: number, event: MouseEvent) => void;
  };
  let { list, choosing, scale, surface, onchoose }: Props = $props();

  const STRIP = { width: 240, height: 192 };
  const LEAST = 212;
  const GAP = { across: 16, down: 26 };
  const CAPTION = 46;

  let width = $state(0);
  let height = $state(0);
  let scroll = $state(0);
  let node: HTMLElement | undefined = $state();
  const columns = $derived(Math.max(1, Math.floor((width + GAP.across) / (LEAST + GAP.across))));
  const column = $derived((width - GAP.across * (columns - 1)) / columns);
  const rowHeight = $derived((column * STRIP.height) / STRIP.width + CAPTION + GAP.down);
  const rows = $derived(Math.ceil(list.total / columns));
  const sight = $derived(rowsInSight(scroll, height, rowHeight, rows));
  const places = $derived(
    Array.from(
      { length: Math.max(0, Math.min(list.total, (sight.last + 1) * columns) - sight.first * columns) },
      (_, index) => sight.first * columns + index,
    ),
  );

  /** How many of the places in sight are drawn: after another query a row more with each frame, so that none takes long. */
  let grown = $state(Infinity);
  let drawn: ReadonlySet<string> = new Set();
  let growing = 0;
  const shown = $derived(
    grown >= places.length
      ? places
      : places.filter((index, count) => count < grown || drawn.has(list.at(index)?.id ?? '')),
  );
  // svelte-ignore state_referenced_locally
  whenBegun(list, () => {
    scroll = toTop(node);
    grown = columns;
    cancelAnimationFrame(growing);
    growing = requestAnimationFrame(grow);
  });
  function grow(): void {
    grown = grown + columns >= places.length ? Infinity : grown + columns;
    if (grown < Infinity) growing = requestAnimationFrame(grow);
  }
  $effect(() => {
    drawn = new Set(shown.flatMap((index) => list.at(index)?.id ?? []));
  });
  onDestroy(() => globalThis.cancelAnimationFrame?.(growing));

  $effect(() => {
    const [first, last] = [places[0], places.at(-1)];
    if (first !== undefined && last !== undefined) void list.need(first, last);
  });

  /** How many places a key moves. */
  export function stepOf(key: string): number | null {
    const page = Math.max(1, Math.floor(height / rowHeight)) * columns;
    return (
      {
        ArrowLeft: -1,
        ArrowRight: 1,
        ArrowUp: -columns,
        ArrowDown: columns,
        PageUp: -page,
        PageDown: page,
        Home: -list.total,
        End: list.total,
      }[key] ?? null
    );
  }

  /** Brings a place into sight and the keyboard to it. */
  export async function show(index: number): Promise<void> {
    if (!node) return;
    grown = Infinity;
    node.scrollTop = scrollToRow(node.scrollTop, height - 40, rowHeight, Math.floor(index / columns));
    scroll = node.scrollTop;
    await list.need(index, index);
    requestAnimationFrame(() =>
      node?.querySelector<HTMLElement>(`[data-place="${index}"] a`)?.focus({ preventScroll: true }),
    );
  }
</script>

<div
  class="scroller"
  bind:this={node}
  bind:clientHeight={height}
  onscroll={(event) => (scroll = event.currentTarget.scrollTop)}
>
  <ul class="inner" bind:clientWidth={width} style:height="{rows * rowHeight}px" aria-label="Patterns">
    {#each shown as index (list.at(index)?.id ?? `place-${index}`)}
      {@const pattern = list.at(index)}
      <li
        data-place={index}
        style:width="{column}px"
        style:transform="translate({(index % columns) * (column + GAP.across)}px, {Math.floor(
          index / columns,
        ) * rowHeight}px)"
      >
        {#if pattern}
          <Hanger
            {pattern}
            {...STRIP}
            {scale}
            {surface}
            chosen={choosing.ids.has(pattern.id)}
            current={index === Math.max(0, choosing.at)}
            onchoose={(event) => onchoose(index, event)}
          />
        {:else}
          <span class="coming" style:aspect-ratio="{STRIP.width} / {STRIP.height}"></span>
        {/if}
      </li>
    {/each}
  </ul>
</div>

<style>
  .scroller {
    flex: 1;
    min-height: 0;
    overflow: auto;
    padding: 22px 16px 32px;
    scrollbar-gutter: stable;
  }
  .inner {
    position: relative;
  }
  li {
    position: absolute;
    top: 0;
    left: 0;
    contain: layout style;
  }
  .coming {
    display: block;
    background: rgb(255 255 255 / 25%);
  }
</style>
