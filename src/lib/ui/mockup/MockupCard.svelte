<script lang="ts">
  import { keptStill } from './kept-still';
  import Archive from '@lucide/svelte/icons/archive';
  import Copy from '@lucide/svelte/icons/copy';
  import type { MockupSummary } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import { call } from '../state/api';
  import { makeNamed } from '../state/make-named';
  import { toasts } from '../state/toasts.svelte';

  /** A mock-up as it was seen last, with its name; a link to it. */
  type Props = { mockup: MockupSummary; mayChange: boolean; onchange: () => Promise<void> };
  let { mockup, mayChange, onchange }: Props = $props();

  async function double(): Promise<void> {
    const made = await makeNamed(mockup.name.slice(0, 74), [mockup.name.slice(0, 74)], (name) =>
      call('POST /mock-ups/{id}/copies', { id: mockup.id, body: { name } }),
    );
    if (!made.ok) return toasts.problem(made.failure.message);
    await onchange();
  }
  async function archive(archived: boolean): Promise<void> {
    const saved = await call('PUT /mock-ups/{id}/archived', { id: mockup.id, body: { archived } });
    if (!saved.ok) return toasts.problem(saved.failure.message);
    await onchange();
    if (archived)
      toasts.show(`“${mockup.name}” is in the archive.`, {
        action: { label: 'Undo', run: () => void archive(false) },
      });
  }
</script>

<div class="card">
  <a href="/projects/{mockup.projectId}/mock-ups/{mockup.id}">
    <span class="mat">
      {#if mockup.stillAt === null}
        <span class="muted">Its picture is made when it is opened.</span>
      {:else}
        <img src={keptStill(mockup)} alt="" loading="lazy" />
      {/if}
    </span>
    <strong>{mockup.name}</strong>
  </a>
  {#if mayChange}<span class="tools">
      <Button kind="quiet" label="Double {mockup.name}" title="Double it" onclick={double}
        ><Copy size={14} /></Button
      >
      <Button
        kind="quiet"
        label="Archive {mockup.name}"
        title="Into the archive"
        onclick={() => archive(true)}><Archive size={14} /></Button
      >
    </span>{/if}
</div>

<style>
  .card {
    position: relative;
    width: 280px;
  }
  a {
    display: grid;
    gap: 1px;
    color: inherit;
    text-decoration: none;
  }
  .mat {
    display: grid;
    place-items: center;
    height: 175px;
    margin-bottom: 6px;
    overflow: hidden;
    background: var(--surround);
    text-align: center;
  }
  img {
    width: 100%;
    height: 100%;
    object-fit: cover;
  }
  a:hover .mat {
    outline: 2px solid var(--kelp);
    outline-offset: 2px;
  }
  .tools {
    position: absolute;
    right: 0;
    bottom: -4px;
    display: flex;
  }
</style>
