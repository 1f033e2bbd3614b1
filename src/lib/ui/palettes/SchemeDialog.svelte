<script lang="ts">
  import type { Hex } from '$lib/core/colour/parse';
  import { schemeOf, type SchemeKind } from '$lib/core/colour/scheme';
  import { sayOklch } from '$lib/core/colour/space';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Switch from '../components/Switch.svelte';

  /** Colours that go with one: hues turned on the circle at the same perceived lightness. */
  type Props = { from: Hex; ontake: (colours: { name: string; hex: Hex }[]) => void; onclose: () => void };
  let { from, ontake, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  let base = $state(from);
  let kind = $state<SchemeKind>('complementary');
  const colours = $derived(schemeOf(base, kind));
  const NAMES: Record<SchemeKind, string> = {
    complementary: 'Complementary',
    analogous: 'Analogous',
    triad: 'Triad',
    split: 'Split',
    tetrad: 'Tetrad',
    monochrome: 'Monochrome',
  };
</script>

<Dialog title="Colours from a scheme" width={560} {onclose}>
  <div class="row">
    <span class="muted">Round</span>
    <ColourWell
      colour={base}
      label="The first colour"
      size={26}
      onlive={(hex) => (base = hex)}
      onset={(hex) => (base = hex)}
    />
    <span class="mono">{base}</span>
  </div>
  <Switch
    label="Scheme"
    value={kind}
    options={(Object.keys(NAMES) as SchemeKind[]).map((value) => ({ value, label: NAMES[value] }))}
    onset={(value) => (kind = value)}
  />
  <ul>
    {#each colours as hex, index (index)}
      <li>
        <span style:background={hex}></span><span class="mono">{hex}</span><span class="mono muted"
          >{sayOklch(hex)}</span
        >
      </li>
    {/each}
  </ul>
  <p class="muted">Lightness stays; where sRGB cannot show the chroma at a hue, the chroma gives way.</p>
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button
      kind="main"
      onclick={() => ontake(colours.map((hex, index) => ({ name: `${NAMES[kind]} ${index + 1}`, hex })))}
      >Add {colours.length} colours</Button
    >
  {/snippet}
</Dialog>

<style>
  .row {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  ul {
    display: grid;
    gap: 6px;
  }
  li {
    display: grid;
    grid-template-columns: 1fr 76px 210px;
    align-items: center;
    gap: 10px;
  }
  li span:first-child {
    height: 34px;
    border-radius: 4px;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 15%);
  }
</style>
