<script lang="ts">
  import { may } from '$lib/ui/state/may';
  import LookOn from '$lib/ui/components/LookOn.svelte';
  import { goto } from '$app/navigation';
  import Archive from '@lucide/svelte/icons/archive';
  import Plus from '@lucide/svelte/icons/plus';
  import type { LayoutData, PatternForUse } from '$lib/contract/data';
  import { LENGTH_UNITS, type LengthUnit } from '$lib/core/num/length';
  import type { Exchange } from '$lib/core/recipe/recolour';
  import { call } from '$lib/ui/state/api';
  import { makeNamed } from '$lib/ui/state/make-named';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import { refresh } from '$lib/ui/state/refresh';
  import Button from '$lib/ui/components/Button.svelte';
  import NameField from '$lib/ui/components/NameField.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import RecolourDialog from '$lib/ui/layout/RecolourDialog.svelte';
  import { undoBulk } from '$lib/ui/library/undo-bulk';
  import Hanger from '$lib/ui/library/Hanger.svelte';
  import SheetRow from '$lib/ui/sheets/SheetRow.svelte';
  import { freshSheet } from '$lib/core/sheet/client-sheet';
  import NewMockup from '$lib/ui/mockup/NewMockup.svelte';
  import MockupCard from '$lib/ui/mockup/MockupCard.svelte';
  import HappenedDialog from '$lib/ui/talk/HappenedDialog.svelte';
  import ProjectPeople from '$lib/ui/people/ProjectPeople.svelte';
  import ParcelDialog from '$lib/ui/proof/ParcelDialog.svelte';
  import ProjectProof from '$lib/ui/proof/ProjectProof.svelte';
  import PagesPdf from '$lib/ui/layout/PagesPdf.svelte';
  import LayoutCard from '$lib/ui/library/LayoutCard.svelte';
  import NewLayout from '$lib/ui/library/NewLayout.svelte';

  let { data } = $props();
  const project = $derived(data.project);
  let asking = $state(false);
  let standing = $state(false);
  let printing = $state(false);
  let proofing = $state(false);
  let handing = $state(false);
  let naming = $state(false);
  let looking = $state(false);
  type Part = { id: string; name: string; layout: LayoutData; patterns: PatternForUse[] };
  let parts: Part[] | null = $state.raw(null);

  /** Fetches all layouts of the project, to show them before and after an exchange of palettes. */
  async function recolour(): Promise<void> {
    const found: Part[] = [];
    for (const { id, name } of project.layoutList) {
      const answer = await call('GET /layouts/{id}', { id });
      if (!answer.ok) return toasts.problem(answer.failure.message);
      found.push({ id, name, ...answer.value });
    }
    parts = found;
  }
  async function exchange(exchanges: Exchange[], summary: string): Promise<string | null> {
    const layouts = project.layoutList.map((layout) => layout.id);
    const done = await call('POST /recolours', { body: { layouts, exchanges, summary } });
    if (!done.ok) return done.failure.message;
    await refresh();
    const count = done.value.layouts === 1 ? 'one layout' : `${done.value.layouts} layouts`;
    toasts.show(`${summary} in ${count}.`, {
      action: { label: 'Undo', run: () => void undoBulk(done.value.id) },
    });
    return null;
  }

  async function newSheet(): Promise<void> {
    const taken = data.sheets.map(({ name }) => name);
    const made = await makeNamed('Client sheet 1', taken, (name) =>
      call('POST /projects/{id}/client-sheets', {
        id: project.id,
        body: {
          ...{ name, body: freshSheet(project.name) },
        },
      }),
    );
    if (!made.ok) return toasts.problem(made.failure.message);
    await goto(`/projects/${project.id}/client-sheets/${made.value.id}`);
  }

  async function rename(name: string): Promise<string | null> {
    const saved = await call('PATCH /projects/{id}', {
      id: project.id,
      body: { base: project.version, name },
    });
    await refresh();
    return saved.ok ? null : saved.failure.message;
  }
  async function measureIn(select: HTMLSelectElement): Promise<void> {
    const saved = await call('PATCH /projects/{id}', {
      id: project.id,
      body: {
        base: project.version,
        measure: select.value as LengthUnit,
      },
    });
    if (!saved.ok) toasts.problem(saved.failure.message);
    await refresh();
    select.value = project.measure;
  }
  async function setArchived(archived: boolean): Promise<void> {
    const { id, name } = project;
    const saved = await call('PUT /projects/{id}/archived', { id, body: { archived } });
    if (!saved.ok) return toasts.problem(saved.failure.message);
    if (!archived) return refresh();
    await goto('/projects');
    toasts.show(`“${name}” is in the archive.`, {
      action: {
        label: 'Undo',
        run: () =>
          void call('PUT /projects/{id}/archived', { id, body: { archived: false } }).then(() =>
            goto(`/projects/${id}`),
          ),
      },
    });
  }
</script>

<svelte:head><title>{project.name} · Isle</title></svelte:head>

<div class="view">
  <TopBar>
    {#snippet trail()}<a href="/projects">Projects</a> / <strong>{project.name}</strong>{/snippet}
    {#snippet actions()}
      {#if project.archivedAt === null}
        {#if may('designer')}
          {#if project.layoutList.length > 0}
            <Button onclick={recolour}>Exchange palettes …</Button>
          {/if}
          <Button onclick={() => setArchived(true)}><Archive size={15} />Archive</Button>
        {/if}
        {#if data.mayChange}
          <Button onclick={() => (standing = true)}><Plus size={15} />New mock-up</Button>
          <Button kind="main" onclick={() => (asking = true)}><Plus size={16} />New layout</Button>
        {:else}<LookOn what="project" />{/if}
      {:else if may('designer')}
        <Button kind="main" onclick={() => setArchived(false)}>Restore</Button>
      {/if}
    {/snippet}
  </TopBar>
  <main>
    <h1 class="visually-hidden">{project.name}</h1>
    <div class="head">
      <NameField
        size="title"
        label="The name of the project"
        value={project.name}
        fixed={!may('designer')}
        onset={rename}
      />
      <label class="unit" title="All its layouts show their lengths in it, and new ones start with it"
        >Unit
        <select
          value={project.measure}
          disabled={project.archivedAt !== null || !may('designer')}
          onchange={(event) => measureIn(event.currentTarget)}
        >
          {#each LENGTH_UNITS as unit (unit)}<option value={unit}>{unit}</option>{/each}
        </select></label
      >
      {#if data.me?.studio.opened}
        <Button kind="quiet" onclick={() => (naming = true)}
          >{project.closed ? 'Closed: who is in it …' : 'Who is in it …'}</Button
        >
      {/if}
      <Button kind="quiet" onclick={() => (looking = true)}>What happened …</Button>
    </div>
    <section aria-labelledby="layouts">
      <div class="title">
        <h2 id="layouts">Layouts</h2>
        {#if project.layoutList.length > 0}
          <span>
            <Button kind="quiet" onclick={() => (proofing = true)}>Proof …</Button>
            <Button kind="quiet" onclick={() => (printing = true)}>Save as PDF …</Button>
            {#if data.mayChange}<Button kind="quiet" onclick={() => (handing = true)}>Hand over …</Button
              >{/if}
          </span>
        {/if}
      </div>
      <div class="cards">
        {#each project.layoutList as layout (layout.id)}
          <LayoutCard {layout} />
        {:else}
          <div class="empty">
            <p>A layout is a page with shapes that you fill with patterns: a sign, a ticket, a poster.</p>
            {#if data.mayChange}<Button kind="main" onclick={() => (asking = true)}>New layout</Button>{/if}
          </div>
        {/each}
      </div>
    </section>
    <section aria-labelledby="mock-ups">
      <h2 id="mock-ups">Mock-ups</h2>
      <div class="cards">
        {#each data.mockups as mockup (mockup.id)}
          <MockupCard {mockup} mayChange={data.mayChange} onchange={refresh} />
        {:else}
          <div class="empty">
            <p>A mock-up shows your layouts and patterns on cups, bags and walls, true to size.</p>
            {#if data.mayChange}<Button onclick={() => (standing = true)}>New mock-up</Button>{/if}
          </div>
        {/each}
      </div>
    </section>
    <section aria-labelledby="sheets">
      <h2 id="sheets">Client sheets</h2>
      <div class="sheets">
        {#each data.sheets as sheet (sheet.id)}
          <SheetRow {sheet} onchange={refresh} />
        {/each}
        {#if data.mayChange}<Button onclick={newSheet}><Plus size={15} />New client sheet</Button>{/if}
      </div>
    </section>
    {#if project.patternList.length > 0}
      <section aria-labelledby="patterns">
        <h2 id="patterns">Patterns in use</h2>
        <div class="hangers">
          {#each project.patternList as pattern (pattern.id)}
            <Hanger {pattern} width={240} height={120} scale={0.5} surface="mid" />
          {/each}
        </div>
      </section>
    {/if}
  </main>
</div>
{#if parts}
  <RecolourDialog {parts} palettes={data.palettes} onapply={exchange} onclose={() => (parts = null)} />
{/if}
{#if standing}
  <NewMockup
    projectId={project.id}
    names={data.mockups.map(({ name }) => name)}
    onclose={() => (standing = false)}
  />
{/if}
{#if handing}<ParcelDialog
    project={project.id}
    layouts={project.layoutList}
    press={project.press.profile !== null}
    onclose={() => (handing = false)}
  />{/if}
{#if looking}
  <HappenedDialog
    title="What happened in “{project.name}”"
    of={{ project: project.id }}
    onclose={() => (looking = false)}
  />
{/if}
{#if naming}<ProjectPeople {project} onclose={() => (naming = false)} />{/if}
{#if proofing}<ProjectProof projectId={project.id} onclose={() => (proofing = false)} />{/if}
{#if printing}
  <PagesPdf
    project={project.id}
    layouts={project.layoutList}
    press={project.press.profile !== null}
    onclose={() => (printing = false)}
  />
{/if}
{#if asking}<NewLayout
    projectId={project.id}
    unit={project.measure}
    names={project.layoutList.map(({ name }) => name)}
    onclose={() => (asking = false)}
  />{/if}

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
    align-items: baseline;
    gap: 18px;
  }
  .unit {
    color: var(--muted);
    font-size: var(--small);
  }
  section {
    margin-top: 22px;
  }
  h2 {
    padding-bottom: 8px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--rule);
    font-size: 15px;
  }
  .title {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--rule);
  }
  .title h2 {
    margin: 0;
    border: 0;
  }
  .cards {
    display: flex;
    flex-wrap: wrap;
    gap: 18px;
  }
  .sheets {
    display: grid;
    gap: 6px;
    justify-items: start;
    max-width: 640px;
  }
  .hangers {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
    gap: 24px 16px;
    padding-top: 8px;
  }
  .empty {
    display: grid;
    gap: 12px;
    justify-items: start;
    max-width: 420px;
  }
</style>
