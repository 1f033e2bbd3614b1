<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy-plus';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Trash from '@lucide/svelte/icons/trash-2';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import Popover from '../components/Popover.svelte';
  import { bringIn } from './bring-in';
  import type { BenchEditor } from './editor.svelte';
  import { FORM_CHOICES } from './fresh';
  import DrawingNumbers from './DrawingNumbers.svelte';
  import MotifIcon from './MotifIcon.svelte';
  import PlainNumbers from './PlainNumbers.svelte';

  /** The motifs of the pattern, the numbers of the chosen one, and ways to add more. */
  type Props = { editor: BenchEditor; onscatter: () => void; ondraw: (motif: string) => void };
  let { editor, onscatter, ondraw }: Props = $props();

  let input: HTMLInputElement | undefined = $state();
  const recipe = $derived(editor.still);
  const motif = $derived(recipe.motifs.find((held) => held.id === editor.motif) ?? null);
  const placed = (id: string): number => recipe.placings.filter((placing) => placing.motif === id).length;
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
      accept=".svg,.pdf,image/svg+xml,application/pdf,image/png,image/jpeg,image/webp"
      tabindex="-1"
      aria-label="SVG file or picture for a motif"
      onchange={async (event) => {
        const { currentTarget } = event;
        await bringIn(editor, [...(currentTarget.files ?? [])]);
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
  {#if motif && editor.notes.has(motif.id)}
    <div class="notes" role="note">
      <strong>How “{motif.name}” came in</strong>
      {#each editor.notes.get(motif.id) ?? [] as note (note)}<p>{note}</p>{/each}
    </div>
  {/if}
  {#if recipe.motifs.length > 0}
    <div class="scatter"><Button kind="quiet" onclick={onscatter}>Scatter …</Button></div>
  {/if}
</section>

{#if motif?.content.kind === 'drawing'}
  <DrawingNumbers {editor} {motif} content={motif.content} />
{:else if motif}
  <PlainNumbers {editor} {motif} content={motif.content} />
{/if}

<style>
  .notes {
    display: grid;
    gap: 4px;
    margin: 6px 0;
    padding: 8px 10px;
    border-left: 3px solid var(--amber);
    background: var(--amber-tint);
    font-size: var(--small);
  }
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
</style>
