<script lang="ts">
  import type { PaletteData, PatternForUse } from '$lib/contract/data';
  import type { Hex } from '$lib/core/colour/parse';
  import { recolourLayout, shownExchanges, type Exchange } from '$lib/core/recipe/recolour';
  import type { Fill } from '$lib/core/recipe/fill';
  import type { Layout } from '$lib/core/recipe/layout';
  import { shownRevision, patternLookup } from '$lib/core/scene/library';
  import { lowerLayout } from '$lib/core/draw/lower';
  import { layoutSvg } from '$lib/core/svg/layout';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import { imageOf } from '../state/raster';

  /**
   * The colours of one palette exchanged for those of another in one or more layouts, with pictures before and after.
   * What follows a colour of the first palette, or looks just like one, follows its counterpart afterwards.
   */
  type Part = { id: string; name: string; layout: Layout; patterns: readonly PatternForUse[] };
  type Props = {
    parts: readonly Part[];
    palettes: PaletteData[];
    onapply: (exchanges: Exchange[], summary: string) => Promise<string | null>;
    onclose: () => void;
  };
  let { parts, palettes, onapply, onclose }: Props = $props();

  const usable = $derived(palettes.filter((palette) => palette.colours.some((entry) => !entry.gradient)));
  // svelte-ignore state_referenced_locally
  let fromId = $state(palettes.find((one) => one.projectId === null)?.id ?? palettes[0]?.id ?? '');
  // svelte-ignore state_referenced_locally
  let toId = $state(palettes.find((one) => one.id !== fromId)?.id ?? '');
  let by = $state<'likeness' | 'lightness' | 'place' | 'name'>('likeness');
  /** Colours of the first palette that were given another counterpart by hand, or none (""). */
  let own: Record<string, string> = $state({});
  let busy = $state(false);
  let problem: string | null = $state(null);

  const plain = (id: string) =>
    palettes.find((one) => one.id === id)?.colours.filter((entry) => !entry.gradient) ?? [];
  const from = $derived(plain(fromId));
  const to = $derived(plain(toId));
  const proposed = $derived(shownExchanges(from, to, by));
  const exchanges = $derived(
    from.flatMap((entry): Exchange[] => {
      const chosen = own[entry.id];
      const target =
        chosen === undefined
          ? proposed.find((one) => one.from.id === entry.id)?.to
          : to.find((one) => one.id === chosen);
      return target
        ? [{ from: { id: entry.id, hex: entry.hex }, to: { id: target.id, hex: target.hex } }]
        : [];
    }),
  );
  const pictures = $derived(
    parts.slice(0, 12).map((part) => {
      const lookup = patternLookup(part.patterns);
      const colours = (fill: Fill) => {
        if (fill.kind !== 'pattern') return null;
        const pattern = part.patterns.find((one) => one.id === fill.pattern);
        const recipe = pattern?.recipes[shownRevision(fill, pattern.newest)];
        return recipe && pattern ? { slots: recipe.slots, colourways: pattern.colourways } : null;
      };
      const after = recolourLayout(part.layout, colours, exchanges);
      const draw = (layout: Layout): Promise<string> => {
        const scale = Math.min(250 / layout.width, 150 / layout.height);
        const [width, height] = [layout.width * scale, layout.height * scale];
        const svg = layoutSvg(lowerLayout(layout, lookup), {
          patterns: 'live',
          width: String(width),
          height: String(height),
          scale,
        });
        return imageOf(svg).then((image) => image.src);
      };
      return { part, changes: after !== part.layout, before: draw(part.layout), after: draw(after) };
    }),
  );
  const swatch = (hex: Hex | undefined): string => hex ?? 'transparent';

  async function apply(): Promise<void> {
    busy = true;
    const names = [fromId, toId].map((id) => palettes.find((one) => one.id === id)?.name ?? '');
    problem = await onapply(exchanges, `“${names[0]}” exchanged for “${names[1]}”`);
    busy = false;
    if (problem === null) onclose();
  }
</script>

<Dialog title="Exchange palettes" width={900} {onclose}>
  {#if usable.length < 2}
    <p>There must be two palettes to exchange one for the other; make another under Palettes.</p>
  {:else}
    <div class="columns">
      <div class="map">
        <label
          ><span class="muted">From</span>
          <select bind:value={fromId} onchange={() => (own = {})}>
            {#each usable as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
          </select></label
        >
        <label
          ><span class="muted">To</span>
          <select bind:value={toId} onchange={() => (own = {})}>
            {#each usable as one (one.id)}<option value={one.id} disabled={one.id === fromId}
                >{one.name}</option
              >{/each}
          </select></label
        >
        <label
          ><span class="muted">Matched by</span>
          <select bind:value={by}>
            <option value="likeness">likeness</option>
            <option value="lightness">lightness</option>
            <option value="place">place in the palette</option>
            <option value="name">name</option>
          </select></label
        >
        <ul>
          {#each from as entry (entry.id)}
            {@const target = exchanges.find((one) => one.from.id === entry.id)?.to}
            <li>
              <i style:background={entry.hex}></i><span class="name">{entry.name}</span>
              <span aria-hidden="true">→</span>
              <i style:background={swatch(target?.hex)}></i>
              <select
                aria-label="What takes the place of {entry.name}"
                value={target?.id ?? ''}
                onchange={(event) => (own[entry.id] = event.currentTarget.value)}
              >
                <option value="">stays</option>
                {#each to as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
              </select>
            </li>
          {/each}
        </ul>
      </div>
      <div class="sheet">
        {#each pictures as { part, changes, before, after } (part.id)}
          <figure class:still={!changes}>
            {#await before then source}<img src={source} alt="{part.name} before" />{/await}
            {#await after then source}<img src={source} alt="{part.name} after" />{/await}
            <figcaption>
              {part.name}{#if !changes}<span class="muted">, stays as it is</span>{/if}
            </figcaption>
          </figure>
        {/each}
        {#if parts.length > 12}<p class="muted">And {parts.length - 12} more layouts.</p>{/if}
      </div>
    </div>
  {/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button
      kind="main"
      disabled={busy || exchanges.length === 0 || fromId === toId || !pictures.some((one) => one.changes)}
      onclick={apply}>Exchange {exchanges.length === 1 ? 'one colour' : `${exchanges.length} colours`}</Button
    >
  {/snippet}
</Dialog>

<style>
  .columns {
    display: grid;
    grid-template-columns: 300px 1fr;
    gap: 20px;
    height: 420px;
  }
  .sheet {
    min-height: 0;
    overflow: auto;
  }
  .map {
    display: flex;
    flex-direction: column;
    gap: 6px;
    min-height: 0;
  }
  label {
    display: grid;
    grid-template-columns: 80px 1fr;
    align-items: center;
  }
  select {
    min-width: 0;
  }
  ul {
    flex: 1;
    min-height: 0;
    margin: 8px 0 0;
    overflow: auto;
  }
  li {
    display: grid;
    grid-template-columns: 20px 1fr auto 20px 104px;
    align-items: center;
    gap: 6px;
    padding: 2px 0;
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  i {
    width: 18px;
    height: 18px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  figure {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 6px 10px;
    margin: 0 0 14px;
  }
  figure img {
    display: block;
    max-width: 100%;
    box-shadow: 0 0 0 1px var(--rule);
  }
  .still {
    opacity: 0.55;
  }
  figcaption {
    grid-column: 1 / -1;
  }
</style>
