<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import type { PaletteData } from '$lib/contract/data';
  import { freeName, slotsOf, usedSlots } from '$lib/core/recipe/edit';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NameField from '../components/NameField.svelte';
  import { toasts } from '../state/toasts.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { freshColour, newId } from './fresh';

  /** The ground and the colour slots of the pattern. */
  type Props = { editor: BenchEditor; palettes: PaletteData[] };
  let { editor, palettes }: Props = $props();

  const recipe = $derived(editor.recipe);
  const used = $derived(usedSlots(recipe));
  const groundSlot = $derived(recipe.ground.kind === 'slot' ? recipe.ground.slot : null);
  const ground = $derived(recipe.slots.find((slot) => slot.id === groundSlot) ?? null);

  function recolour(from: Recipe, id: string, colour: string): Recipe {
    return { ...from, slots: from.slots.map((slot) => (slot.id === id ? { ...slot, colour } : slot)) };
  }
  const setColour = (id: string, colour: string): void =>
    editor.commit(recolour(editor.history.settled, id, colour));
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
  function setGround(slot: string): void {
    if (slot !== 'new') {
      editor.commit({ ...recipe, ground: slot === '' ? { kind: 'clear' } : { kind: 'slot', slot } });
      return;
    }
    const id = newId();
    const name = freeName(
      'Ground',
      recipe.slots.map((held) => held.name),
    );
    editor.commit({
      ...recipe,
      slots: [...recipe.slots, { id, name, colour: '#e0f0ec' }],
      ground: { kind: 'slot', slot: id },
    });
  }
  function usersOf(id: string): string {
    const names = recipe.motifs
      .filter((motif) => slotsOf(motif.content).includes(id))
      .map((motif) => motif.name);
    if (id === groundSlot) names.push('ground');
    return names.length > 2 ? `${names.length} motifs` : names.join(', ');
  }
</script>

<section>
  <h2>Ground</h2>
  <div class="ground">
    {#if ground}
      <ColourWell
        colour={ground.colour}
        label="Ground colour"
        {palettes}
        onlive={(colour) => showColour(ground.id, colour)}
        onset={(colour) => setColour(ground.id, colour)}
      />
    {:else}
      <span class="clear checkered" aria-hidden="true"></span>
    {/if}
    <select
      aria-label="Ground"
      value={groundSlot ?? ''}
      onchange={(event) => setGround(event.currentTarget.value)}
    >
      <option value="">Clear</option>
      {#each recipe.slots as slot (slot.id)}<option value={slot.id}>{slot.name}</option>{/each}
      <option value="new">A new colour</option>
    </select>
  </div>
</section>

<section>
  <header>
    <h2>Colours</h2>
    <Button kind="quiet" onclick={() => addSlot('Colour', freshColour(recipe))}>Add</Button>
  </header>
  <ul>
    {#each recipe.slots as slot (slot.id)}
      <li>
        <ColourWell
          colour={slot.colour}
          label={slot.name}
          {palettes}
          onlive={(colour) => showColour(slot.id, colour)}
          onset={(colour) => setColour(slot.id, colour)}
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
</section>

<style>
  section {
    padding: 14px 12px;
    border-bottom: 1px solid var(--rule);
  }
  header {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
  }
  .ground {
    display: flex;
    align-items: center;
    gap: 10px;
    margin-top: 8px;
  }
  .clear {
    width: 20px;
    height: 20px;
    border-radius: 50%;
    background-size: 8px 8px;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  select {
    flex: 1;
    padding: 3px 6px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    background: var(--card);
  }
  ul {
    margin: 6px 0 0;
    padding: 0;
    list-style: none;
  }
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
