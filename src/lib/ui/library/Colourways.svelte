<script lang="ts">
  import { nanoid } from 'nanoid';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Plus from '@lucide/svelte/icons/plus';
  import Trash from '@lucide/svelte/icons/trash-2';
  import type { PaletteData, PatternDetail } from '$lib/contract/data';
  import type { Colourway } from '$lib/core/colour/colourway';
  import type { Recipe } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { refresh } from '../state/refresh';
  import ColourwayDialog from './ColourwayDialog.svelte';
  import { swatchUrl } from './say';

  /** The colourways of a pattern side by side, the pattern's own colours first. The chosen one is shown large. */
  type Props = {
    pattern: PatternDetail;
    recipe: Recipe;
    palettes: PaletteData[];
    chosen: string | null;
    onchoose: (id: string | null) => void;
  };
  let { pattern, recipe, palettes, chosen, onchoose }: Props = $props();

  let editing: Colourway | null = $state.raw(null);
  let fresh = $state(false);
  const ways = $derived(pattern.colourways);

  async function save(next: readonly Colourway[]): Promise<string | null> {
    const saved = await call('PUT /patterns/{id}/colourways', {
      id: pattern.id,
      body: {
        base: pattern.version,
        colourways: next,
      },
    });
    await refresh();
    return saved.ok ? null : saved.failure.message;
  }
  async function keep(way: Colourway): Promise<string | null> {
    const known = ways.some((one) => one.id === way.id);
    const problem = await save(known ? ways.map((one) => (one.id === way.id ? way : one)) : [...ways, way]);
    if (problem) return problem;
    editing = null;
    onchoose(way.id);
    return null;
  }
  async function remove(way: Colourway): Promise<void> {
    const before = ways;
    const problem = await save(ways.filter((one) => one.id !== way.id));
    if (problem) return toasts.problem(problem);
    if (chosen === way.id) onchoose(null);
    toasts.show(`The colourway “${way.name}” is gone; its uses keep their colours.`, {
      action: { label: 'Undo', run: () => void save(before) },
    });
  }
  async function move(index: number, by: number): Promise<void> {
    const next = [...ways];
    const [way] = next.splice(index, 1);
    if (!way) return;
    next.splice(index + by, 0, way);
    const problem = await save(next);
    if (problem) toasts.problem(problem);
  }
  function add(): void {
    fresh = true;
    editing = { id: nanoid(12), name: '', colours: {} };
  }
</script>

<section aria-labelledby="colourways">
  <header>
    <h2 id="colourways">Colourways</h2>
    {#if !pattern.stock && pattern.newest > 0}<Button kind="quiet" onclick={add}><Plus size={14} />New</Button
      >{/if}
  </header>
  <ul>
    <li>
      <button type="button" class="strip" aria-pressed={chosen === null} onclick={() => onchoose(null)}>
        <img src={swatchUrl(pattern, 142, 70, 0.5)} alt="" width="142" height="70" />
        <span>Its own colours</span>
      </button>
    </li>
    {#each ways as way, index (way.id)}
      <li>
        <button
          type="button"
          class="strip"
          aria-pressed={chosen === way.id}
          onclick={() => onchoose(way.id)}
          onkeydown={(event) => {
            if (!event.altKey || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
            event.preventDefault();
            const by = event.key === 'ArrowLeft' ? -1 : 1;
            if (index + by >= 0 && index + by < ways.length) void move(index, by);
          }}
          title="Alt and an arrow key move it"
        >
          <img src={swatchUrl(pattern, 142, 70, 0.5, way)} alt="" width="142" height="70" />
          <span dir="auto">{way.name}</span>
        </button>
        {#if !pattern.stock}
          <span class="tools">
            <button
              type="button"
              aria-label="Change {way.name}"
              title="Change"
              onclick={() => {
                fresh = false;
                editing = way;
              }}><Pencil size={13} /></button
            >
            <button type="button" aria-label="Remove {way.name}" title="Remove" onclick={() => remove(way)}
              ><Trash size={13} /></button
            >
          </span>
        {/if}
      </li>
    {/each}
  </ul>
  {#if ways.length === 0 && !pattern.stock && pattern.newest > 0}
    <p class="muted">A colourway is a set of colours for the same drawing. Uses that show one follow it.</p>
  {/if}
</section>

{#if editing}
  <ColourwayDialog
    {recipe}
    {palettes}
    way={editing}
    {fresh}
    taken={ways.filter((one) => one.id !== editing?.id).map((one) => one.name)}
    onkeep={keep}
    onclose={() => (editing = null)}
  />
{/if}

<style>
  section {
    display: grid;
    gap: 8px;
  }
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
  }
  ul {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px;
  }
  li {
    position: relative;
    min-width: 0;
  }
  .strip {
    display: grid;
    gap: 4px;
    width: 100%;
    padding: 0;
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .strip img {
    display: block;
    width: 100%;
    object-fit: cover;
    background: var(--surround);
  }
  .strip[aria-pressed='true'] img {
    outline: 2px solid var(--kelp);
    outline-offset: 2px;
  }
  .strip span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-size: 12.5px;
  }
  .tools {
    position: absolute;
    top: 4px;
    right: 4px;
    display: flex;
    gap: 3px;
  }
  .tools button {
    display: grid;
    place-items: center;
    padding: 4px;
    border: 0;
    border-radius: 4px;
    background: rgb(255 255 255 / 90%);
    color: var(--ink);
    cursor: pointer;
  }
</style>
