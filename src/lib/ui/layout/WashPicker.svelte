<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import type { PatternFill } from '$lib/core/recipe/fill';
  import { freshGradient, type Gradient } from '$lib/core/recipe/gradient';
  import type { Shape } from '$lib/core/recipe/layout';
  import Button from '../components/Button.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { FRESH_COLOUR } from './fresh-fills';
  import GradientPicker from './GradientPicker.svelte';
  import { putGradient, steering } from './steer';

  /** A gradient over the motifs alone: the ground and what lies behind stay untouched. */
  type Props = { editor: LayoutEditor; shape: Shape; fill: PatternFill; palettes: PaletteData[] };
  let { editor, shape, fill, palettes }: Props = $props();

  const set = (wash: Gradient | null): void => editor.changeFill((one) => ({ ...one, wash }));
  const first = $derived(Object.values(editor.tintsOf(fill))[0] ?? { colour: FRESH_COLOUR });
</script>

<Popover
  label="Gradient over motifs: {fill.wash ? 'on' : 'none'}"
  width={296}
  aside
  text={fill.wash ? 'gradient over motifs' : 'gradient …'}
>
  <div class="wash" {@attach steering(editor, 'wash')}>
    <strong>Gradient over the motifs alone</strong>
    {#if fill.wash}
      <GradientPicker
        gradient={fill.wash}
        {shape}
        {palettes}
        onset={(gradient, live) => putGradient(editor, 'wash', gradient, live)}
        oncancel={() => editor.history.cancel()}
      />
      <Button kind="quiet" onclick={() => set(null)}>Take the gradient away</Button>
    {:else}
      <p>It colours the motifs; the ground and what lies behind stay as they are.</p>
      <Button onclick={() => set(freshGradient(first, { colour: '#ffffff' }))}>Add a gradient</Button>
    {/if}
  </div>
</Popover>

<style>
  .wash {
    display: grid;
    justify-items: start;
    gap: 8px;
  }
  p {
    margin: 0;
    color: var(--muted);
  }
</style>
