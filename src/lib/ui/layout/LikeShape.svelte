<script lang="ts" module>
  import { FILL_PROPERTIES, type FillProperty } from '$lib/core/recipe/copy-fill';

  /** What was last chosen to be copied: kept while one goes from shape to shape. */
  const wanted = $state({ properties: new Set<FillProperty>(FILL_PROPERTIES) as ReadonlySet<FillProperty> });
</script>

<script lang="ts">
  import { isPlaced, type Fill } from '$lib/core/recipe/fill';
  import { fillKey } from '$lib/core/recipe/copy-fill';
  import OptionRow from '../components/OptionRow.svelte';
  import Popover from '../components/Popover.svelte';
  import Tick from '../components/Tick.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { sayFill } from './fills';

  /** Gives the selected shapes the fill of another shape, whole or by chosen properties. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();

  const NAMES: Record<FillProperty, string> = {
    pattern: 'Pattern',
    scale: 'Scale',
    rotation: 'Rotation',
    skew: 'Skew',
    reflection: 'Reflection',
    offset: 'Offset',
    opacity: 'Opacity',
    blend: 'Blend',
    ground: 'Ground',
    colours: 'Colours',
    gradient: 'Gradient',
    mask: 'Mask',
  };

  /** The layout's other fills, front first; the same fill on several shapes stands once. */
  function sources(): { fill: Fill; names: string[] }[] {
    const found = new Map<string, { fill: Fill; names: string[] }>();
    for (const shape of [...editor.history.doc.shapes].reverse()) {
      if (editor.selected.has(shape.id)) continue;
      for (const fill of [...shape.fills].reverse()) {
        const key = fillKey(fill);
        const held = found.get(key) ?? { fill, names: [] };
        held.names.push(shape.name);
        found.set(key, held);
      }
    }
    return [...found.values()];
  }

  const nameOf = (fill: Fill): string => sayFill(fill, editor);
  const numbersOf = (fill: Fill): string =>
    isPlaced(fill) ? `${Number((fill.scaleX * 100).toFixed(1))} %, ${Number(fill.rotation.toFixed(1))}°` : '';

  function tick(property: FillProperty, on: boolean): void {
    const next = new Set(wanted.properties);
    if (on) next.add(property);
    else next.delete(property);
    wanted.properties = next;
  }

  function take(fill: Fill): void {
    editor.takeLike(fill, wanted.properties);
  }
</script>

<Popover label="Fill like another shape" width={300} text="like …">
  {#snippet children(close)}
    <div class="like">
      <div class="ticks" role="group" aria-label="What to copy">
        {#each FILL_PROPERTIES as property (property)}
          <Tick
            label={NAMES[property]}
            checked={wanted.properties.has(property)}
            onset={(on) => tick(property, on)}
          />
        {/each}
      </div>
      <div class="shapes">
        {#each sources() as { fill, names } (fill.id)}
          <OptionRow
            disabled={wanted.properties.size === 0}
            onclick={() => {
              take(fill);
              close();
            }}
          >
            <span class="names">{names[0]}{names.length > 1 ? ` and ${names.length - 1} more` : ''}</span>
            <span class="what">{nameOf(fill)}<span class="numbers">{numbersOf(fill)}</span></span>
          </OptionRow>
        {:else}
          <p>No other shape of this layout is filled yet.</p>
        {/each}
      </div>
      {#if wanted.properties.size === 0}<p>Tick what is to be copied.</p>{/if}
    </div>
  {/snippet}
</Popover>

<style>
  .like {
    display: grid;
    gap: 8px;
  }
  .ticks {
    display: grid;
    grid-template-columns: repeat(3, auto);
    gap: 5px 12px;
    padding: 4px 8px 8px;
    border-bottom: 1px solid var(--rule);
    font-size: 13px;
  }
  .shapes {
    display: grid;
    gap: 2px;
    max-height: 240px;
    overflow: auto;
  }
  .names {
    color: var(--ink);
    font-weight: 600;
  }
  .what {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    color: var(--muted);
  }
  .numbers {
    font: 500 12px var(--mono);
  }
  p {
    margin: 0;
    padding: 0 8px 4px;
    color: var(--muted);
    font-size: 13px;
  }
</style>
