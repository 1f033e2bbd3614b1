<script lang="ts">
  import { onMount } from 'svelte';
  import { studioFonts } from '../state/studio-fonts.svelte';
  import AddFont from './AddFont.svelte';
  import Choice from './Choice.svelte';

  /** The font of some words: one that comes with Isle, one of the studio, or one that is brought now. */
  type Props = { value: string; width?: number; onset: (font: string) => void };
  let { value, width, onset }: Props = $props();

  const ADD = '+';
  let adding = $state(false);
  let turn = $state(0);
  onMount(() => studioFonts.want());
  const options = $derived([
    ...studioFonts.choices,
    // One that is gone keeps its name in the field, so that choosing it is nobody's accident.
    ...(studioFonts.choices.some(([id]) => id === value) ? [] : [[value, 'A font that is gone'] as const]),
    [ADD, 'Add a font …'] as const,
  ]);
</script>

<!-- A field that shows what is no font is made anew, and shows the font again. -->
{#key turn}
  <Choice
    label="Font"
    {width}
    {value}
    {options}
    onset={(id) => {
      if (id !== ADD) return onset(id);
      adding = true;
      turn += 1;
    }}
  />
{/key}
{#if adding}
  <AddFont
    onadded={(id) => {
      adding = false;
      onset(id);
    }}
    onclose={() => (adding = false)}
  />
{/if}
