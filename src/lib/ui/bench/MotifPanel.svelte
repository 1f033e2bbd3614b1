<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy-plus';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Trash from '@lucide/svelte/icons/trash-2';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Motif, MotifContent } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { FORM_CHOICES } from './fresh';
  import DrawingNumbers from './DrawingNumbers.svelte';
  import MotifIcon from './MotifIcon.svelte';

  /** The motifs of the pattern, the numbers of the chosen one, and ways to add more. */
  type Props = { editor: BenchEditor; onscatter: () => void; ondraw: (motif: string) => void };
  let { editor, onscatter, ondraw }: Props = $props();

  let input: HTMLInputElement | undefined = $state();
  const recipe = $derived(editor.still);
  const motif = $derived(recipe.motifs.find((held) => held.id === editor.motif) ?? null);
  const kind = $derived({ unit: recipe.measure });
  const placed = (id: string): number => recipe.placings.filter((placing) => placing.motif === id).length;

  function setContent(held: Motif, content: MotifContent): void {
    editor.changeMotif(held.id, (one) => ({ ...one, content }));
  }
</script>

<section>
  <header>
    <h2>Motifs</h2>
    <Popover label="Add a motif" width={180} buttonClass="add">
      {#snippet button()}Add{/snippet}
      {#snippet children(close)}
        <div class="choices">
          <button
            type="button"
            onclick={() => {
              close();
              ondraw(editor.addEmpty());
            }}>Draw one …</button
          >
          {#each FORM_CHOICES as choice (choice.id)}
            <button
              type="button"
              onclick={() => {
                close();
                editor.addForm(choice.id);
              }}>{choice.label}</button
            >
          {/each}
          <button
            type="button"
            onclick={() => {
              close();
              input?.click();
            }}>From a file …</button
          >
        </div>
      {/snippet}
    </Popover>
    <input
      bind:this={input}
      class="visually-hidden"
      type="file"
      accept=".svg,image/svg+xml,image/png,image/jpeg,image/webp"
      tabindex="-1"
      aria-label="SVG file or picture for a motif"
      onchange={async (event) => {
        const { currentTarget } = event;
        for (const file of currentTarget.files ?? []) await editor.addFile(file);
        currentTarget.value = '';
      }}
    />
  </header>
  <ul>
    {#each recipe.motifs as held (held.id)}
      <li class:chosen={held.id === editor.motif}>
        <button
          type="button"
          class="pick"
          aria-pressed={held.id === editor.motif}
          aria-label="Choose {held.name}"
          onclick={() => {
            editor.motif = held.id;
            editor.selected = new Set(
              recipe.placings.filter((placing) => placing.motif === held.id).map((placing) => placing.id),
            );
          }}
          ><MotifIcon motif={held} colours={editor.colours} ground={editor.ground?.colour ?? null} /></button
        >
        <div class="text">
          <NameField
            label="The name of the motif"
            value={held.name}
            onset={(name) => {
              editor.changeMotif(held.id, (one) => ({ ...one, name }));
              return null;
            }}
          />
          <span class="muted" title={placed(held.id) > 1 ? 'All placings follow the motif' : undefined}
            >{placed(held.id)} placed</span
          >
        </div>
        <button
          type="button"
          class="tool"
          title="Draw on {held.name}; all placings follow"
          aria-label="Draw on {held.name}"
          onclick={() => ondraw(held.id)}><Pencil size={15} /></button
        >
        <button
          type="button"
          class="tool"
          title="Place {held.name} once more"
          aria-label="Place {held.name} once more"
          onclick={() => editor.place(held.id)}><Copy size={15} /></button
        >
        <button
          type="button"
          class="tool"
          title="Remove {held.name} and its placings"
          aria-label="Remove {held.name}"
          onclick={() => editor.removeMotif(held.id)}><Trash size={15} /></button
        >
      </li>
    {:else}
      <li class="muted none">None yet. Draw one, or add a form or a file.</li>
    {/each}
  </ul>
  {#if recipe.motifs.length > 0}
    <div class="scatter"><Button kind="quiet" onclick={onscatter}>Scatter …</Button></div>
  {/if}
</section>

{#if motif && motif.content.kind === 'drawing'}
  <DrawingNumbers {editor} {motif} content={motif.content} />
{:else if motif && motif.content.kind !== 'drawing'}
  {@const content = motif.content}
  <section>
    <header>
      <h2>{motif.name}</h2>
      <span class="muted">all placings follow</span>
    </header>
    <div class="rows">
      {#if content.kind === 'form'}
        <span>Width</span>
        <NumberField
          label="Width of the motif"
          value={content.width}
          {kind}
          {...LIMITS.shapeSide}
          onset={(width) => setContent(motif, { ...content, width })}
        />
        <span>Height</span>
        <NumberField
          label="Height of the motif"
          value={content.height}
          {kind}
          {...LIMITS.shapeSide}
          onset={(height) => setContent(motif, { ...content, height })}
        />
        {#if content.form.kind === 'rectangle'}
          <span>Corner radius</span>
          <NumberField
            label="Corner radius"
            value={content.form.radius}
            {kind}
            least={0}
            most={1e5}
            onset={(radius) => setContent(motif, { ...content, form: { kind: 'rectangle', radius } })}
          />
        {:else if content.form.kind === 'polygon'}
          <span>Sides</span>
          <NumberField
            label="Sides"
            value={content.form.sides}
            kind={{ suffix: '' }}
            {...LIMITS.sides}
            digits={0}
            onset={(sides) =>
              setContent(motif, { ...content, form: { kind: 'polygon', sides: Math.round(sides) } })}
          />
        {:else if content.form.kind === 'star'}
          {@const star = content.form}
          <span>Points</span>
          <NumberField
            label="Points"
            value={star.points}
            kind={{ suffix: '' }}
            {...LIMITS.starPoints}
            digits={0}
            onset={(points) =>
              setContent(motif, { ...content, form: { ...star, points: Math.round(points) } })}
          />
          <span>Inner radius</span>
          <NumberField
            label="Inner radius"
            value={star.inner}
            kind={{ suffix: '%' }}
            {...LIMITS.starInner}
            onset={(inner) => setContent(motif, { ...content, form: { ...star, inner } })}
          />
        {/if}
      {:else}
        <span>Length</span>
        <NumberField
          label="Length of the line"
          value={content.length}
          {kind}
          {...LIMITS.shapeSide}
          onset={(length) => setContent(motif, { ...content, length })}
        />
        <span>Thickness</span>
        <NumberField
          label="Thickness of the line"
          value={content.thickness}
          {kind}
          {...LIMITS.shapeSide}
          onset={(thickness) => setContent(motif, { ...content, thickness })}
        />
        <span>Ends</span>
        <select
          aria-label="Ends of the line"
          value={content.cap}
          onchange={(event) =>
            setContent(motif, { ...content, cap: event.currentTarget.value as 'butt' | 'round' | 'square' })}
        >
          <option value="butt">flat</option><option value="round">round</option><option value="square"
            >square</option
          >
        </select>
      {/if}
      <span>Colour</span>
      <select
        aria-label="Colour of the motif"
        value={content.slot}
        onchange={(event) => setContent(motif, { ...content, slot: event.currentTarget.value })}
      >
        {#each recipe.slots as slot (slot.id)}<option value={slot.id}>{slot.name}</option>{/each}
      </select>
    </div>
  </section>
{/if}

<style>
  section {
    padding: 14px 12px;
    border-bottom: 1px solid var(--rule);
  }
  header {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    margin-bottom: 8px;
  }
  header :global(.add) {
    color: var(--kelp);
    font-weight: 600;
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 5px;
    border-radius: var(--radius);
  }
  .chosen {
    background: var(--kelp-tint);
  }
  .none {
    padding: 0;
  }
  .text {
    display: grid;
    flex: 1;
    min-width: 0;
    font-size: 12.5px;
  }
  .text .muted {
    font-size: var(--small);
  }
  .pick,
  .tool {
    display: inline-flex;
    padding: 0;
    border: 0;
    border-radius: 4px;
    background: none;
    cursor: pointer;
  }
  .tool {
    padding: 4px;
    color: var(--muted);
  }
  .tool:hover {
    color: var(--ink);
  }
  .scatter {
    margin: 4px 0 -6px -8px;
  }
  .choices {
    display: grid;
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
  .rows {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 5px 10px;
    align-items: baseline;
    justify-items: end;
  }
  .rows > span {
    color: var(--muted);
    justify-self: start;
  }
  select {
    max-width: 120px;
    padding: 1px 4px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    background: var(--card);
  }
</style>
