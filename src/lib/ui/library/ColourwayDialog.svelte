<script lang="ts">
  import type { PaletteData } from '$lib/contract/data';
  import { proposeColourways, shiftedColours, type Colourway } from '$lib/core/colour/colourway';
  import { NO_SHIFT } from '$lib/core/colour/scheme';
  import { resolveSlots } from '$lib/core/colour/slots';
  import { plainColours, tintOf, type Tint } from '$lib/core/colour/tint';
  import { groundSlots, type Recipe } from '$lib/core/recipe/recipe';
  import { compileUnit } from '$lib/core/scene/unit';
  import { swatchSvg } from '$lib/core/svg/swatch';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import Switch from '../components/Switch.svelte';
  import { imageOf } from '../state/raster';

  /** A colourway: by hand, proposed from a palette, or the pattern's own colours shifted. */
  type Props = {
    recipe: Recipe;
    palettes: PaletteData[];
    way: Colourway;
    fresh: boolean;
    taken: readonly string[];
    onkeep: (way: Colourway) => Promise<string | null>;
    onclose: () => void;
  };
  let { recipe, palettes, way, fresh, taken, onkeep, onclose }: Props = $props();

  /* The dialog works on a copy of what it was opened with. */
  // svelte-ignore state_referenced_locally
  let name = $state(way.name);
  // svelte-ignore state_referenced_locally
  let colours: Record<string, Tint> = $state.raw({ ...way.colours });
  // svelte-ignore state_referenced_locally
  let by = $state<'hand' | 'palette' | 'shift'>(fresh && palettes.length > 0 ? 'palette' : 'hand');
  // svelte-ignore state_referenced_locally
  let paletteId = $state((palettes.find((one) => one.projectId === null) ?? palettes[0])?.id ?? '');
  let shift = $state({ ...NO_SHIFT });
  let problem: string | null = $state(null);
  let busy = $state(false);

  const scene = $derived(compileUnit(recipe));
  const ground = $derived(groundSlots(recipe.ground)[0] ?? null);
  const palette = $derived(palettes.find((one) => one.id === paletteId));
  const proposals = $derived(
    by === 'palette' && palette
      ? proposeColourways(
          recipe.slots,
          palette.colours.filter((entry) => !entry.gradient),
          { ground, most: 12 },
        )
      : [],
  );
  const strip = (over: Readonly<Record<string, Tint>>, width: number, height: number): string =>
    swatchSvg(scene, resolveSlots(recipe.slots, plainColours(over)), {
      width,
      height,
      scale: 0.5,
      title: 'Colourway',
    });
  const large = $derived(imageOf(strip(colours, 300, 190)).then((image) => image.src));

  function shifted(change: Partial<typeof shift>): void {
    shift = { ...shift, ...change };
    colours = shiftedColours(recipe.slots, shift);
  }
  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const said = name.trim();
    if (said === '') problem = 'Give the colourway a name.';
    else if (taken.some((one) => one.toLowerCase() === said.toLowerCase()))
      problem = `There is a colourway named “${said}” already; choose another name.`;
    else {
      busy = true;
      problem = await onkeep({ ...way, name: said, colours });
      busy = false;
    }
  }
</script>

<Dialog title={fresh ? 'New colourway' : `Colourway “${way.name}”`} width={820} {onclose}>
  <form id="colourway" onsubmit={keep}>
    <div class="left">
      {#await large then source}<img
          src={source}
          alt="The pattern in this colourway"
          width="300"
          height="190"
        />{/await}
      <Field label="Name" bind:value={name} {problem} autofocus />
      <ul class="slots">
        {#each recipe.slots as slot (slot.id)}
          {@const tint = colours[slot.id] ?? tintOf(slot.colour, slot.link)}
          <li>
            <ColourWell
              colour={tint.colour}
              link={tint.link}
              label={slot.name}
              {palettes}
              reset={colours[slot.id]
                ? {
                    label: 'Use the pattern’s own colour',
                    run: () => {
                      const { [slot.id]: _gone, ...rest } = colours;
                      colours = rest;
                    },
                  }
                : null}
              onlive={(colour) => (colours = { ...colours, [slot.id]: { colour } })}
              onset={(colour, link) => (colours = { ...colours, [slot.id]: tintOf(colour, link) })}
            />
            <span>{slot.name}</span>
            <span class="mono muted">{tint.colour}</span>
          </li>
        {/each}
      </ul>
    </div>
    <div class="right">
      <Switch
        label="Made by"
        value={by}
        options={[
          { value: 'palette', label: 'From a palette' },
          { value: 'shift', label: 'Shifted' },
          { value: 'hand', label: 'By hand' },
        ]}
        onset={(value) => (by = value)}
      />
      {#if by === 'palette'}
        {#if palettes.length === 0}
          <p class="muted">There is no palette yet; make one under Palettes.</p>
        {:else}
          <select aria-label="Palette" bind:value={paletteId}>
            {#each palettes as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
          </select>
          <p class="muted">Best first: contrast, and which colours are lighter than which.</p>
          <ul class="proposals">
            {#each proposals as proposal, index (index)}
              <li>
                <button type="button" onclick={() => (colours = proposal.colours)}>
                  {#await imageOf(strip(proposal.colours, 136, 64)).then((image) => image.src) then source}<img
                      src={source}
                      alt="Proposal {index + 1}"
                      width="136"
                      height="64"
                    />{/await}
                  <span class="muted"
                    >{proposal.contrast.toFixed(1)} : 1, order {Math.round(proposal.order * 100)} %</span
                  >
                </button>
              </li>
            {/each}
          </ul>
        {/if}
      {:else if by === 'shift'}
        <p class="muted">The pattern’s own colours, moved in OKLCH.</p>
        <label
          >Hue <input
            type="range"
            min="-180"
            max="180"
            step="1"
            value={shift.hue}
            oninput={(event) => shifted({ hue: Number(event.currentTarget.value) })}
          /><span class="mono">{shift.hue}°</span></label
        >
        <label
          >Lightness <input
            type="range"
            min="-0.5"
            max="0.5"
            step="0.01"
            value={shift.lightness}
            oninput={(event) => shifted({ lightness: Number(event.currentTarget.value) })}
          /><span class="mono">{Math.round(shift.lightness * 100)} %</span></label
        >
        <label
          >Chroma <input
            type="range"
            min="0"
            max="2"
            step="0.01"
            value={shift.chroma}
            oninput={(event) => shifted({ chroma: Number(event.currentTarget.value) })}
          /><span class="mono">{Math.round(shift.chroma * 100)} %</span></label
        >
      {:else}
        <p class="muted">
          Press a colour at the left. One taken from a palette follows it; slots that are left alone keep the
          pattern’s own colour.
        </p>
      {/if}
    </div>
  </form>
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" type="submit" form="colourway" disabled={busy}>Keep colourway</Button>
  {/snippet}
</Dialog>

<style>
  form {
    display: grid;
    grid-template-columns: 300px 1fr;
    gap: 24px;
  }
  .left,
  .right {
    display: grid;
    align-content: start;
    gap: 10px;
  }
  .right {
    justify-items: start;
  }
  img {
    display: block;
    background: var(--surround);
  }
  .slots {
    max-height: 190px;
    overflow: auto;
  }
  .slots li {
    display: grid;
    grid-template-columns: auto 1fr auto;
    align-items: center;
    gap: 9px;
    padding: 3px 2px;
  }
  .proposals {
    display: grid;
    grid-template-columns: repeat(3, 136px);
    gap: 10px;
    max-height: 370px;
    overflow: auto;
    padding: 3px;
  }
  .proposals button {
    padding: 0;
    border: 0;
    background: none;
    font-size: 11px;
    text-align: left;
    cursor: pointer;
  }
  .proposals button:hover img {
    outline: 2px solid var(--kelp);
    outline-offset: 1px;
  }
  label {
    display: grid;
    grid-template-columns: 76px 240px 50px;
    align-items: center;
    gap: 8px;
  }
  input[type='range'] {
    accent-color: var(--kelp);
  }
</style>
