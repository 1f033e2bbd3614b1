<script lang="ts">
  import Trash from '@lucide/svelte/icons/trash-2';
  import type { LibraryFacets } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import NameField from '../components/NameField.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { sayPatterns } from './say';

  /** The studio's collections: made, renamed, taken apart. Patterns stay where they are. */
  type Props = { facets: LibraryFacets; ondone: () => Promise<unknown>; onclose: () => void };
  let { facets, ondone, onclose }: Props = $props();
  let name = $state('');
  let problem: string | null = $state(null);

  async function make(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (name.trim() === '') {
      problem = 'Give the collection a name.';
      return;
    }
    const made = await call('POST /collections', { body: { name: name.trim() } });
    problem = made.ok ? null : made.failure.message;
    if (made.ok) name = '';
    await ondone();
  }
  async function rename(id: string, next: string): Promise<string | null> {
    const renamed = await call('PATCH /collections/{id}', { id, body: { name: next } });
    await ondone();
    return renamed.ok ? null : renamed.failure.message;
  }
  async function remove(id: string, title: string): Promise<void> {
    const removed = await call('DELETE /collections/{id}', { id });
    if (!removed.ok) return toasts.problem(removed.failure.message);
    await ondone();
    const { patterns } = removed.value;
    toasts.show(`The collection “${title}” is gone; its patterns stay.`, {
      action: { label: 'Undo', run: () => void bring(title, patterns) },
    });
  }
  async function bring(title: string, ids: string[]): Promise<void> {
    const made = await call('POST /collections', { body: { name: title } });
    if (!made.ok) return toasts.problem(made.failure.message);
    if (ids.length > 0)
      await call('POST /patterns/edits', { body: { ids, addCollections: [made.value.id] } });
    await ondone();
  }
</script>

<Dialog title="Collections" width={460} {onclose}>
  <ul>
    {#each facets.collections as { id, name: title, patterns } (id)}
      <li>
        <NameField label="The name of the collection" value={title} onset={(next) => rename(id, next)} />
        <span class="muted">{sayPatterns(patterns)}</span>
        <button
          type="button"
          aria-label="Take {title} apart"
          title="Take apart; the patterns stay"
          onclick={() => remove(id, title)}><Trash size={15} /></button
        >
      </li>
    {:else}
      <li class="muted">No collections yet. A pattern may be in several.</li>
    {/each}
  </ul>
  <form onsubmit={make}>
    <Field label="New collection" bind:value={name} {problem} />
    <Button type="submit">Make collection</Button>
  </form>
  {#snippet actions()}<Button kind="main" onclick={onclose}>Done</Button>{/snippet}
</Dialog>

<style>
  ul {
    display: grid;
    gap: 2px;
    max-height: 300px;
    overflow: auto;
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto auto;
    align-items: center;
    gap: 10px;
    padding: 3px 0;
  }
  li button {
    padding: 4px;
    border: 0;
    background: none;
    color: var(--muted);
    cursor: pointer;
  }
  form {
    display: grid;
    grid-template-columns: 1fr auto;
    align-items: end;
    gap: 8px;
  }
</style>
