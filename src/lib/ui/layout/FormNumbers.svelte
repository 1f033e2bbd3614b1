<script lang="ts">
  import type { ShapeForm } from '$lib/core/geom/shapes';
  import { LIMITS } from '$lib/core/recipe/limits';
  import NumberField from '../components/NumberField.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** The numbers of the selected shape's own form: corner radius, sides, points. */
  type Props = { editor: LayoutEditor };
  let { editor }: Props = $props();
  const form = $derived(editor.single?.form ?? null);
  const set = (next: ShapeForm): void => editor.change((shape) => ({ ...shape, form: next }));
</script>

{#if form?.kind === 'rectangle'}
  <span class="numbers"
    >Corner radius <NumberField
      label="Corner radius"
      value={form.radius}
      kind={{ unit: editor.doc.measure }}
      least={0}
      most={1e5}
      onset={(radius) => set({ ...form, radius })}
    /></span
  >
{:else if form?.kind === 'polygon'}
  <span class="numbers"
    >Sides <NumberField
      label="Sides"
      value={form.sides}
      kind={{ suffix: '' }}
      {...LIMITS.sides}
      digits={0}
      onset={(sides) => set({ ...form, sides: Math.round(sides) })}
    /></span
  >
{:else if form?.kind === 'star'}
  <span class="numbers"
    >Points <NumberField
      label="Points"
      value={form.points}
      kind={{ suffix: '' }}
      {...LIMITS.starPoints}
      digits={0}
      onset={(points) => set({ ...form, points: Math.round(points) })}
    />
    Inner radius <NumberField
      label="Inner radius"
      value={form.inner}
      kind={{ suffix: '%' }}
      {...LIMITS.starInner}
      onset={(inner) => set({ ...form, inner })}
    /></span
  >
{/if}

<style>
  .numbers {
    display: inline-flex;
    align-items: baseline;
    gap: 8px;
    padding: 0 10px;
    border-left: 1px solid var(--rule);
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
  .numbers :global(input) {
    color: var(--ink);
  }
</style>
