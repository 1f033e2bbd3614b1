<script lang="ts">
  import type { SheetPage } from '$lib/core/sheet/arrange';
  import type { SheetItem } from '$lib/core/sheet/client-sheet';
  import { drawPalette } from './palette-picture';
  import { pictureOf, previewOf } from './pictures';
  import type { SheetSources } from './sources';

  /** A page of a client sheet as it is printed; what is pressed on it is chosen. */
  type Props = {
    page: SheetPage;
    size: { width: number; height: number };
    number: number;
    items: readonly SheetItem[];
    sources: SheetSources;
    chosen: string | null;
    onchoose: (id: string) => void;
  };
  let { page, size, number, items, sources, chosen, onchoose }: Props = $props();

  /** Pictures that are made here, by what they are of. */
  let made: ReadonlyMap<string, string> = $state.raw(new Map());
  const PALETTE_PX = 900;
  $effect(() => {
    for (const { id } of page.items) {
      const item = items.find((one) => one.id === id);
      if (!item || made.has(keyOf(item))) continue;
      if (item.kind === 'palette') {
        const found = sources.palettes.find((one) => one.id === item.of);
        if (found) put(item, drawPalette(found.colours, PALETTE_PX).toDataURL());
      } else if (item.kind === 'strike-off') {
        put(item, '');
        pictureOf(sources, item, PALETTE_PX).then(
          (canvas) => canvas && put(item, canvas.toDataURL()),
          () => undefined,
        );
      }
    }
  });
  const keyOf = ({ kind, of }: SheetItem): string => {
    const palette = kind === 'palette' ? sources.palettes.find((one) => one.id === of) : null;
    return `${kind} ${of} ${palette?.version ?? ''}`;
  };
  const put = (item: SheetItem, url: string): void => void (made = new Map(made).set(keyOf(item), url));
  function urlOf(id: string): string | null {
    const item = items.find((one) => one.id === id);
    return item ? (previewOf(sources, item) ?? made.get(keyOf(item)) ?? null) : null;
  }
</script>

<svg viewBox="0 0 {size.width} {size.height}" role="group" aria-label="Page {number}">
  <rect width={size.width} height={size.height} fill="#fff" />
  {#each page.items as { id, box, lines } (id)}
    {@const url = urlOf(id)}
    <!-- The list beside it does the same by keys. -->
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
    <g class="item" class:chosen={id === chosen} onclick={() => onchoose(id)}>
      {#if box.height > 0}
        <rect class="mat" x={box.x} y={box.y} width={box.width} height={box.height} />
        {#if url}
          <image
            href={url}
            x={box.x}
            y={box.y}
            width={box.width}
            height={box.height}
            preserveAspectRatio="xMidYMid slice"
          />
        {:else}
          <text class="wait" x={box.x + 2} y={box.y + 6} font-size="3"
            >Its picture is made when the sheet is shown.</text
          >
        {/if}
        <rect class="frame" x={box.x} y={box.y} width={box.width} height={box.height} />
      {/if}
      {#each lines as line, at (at)}
        <text x={line.x} y={line.y} font-size={line.size} class:bold={line.bold} class:muted={line.muted}
          >{line.text}</text
        >
      {/each}
    </g>
  {/each}
  {#each [...page.head, ...page.foot] as line, at (at)}
    <text x={line.x} y={line.y} font-size={line.size} class:bold={line.bold} class:muted={line.muted}
      >{line.text}</text
    >
  {/each}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    box-shadow: var(--shadow);
  }
  text {
    fill: var(--ink);
    font-family: var(--sans);
  }
  .bold {
    font-weight: 650;
  }
  .muted,
  .wait {
    fill: var(--muted);
  }
  .mat {
    fill: #f0f0ed;
  }
  .item {
    cursor: pointer;
  }
  .frame {
    fill: none;
    stroke: transparent;
    stroke-width: 1;
  }
  .item:hover .frame {
    stroke: var(--rule-strong);
  }
  .chosen .frame,
  .chosen:hover .frame {
    stroke: var(--kelp);
  }
</style>
