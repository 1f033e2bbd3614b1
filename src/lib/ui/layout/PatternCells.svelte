<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { tintOf, type Tint } from '$lib/core/colour/tint';
  import type { PatternFill } from '$lib/core/recipe/fill';
  import { assetsOf, coarsestPicture } from '$lib/core/scene/pictures';
  import ColourWell from '../components/ColourWell.svelte';
  import ColourwayPicker from './ColourwayPicker.svelte';
  import GroundPicker from './GroundPicker.svelte';
  import LookPicker from './LookPicker.svelte';
  import MeasuredHere from './MeasuredHere.svelte';
  import Sharpness from './Sharpness.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** What colours a pattern shows on its shape: ground, colourway, pictures, and each slot. */
  type Props = { editor: LayoutEditor; fill: PatternFill; palettes: PaletteData[] };
  let { editor, fill, palettes }: Props = $props();

  const recipe = $derived(editor.recipeOf(fill));
  const tints = $derived(editor.tintsOf(fill));
  const ways = $derived(editor.colourwaysOf(fill));
  const scene = $derived(editor.lookup(fill)?.scene ?? null);
  const hasPictures = $derived(scene !== null && assetsOf(scene).length > 0);
  const coarsest = $derived(scene && coarsestPicture(scene));
  const slots = $derived(
    recipe?.slots.filter((slot) => recipe.ground.kind !== 'slot' || recipe.ground.slot !== slot.id) ?? [],
  );

  function setColour(slot: string, tint: Tint, live: boolean): void {
    editor.changeFill((one) => ({ ...one, colours: { ...one.colours, [slot]: tint } }), true);
    if (!live) editor.history.commit();
  }
  function resetColour(slot: string): void {
    editor.changeFill((one) => ({
      ...one,
      colours: Object.fromEntries(Object.entries(one.colours).filter(([held]) => held !== slot)),
    }));
  }
</script>

<div class="cell">
  <span>Ground</span>
  <GroundPicker {editor} {fill} {recipe} {palettes} />
</div>
{#if recipe?.kind === 'measured' && fill.held === null}<MeasuredHere {editor} {fill} {recipe} />{/if}
{#if ways.length > 0}
  <div class="cell">
    <span>Colourway</span>
    <ColourwayPicker {editor} {fill} {ways} />
  </div>
{/if}
{#if hasPictures}
  <div class="cell">
    <span>Pictures</span>
    <LookPicker {editor} {fill} {palettes} />
  </div>
  {#if coarsest !== null}<Sharpness {fill} own={coarsest} unit={editor.doc.measure} />{/if}
{/if}
{#if recipe}
  <div class="cell">
    <span>Colours</span>
    <div class="values wells">
      {#each slots as slot (slot.id)}
        <ColourWell
          colour={tints[slot.id]?.colour ?? slot.colour}
          link={tints[slot.id]?.link}
          label={slot.name}
          {palettes}
          size={18}
          reset={fill.colours[slot.id]
            ? {
                label: fill.colourway ? 'Use the colourway’s colour' : 'Use the pattern’s own colour',
                run: () => resetColour(slot.id),
              }
            : null}
          onlive={(colour) => setColour(slot.id, { colour }, true)}
          onset={(colour, link) => setColour(slot.id, tintOf(colour, link), false)}
        />
      {/each}
    </div>
  </div>
{/if}

<style>
  .wells {
    align-items: center;
    gap: 5px;
  }
</style>
