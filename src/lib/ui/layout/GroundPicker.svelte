<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import type { FillGround, PatternFill } from '$lib/core/recipe/fill';
  import { tintOf } from '$lib/core/colour/tint';
  import { groundSlots, type Recipe } from '$lib/core/recipe/recipe';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** The ground of a use: the pattern's own, none, or a colour, with its opacity. */
  type Props = { editor: LayoutEditor; fill: PatternFill; recipe: Recipe | null; palettes: PaletteData[] };
  let { editor, fill, recipe, palettes }: Props = $props();

  const groundSlot = $derived(recipe ? (groundSlots(recipe.ground).at(-1) ?? null) : null);
  const shown = $derived(recipe ? editor.tintsOf(fill) : {});
  const ownColour = $derived.by(() => {
    const slot = recipe?.slots.find((held) => held.id === groundSlot);
    return slot ? (shown[slot.id]?.colour ?? slot.colour) : null;
  });
  const colour = $derived(
    fill.ground.kind === 'colour' ? fill.ground.colour : fill.ground.kind === 'own' ? ownColour : null,
  );
  const text = $derived(
    fill.ground.kind === 'none'
      ? 'none'
      : fill.ground.kind === 'colour'
        ? fill.ground.colour
        : ownColour === null
          ? 'own, clear'
          : 'own',
  );

  function set(ground: FillGround, live = false): void {
    editor.changeFill((one) => ({ ...one, ground }), true);
    if (!live) editor.history.commit();
  }
</script>

<div class="ground">
  {#if fill.ground.kind === 'colour'}
    <ColourWell
      colour={fill.ground.colour}
      label="Ground colour"
      {palettes}
      size={18}
      onlive={(value) => set({ kind: 'colour', colour: value }, true)}
      link={fill.ground.link}
      onset={(value, link) => set({ kind: 'colour', ...tintOf(value, link) })}
    />
  {:else}
    <span class="swatch" class:checkered={colour === null} style:background={colour ?? undefined}></span>
  {/if}
  <Popover label="Choose the ground: {text}" width={220}>
    {#snippet button()}<span class="text">{text}</span>{/snippet}
    {#snippet children(close)}
      <div class="choices">
        <button
          type="button"
          onclick={() => {
            set({ kind: 'own' });
            close();
          }}>The pattern’s own{ownColour === null ? ' (clear)' : ''}</button
        >
        <button
          type="button"
          onclick={() => {
            set({ kind: 'none' });
            close();
          }}>None</button
        >
        <button
          type="button"
          onclick={() => {
            set({ kind: 'colour', colour: colour ?? '#ffffff' });
            close();
          }}>Another colour</button
        >
        <div class="opacity">
          <span class="muted">Opacity of the ground</span>
          <NumberField
            label="Opacity of the ground"
            value={fill.groundOpacity}
            kind={{ suffix: '%' }}
            least={0}
            most={1}
            onlive={(value) => editor.changeFill((one) => ({ ...one, groundOpacity: value }), true)}
            onset={(value) => {
              editor.changeFill((one) => ({ ...one, groundOpacity: value }), true);
              editor.history.commit();
            }}
            oncancel={() => editor.history.cancel()}
          />
        </div>
      </div>
    {/snippet}
  </Popover>
</div>

<style>
  .ground {
    display: flex;
    align-items: center;
    gap: 7px;
  }
  .swatch {
    width: 18px;
    height: 18px;
    border-radius: 50%;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .checkered {
    background-size: 8px 8px;
  }
  .text {
    border-bottom: 1px dotted var(--rule-strong);
    font: 500 13px var(--mono);
  }
  .choices {
    display: grid;
    gap: 2px;
  }
  .choices button {
    padding: 5px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .choices button:hover {
    background: var(--kelp-tint);
  }
  .opacity {
    display: flex;
    justify-content: space-between;
    padding: 8px;
    border-top: 1px solid var(--rule);
  }
</style>
