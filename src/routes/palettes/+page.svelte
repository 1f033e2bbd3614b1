<script lang="ts">
  import { may } from '$lib/ui/state/may';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Plus from '@lucide/svelte/icons/plus';
  import type { PaletteData } from '$lib/contract/data';
  import { call } from '$lib/ui/state/api';
  import { onLive } from '$lib/ui/state/live';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import { refresh } from '$lib/ui/state/refresh';
  import Button from '$lib/ui/components/Button.svelte';
  import FileDrop from '$lib/ui/components/FileDrop.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import NewThing from '$lib/ui/library/NewThing.svelte';
  import TakeInDialog from '$lib/ui/library/TakeInDialog.svelte';
  import PaletteView from '$lib/ui/palettes/PaletteView.svelte';

  let { data } = $props();
  let making = $state(false);
  let takingIn: File[] | null = $state(null);
  const chosen = $derived(
    data.palettes.find((one) => one.id === page.url.searchParams.get('palette')) ?? data.palettes[0] ?? null,
  );
  const projectName = (id: string | null): string =>
    id === null ? '' : (data.projects.find((one) => one.id === id)?.name ?? '');

  const show = (id: string): Promise<void> =>
    goto(`/palettes?palette=${id}`, { replaceState: true, keepFocus: true, noScroll: true });

  async function create(name: string) {
    const made = await call('POST /palettes', { body: { name } });
    if (made.ok) {
      making = false;
      await refresh();
      await show(made.value.id);
    }
    return made;
  }
  async function setArchived(palette: PaletteData, archived: boolean): Promise<void> {
    const done = await call('PUT /palettes/{id}/archived', { id: palette.id, body: { archived } });
    if (!done.ok) return toasts.problem(done.failure.message);
    await refresh();
    if (archived)
      toasts.show(`“${palette.name}” is in the archive; what follows its colours keeps them.`, {
        action: { label: 'Undo', run: () => void setArchived(palette, false) },
      });
    else await show(palette.id);
  }
  onLive(['palette.'], () => void refresh());
</script>

<svelte:head><title>Palettes · Isle</title></svelte:head>

<FileDrop onfiles={(files) => (takingIn = files)}>
  <TopBar>
    {#snippet actions()}
      {#if may('designer')}<Button onclick={() => (takingIn = [])}>Open files</Button>
        <Button kind="main" onclick={() => (making = true)}><Plus size={16} />New palette</Button>{/if}
    {/snippet}
  </TopBar>
  <div class="columns">
    <nav aria-label="Palettes">
      <ul>
        {#each data.palettes as palette (palette.id)}
          <li>
            <a
              href="/palettes?palette={palette.id}"
              data-sveltekit-replacestate
              data-sveltekit-noscroll
              aria-current={palette.id === chosen?.id ? 'page' : undefined}
            >
              <strong dir="auto">{palette.name}</strong>
              <span class="muted"
                >{palette.projectId === null ? 'Shared' : projectName(palette.projectId)}</span
              >
              <span class="bar" aria-hidden="true"
                >{#each palette.colours.slice(0, 24) as entry (entry.id)}<i style:background={entry.hex}
                  ></i>{/each}</span
              >
            </a>
          </li>
        {/each}
      </ul>
    </nav>
    <main>
      <h1 class="visually-hidden">Palettes</h1>
      {#if chosen}
        {#key chosen.id}
          <PaletteView
            palette={chosen}
            projects={data.projects}
            onarchive={() => setArchived(chosen, true)}
            onname={() => void refresh()}
          />
        {/key}
      {:else}
        <div class="empty">
          <h2>No palettes yet</h2>
          <p>
            A palette names the colours that patterns, shapes and grounds follow: change one here and all of
            them change.
          </p>
          {#if may('designer')}<Button kind="main" onclick={() => (making = true)}>New palette</Button>{/if}
        </div>
      {/if}
    </main>
  </div>
</FileDrop>

{#if making}
  <NewThing
    title="New palette"
    label="Name"
    action="Make palette"
    {create}
    onclose={() => (making = false)}
  />
{/if}
{#if takingIn}
  <TakeInDialog files={takingIn} ondone={() => refresh()} onclose={() => (takingIn = null)} />
{/if}

<style>
  .columns {
    display: grid;
    grid-template-columns: 224px minmax(0, 1fr);
    flex: 1;
    min-height: 0;
  }
  nav {
    overflow: auto;
    border-right: 1px solid var(--rule);
    background: var(--paper);
  }
  ul {
    padding: 8px;
  }
  nav a {
    display: grid;
    gap: 1px;
    padding: 8px 10px;
    border-radius: var(--radius);
    color: var(--ink);
    text-decoration: none;
  }
  nav a:hover {
    background: var(--card);
  }
  nav [aria-current] {
    background: var(--kelp-tint);
  }
  nav strong {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .bar {
    display: flex;
    height: 12px;
    margin-top: 4px;
    border-radius: 3px;
    overflow: hidden;
  }
  .bar i {
    flex: 1;
  }
  main {
    overflow: auto;
    background: var(--card);
  }
  .empty {
    display: grid;
    gap: 10px;
    justify-items: start;
    max-width: 440px;
    margin: 60px auto;
  }
</style>
