<script lang="ts">
  import { may } from '$lib/ui/state/may';
  import { goto } from '$app/navigation';
  import Plus from '@lucide/svelte/icons/plus';
  import type { Outcome } from '$lib/contract/failure';
  import { call } from '$lib/ui/state/api';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import { refresh } from '$lib/ui/state/refresh';
  import Button from '$lib/ui/components/Button.svelte';
  import Switch from '$lib/ui/components/Switch.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import NewThing from '$lib/ui/library/NewThing.svelte';
  import LayoutCard from '$lib/ui/library/LayoutCard.svelte';

  let { data } = $props();
  let asking = $state(false);

  async function create(name: string): Promise<Outcome<unknown>> {
    const made = await call('POST /projects', { body: { name } });
    if (made.ok) await goto(`/projects/${made.value.id}`);
    return made;
  }
  async function restore(id: string, name: string): Promise<void> {
    const saved = await call('PUT /projects/{id}/archived', { id, body: { archived: false } });
    if (!saved.ok) return toasts.problem(saved.failure.message);
    toasts.show(`“${name}” is back among the projects.`);
    await refresh();
  }
  const count = (number: number, one: string, many: string): string =>
    `${number} ${number === 1 ? one : many}`;
</script>

<svelte:head><title>Projects · Isle</title></svelte:head>

<div class="view">
  <TopBar>
    {#snippet actions()}
      {#if may('designer')}<Button kind="main" onclick={() => (asking = true)}
          ><Plus size={16} />New project</Button
        >{/if}
    {/snippet}
  </TopBar>
  <main>
    <div class="head">
      <h1>Projects</h1>
      <Switch
        label="Show"
        value={data.archived ? 'archived' : 'all'}
        options={[
          { value: 'all', label: 'All' },
          { value: 'archived', label: 'Archive' },
        ]}
        onset={(value) => goto(value === 'all' ? '/projects' : '?show=archived', { keepFocus: true })}
      />
    </div>
    {#each data.projects as project (project.id)}
      <section aria-labelledby="project-{project.id}">
        <header>
          <h2 id="project-{project.id}"><a href="/projects/{project.id}">{project.name}</a></h2>
          <span class="muted"
            >{count(project.layouts, 'layout', 'layouts')}, {count(project.patterns, 'pattern', 'patterns')} in
            use</span
          >
          {#if data.archived}<Button kind="quiet" onclick={() => restore(project.id, project.name)}
              >Restore</Button
            >{/if}
        </header>
        <div class="cards">
          {#each project.layoutList as layout (layout.id)}
            <LayoutCard {layout} />
          {:else}
            <p class="muted">
              No layouts yet. <a href="/projects/{project.id}">Open the project</a> to make one.
            </p>
          {/each}
        </div>
      </section>
    {:else}
      <p class="muted">
        {data.archived
          ? 'No project is in the archive.'
          : 'No projects yet. A project holds the layouts of one job; make one to fill shapes with your patterns.'}
      </p>
    {/each}
  </main>
</div>
{#if asking}
  <NewThing
    title="New project"
    label="The name of the project"
    action="Make project"
    {create}
    onclose={() => (asking = false)}
  />
{/if}

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
  }
  main {
    flex: 1;
    overflow: auto;
    padding: 24px;
  }
  .head {
    display: flex;
    align-items: center;
    gap: 20px;
    margin-bottom: 16px;
  }
  section {
    margin-bottom: 28px;
  }
  header {
    display: flex;
    align-items: baseline;
    gap: 12px;
    padding-bottom: 8px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--rule);
  }
  h2 {
    font-size: 16px;
  }
  h2 a {
    color: inherit;
    text-decoration: none;
  }
  h2 a:hover {
    color: var(--kelp);
  }
  .cards {
    display: flex;
    flex-wrap: wrap;
    gap: 18px;
  }
</style>
