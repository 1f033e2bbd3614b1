<script lang="ts">
  import type { LayoutNotes } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import { call } from '../state/api';

  /** What the proof says of all layouts of a project: each with its notes, a press away from where they are mended. */
  type Props = { projectId: string; onclose: () => void };
  let { projectId, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  const found = call('GET /projects/{id}/proof', { id: projectId });

  const hrefOf = (layout: string, places: readonly { shape: string }[]): string => {
    const shapes = [...new Set(places.map(({ shape }) => shape))].join(',');
    return `/projects/${projectId}/layouts/${layout}?proof${shapes ? `&shape=${shapes}` : ''}`;
  };
  const counted = ({ notes }: LayoutNotes): string => {
    const wrong = notes.filter(({ weight }) => weight === 'wrong').length;
    return notes.length === 0 ? 'nothing to say' : `${wrong} wrong, ${notes.length - wrong} to look at`;
  };
</script>

<Dialog title="Proof of the project" width={640} {onclose}>
  {#await found}
    <p role="status">Looking through the layouts …</p>
  {:then answer}
    {#if !answer.ok}
      <p role="alert">{answer.failure.message}</p>
    {:else}
      <div class="layouts">
        {#each answer.value.layouts as layout (layout.id)}
          <section aria-label={layout.name}>
            <h3>
              <a href="/projects/{projectId}/layouts/{layout.id}?proof">{layout.name}</a>
              <span class="count">{counted(layout)}</span>
            </h3>
            <ul>
              {#each layout.notes as note (note.key)}
                <li class={note.weight}>
                  <a href={hrefOf(layout.id, note.places)}>{note.says}</a>
                  <span class="figure">{note.figure}</span>
                </li>
              {/each}
            </ul>
          </section>
        {:else}
          <p>The project has no layouts yet.</p>
        {/each}
      </div>
    {/if}
  {/await}
  {#snippet actions()}<Button onclick={onclose}>Close</Button>{/snippet}
</Dialog>

<style>
  .layouts {
    display: grid;
    gap: 14px;
    max-height: 56vh;
    overflow: auto;
  }
  h3 {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding-bottom: 4px;
    border-bottom: 1px solid var(--rule);
    font-size: 13px;
    font-weight: 650;
  }
  .count {
    color: var(--muted);
    font-weight: 400;
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 16px;
    padding: 4px 0 4px 8px;
    border-left: 3px solid transparent;
  }
  .wrong {
    border-left-color: var(--amber);
  }
  li a,
  h3 a {
    color: inherit;
    text-decoration: none;
  }
  li a:hover,
  h3 a:hover {
    text-decoration: underline;
  }
  .figure {
    flex: none;
    font: 500 12.5px var(--mono);
  }
  .wrong .figure {
    color: var(--amber);
  }
</style>
