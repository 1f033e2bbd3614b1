<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { PaletteData } from '$lib/contract/data';
  import { retinted } from '$lib/core/colour/tint';
  import { freeName, motifSlots, usedSlots } from '$lib/core/recipe/edit';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { MEASURED } from '$lib/core/recipe/measured';
  import { groundSlots, type Recipe } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NameField from '../components/NameField.svelte';
  import Panel from '../components/Panel.svelte';
  import { toasts } from '../state/toasts.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { freshColour, newId } from './fresh';
  import GroundPanel from './GroundPanel.svelte';

  /** The ground and the colour slots of the pattern. */
  type Props = { editor: BenchEditor; palettes: PaletteData[] };
  let { editor, palettes }: Props = $props();

  const recipe = $derived(editor.kind === 'composed' ? editor.still : editor.recipe);
  const used = $derived(usedSlots(recipe));

  function recolour(from: Recipe, id: string, colour: string, link?: string): Recipe {
    return {
      ...from,
      slots: from.slots.map((slot) => (slot.id === id ? retinted(slot, colour, link) : slot)),
    };
  }
  const setColour = (id: string, colour: string, link?: string): void =>
    editor.commit(recolour(editor.history.settled, id, colour, link));
  const showColour = (id: string, colour: string): void =>
    editor.history.live(recolour(editor.history.settled, id, colour));

  function addSlot(name: string, colour: string): string | null {
    if (recipe.slots.length >= LIMITS.slots) {
      toasts.problem(`A pattern holds at most ${LIMITS.slots} colours.`);
      return null;
    }
    const id = newId();
    editor.commit({
      ...recipe,
      slots: [
        ...recipe.slots,
        {
          id,
          name: freeName(
            name,
            recipe.slots.map((slot) => slot.name),
          ),
          colour,
        },
      ],
    });
    return id;
  }
  function usersOf(id: string): string {
    const names =
      recipe.kind === 'measured'
        ? MEASURED[recipe.measured.form].inks.flatMap(({ key, label }) =>
            recipe.measured.inks[key] === id ? [label.toLowerCase()] : [],
          )
        : recipe.kind !== 'composed'
          ? []
          : recipe.motifs.filter((motif) => motifSlots(motif).includes(id)).map((motif) => motif.name);
    if (recipe.kind === 'measured' && recipe.measured.bands.some((band) => band.slot === id))
      names.push('bands');
    if (groundSlots(recipe.ground).includes(id)) names.push('ground');
    return names.length > 2 ? `${names.length} motifs` : names.join(', ');
  }
</script>

<GroundPanel {editor} {palettes} {addSlot} {setColour} {showColour} />

<Panel title="Colours">
  {#snippet aside()}
    <Button kind="quiet" onclick={() => addSlot('Colour', freshColour(recipe))}>Add</Button>
  {/snippet}
  <ul>
    {#each recipe.slots as slot (slot.id)}
      <li>
        <ColourWell
          colour={slot.colour}
          label={slot.name}
          {palettes}
          onlive={(colour) => showColour(slot.id, colour)}
          link={slot.link}
          onset={(colour, link) => setColour(slot.id, colour, link)}
        />
        <NameField
          label="The name of the colour"
          value={slot.name}
          onset={(name) => {
            editor.commit({
              ...recipe,
              slots: recipe.slots.map((held) => (held.id === slot.id ? { ...held, name } : held)),
            });
            return null;
          }}
        />
        {#if used.has(slot.id)}
          <span class="users muted" title={usersOf(slot.id)}>{usersOf(slot.id)}</span>
        {:else}
          <button
            type="button"
            class="tool"
            aria-label="Remove {slot.name}"
            title="Remove {slot.name}; nothing uses it"
            onclick={() =>
              editor.commit({ ...recipe, slots: recipe.slots.filter((held) => held.id !== slot.id) })}
            ><X size={14} /></button
          >
        {/if}
      </li>
    {:else}
      <li class="muted">Colours come with the first motif.</li>
    {/each}
  </ul>
</Panel>

<style>
  li {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 3px 0;
  }
  .users {
    max-width: 90px;
    margin-left: auto;
    overflow: hidden;
    font-size: var(--small);
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .tool {
    display: inline-flex;
    margin-left: auto;
    padding: 3px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
</style>
