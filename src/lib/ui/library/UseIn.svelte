<script lang="ts">
  import { goto } from '$app/navigation';
  import type { LibraryFacets } from '$lib/contract/data';
  import { toPx } from '$lib/core/num/length';
  import { freeName } from '$lib/core/recipe/edit';
  import { startingPage } from '$lib/core/recipe/pages';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import { call } from '../state/api';
  import { fillAddress, handAddress, lastLayout } from '../state/last-layout';

  /** Where a pattern is used next: in one of the latest layouts, or in a new one. It comes along in the hand. */
  type Props = {
    pattern: { id: string; name: string };
    /** The layouts and projects that there are. */
    facets: LibraryFacets;
    /** What has just happened to it, in a sentence. */
    said?: string;
    onclose: () => void;
  };
  let { pattern, facets, said, onclose }: Props = $props();

  let problem: string | null = $state(null);
  let busy = $state(false);
  // svelte-ignore state_referenced_locally
  let chosen = $state(facets.latest[0]?.projectId ?? facets.projects[0]?.id ?? '');
  /** The shapes that were worked on last, on this computer. */
  const last = lastLayout();
  const latest = $derived(facets.latest);
  const first = $derived(latest[0] ?? null);
  const others = $derived(latest.slice(1));
  const open = (layout: { id: string; projectId: string }): void =>
    void goto(handAddress(`/projects/${layout.projectId}/layouts/${layout.id}`, pattern.id));

  /** A page of the usual size, in the chosen project or in a first one; name and size can be changed there. */
  async function inNew(): Promise<void> {
    busy = true;
    const made = await newLayout();
    busy = false;
    if (typeof made === 'string') problem = made;
    else open(made);
  }
  async function newLayout(): Promise<{ id: string; projectId: string } | string> {
    let projectId = chosen;
    if (projectId === '') {
      const project = await call('POST /projects', { body: { name: 'First project' } });
      if (!project.ok) return project.failure.message;
      projectId = project.value.id;
    }
    const project = await call('GET /projects/{id}', { id: projectId });
    if (!project.ok) return project.failure.message;
    const { width, height, measure, ppi } = startingPage(project.value.measure);
    const layout = await call('POST /projects/{id}/layouts', {
      id: projectId,
      body: {
        name: freeName(
          'Layout 1',
          project.value.layoutList.map(({ name }) => name),
        ),
        ...{ width: toPx(width, measure), height: toPx(height, measure), measure, ppi },
      },
    });
    return layout.ok ? { id: layout.value.id, projectId } : layout.failure.message;
  }
</script>

<Dialog title="Use “{pattern.name}” in a layout" width={520} {onclose}>
  {#if said}<p><strong>{said}</strong></p>{/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if first}
    <p>It is in your hand there: the next shape that you draw is filled with it.</p>
  {:else}
    <p>
      A layout is a page with shapes. It is in your hand there: the first shape that you draw is filled with
      it.
    </p>
  {/if}
  {#if others.length > 0}
    <ul aria-label="Latest layouts">
      {#each others as layout (layout.id)}
        <li>
          <button type="button" onclick={() => open(layout)}
            ><strong>{layout.name}</strong><span class="muted">{layout.projectName}</span></button
          >
        </li>
      {/each}
    </ul>
  {/if}
  {#if facets.projects.length > 0}
    <label class="project"
      ><span class="muted">A new layout goes into</span>
      <select bind:value={chosen}
        >{#each facets.projects as project (project.id)}<option value={project.id}>{project.name}</option
          >{/each}</select
      ></label
    >
  {/if}
  {#snippet actions()}
    <Button onclick={onclose}>Not now</Button>
    {#if first}
      <Button disabled={busy} onclick={inNew}>New layout</Button>
      <Button kind={last ? 'plain' : 'main'} onclick={() => open(first)}>Open “{first.name}”</Button>
      {#if last}
        <Button kind="main" onclick={() => goto(fillAddress(last, pattern.id))}>Fill {last.what}</Button>
      {/if}
    {:else}
      <Button kind="main" disabled={busy} onclick={inNew}>New layout</Button>
    {/if}
  {/snippet}
</Dialog>

<style>
  ul {
    display: grid;
    gap: 2px;
    margin: 10px 0;
  }
  li button {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    width: 100%;
    padding: 6px 8px;
    border: 0;
    border-radius: var(--radius);
    background: var(--paper);
    text-align: left;
    cursor: pointer;
  }
  li button:hover {
    background: var(--kelp-tint);
  }
  .project {
    display: flex;
    align-items: center;
    gap: 8px;
    margin-top: 10px;
  }
</style>
