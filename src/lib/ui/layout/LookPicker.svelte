<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { isPlainLook, PLAIN_LOOK, type PictureLook } from '$lib/core/colour/look';
  import { tintOf, type Tint } from '$lib/core/colour/tint';
  import type { PatternFill } from '$lib/core/recipe/fill';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** How a use recolours its pattern's pictures: a gradient map, a shift, a tint. The pictures themselves stay as they are. */
  type Props = { editor: LayoutEditor; fill: PatternFill; palettes: PaletteData[] };
  let { editor, fill, palettes }: Props = $props();

  const look = $derived(fill.look ?? PLAIN_LOOK);
  const plain = $derived(isPlainLook(look));
  const gradients = $derived(
    palettes.flatMap((palette) =>
      palette.colours.flatMap((entry) =>
        entry.gradient && entry.gradient.length <= 5 ? [{ name: entry.name, stops: entry.gradient }] : [],
      ),
    ),
  );
  const START: Tint[] = [{ colour: '#10394d' }, { colour: '#f8f4e8' }];

  function set(next: PictureLook, live = false): void {
    editor.changeFill((one) => {
      const { look: _look, ...rest } = one;
      return isPlainLook(next) ? rest : { ...rest, look: next };
    }, true);
    if (!live) editor.history.commit();
  }
  const shift = (key: keyof PictureLook['shift']) => ({
    onlive: (value: number) => set({ ...look, shift: { ...look.shift, [key]: value } }, true),
    onset: (value: number) => set({ ...look, shift: { ...look.shift, [key]: value } }),
    oncancel: () => editor.history.cancel(),
  });
  function setStop(index: number, tint: Tint, live = false): void {
    set({ ...look, map: look.map.map((held, at) => (at === index ? tint : held)) }, live);
  }
</script>

<Popover label="Recolour the pictures: {plain ? 'as they are' : 'recoloured'}" width={250}>
  {#snippet button()}<span class="text">{plain ? 'as they are' : 'recoloured'}</span>{/snippet}
  <h3>From dark to light onto</h3>
  <div class="wells">
    {#each look.map as tint, index (index)}
      <ColourWell
        colour={tint.colour}
        link={tint.link}
        label="Colour {index + 1} of the map"
        {palettes}
        size={22}
        reset={look.map.length > 2
          ? {
              label: 'Take it out of the map',
              run: () => set({ ...look, map: look.map.filter((_, at) => at !== index) }),
            }
          : null}
        onlive={(colour) => setStop(index, { colour }, true)}
        onset={(colour, link) => setStop(index, tintOf(colour, link))}
      />
    {/each}
    {#if look.map.length === 0}
      <button type="button" onclick={() => set({ ...look, map: START })}>Map onto two colours</button>
    {:else}
      {#if look.map.length < 5}
        <button
          type="button"
          onclick={() =>
            set({ ...look, map: [...look.map.slice(0, -1), { colour: '#8fc7cf' }, ...look.map.slice(-1)] })}
          >More</button
        >
      {/if}
      <button type="button" onclick={() => set({ ...look, map: [...look.map].reverse() })}>Turn round</button>
      <button type="button" onclick={() => set({ ...look, map: [] })}>No map</button>
    {/if}
  </div>
  {#each gradients as { name, stops } (name)}
    <button
      type="button"
      onclick={() => set({ ...look, map: stops.map(({ hex, link }) => tintOf(hex, link)) })}>{name}</button
    >
  {/each}
  <h3>Shift in OKLCH</h3>
  <div class="rows">
    <span class="muted">Hue</span>
    <NumberField
      label="Hue of the pictures"
      value={look.shift.hue}
      kind={{ suffix: '°' }}
      least={-360}
      most={360}
      {...shift('hue')}
    />
    <span class="muted">Lightness</span>
    <NumberField
      label="Lightness of the pictures"
      value={look.shift.lightness}
      kind={{ suffix: '%' }}
      least={-1}
      most={1}
      {...shift('lightness')}
    />
    <span class="muted">Chroma</span>
    <NumberField
      label="Chroma of the pictures"
      value={look.shift.chroma}
      kind={{ suffix: '%' }}
      least={0}
      most={4}
      {...shift('chroma')}
    />
  </div>
  <h3>Tint</h3>
  <div class="wells">
    {#if look.tint}
      {@const { tint } = look}
      <ColourWell
        colour={tint.colour}
        link={tint.link}
        label="Tint of the pictures"
        {palettes}
        size={22}
        onlive={(colour) => set({ ...look, tint: { colour, amount: tint.amount } }, true)}
        onset={(colour, link) => set({ ...look, tint: { ...tintOf(colour, link), amount: tint.amount } })}
      />
      <NumberField
        label="Strength of the tint"
        value={tint.amount}
        kind={{ suffix: '%' }}
        least={0}
        most={1}
        onlive={(amount) => set({ ...look, tint: { ...tint, amount } }, true)}
        onset={(amount) => set({ ...look, tint: { ...tint, amount } })}
        oncancel={() => editor.history.cancel()}
      />
      <button type="button" onclick={() => set({ ...look, tint: null })}>No tint</button>
    {:else}
      <button type="button" onclick={() => set({ ...look, tint: { colour: '#2f8fab', amount: 1 } })}
        >Tint with one hue</button
      >
    {/if}
  </div>
  {#if !plain}
    <button type="button" class="all" onclick={() => set(PLAIN_LOOK)}>Leave the pictures as they are</button>
  {/if}
</Popover>

<style>
  .text {
    border-bottom: 1px dotted var(--rule-strong);
    font-weight: 600;
    white-space: nowrap;
  }
  h3 {
    margin: 10px 0 5px;
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
  }
  h3:first-child {
    margin-top: 0;
  }
  .wells {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 7px;
  }
  .rows {
    display: grid;
    grid-template-columns: 80px 1fr;
    gap: 4px;
    justify-items: start;
  }
  button {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
  .all {
    margin-top: 12px;
  }
</style>
