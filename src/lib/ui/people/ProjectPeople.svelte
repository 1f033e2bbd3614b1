<script lang="ts">
  import { onMount } from 'svelte';
  import type { PersonData } from '$lib/contract/people';
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Tick from '../components/Tick.svelte';
  import Mark from './Mark.svelte';

  /** Who is named in a project, and whether it is closed to all others. */
  type Props = { project: { id: string; name: string; demandsApproval: boolean }; onclose: () => void };
  let { project, onclose }: Props = $props();

  let people: PersonData[] = $state.raw([]);
  let named: ReadonlySet<string> = $state.raw(new Set());
  let closed = $state(false);
  // svelte-ignore state_referenced_locally
  let demands = $state(project.demandsApproval);
  let ready = $state(false);
  let problem: string | null = $state(null);

  onMount(async () => {
    const [all, held] = await Promise.all([
      call('GET /people'),
      call('GET /projects/{id}/people', { id: project.id }),
    ]);
    if (!all.ok || !held.ok) {
      problem = (all.ok ? (held.ok ? null : held.failure) : all.failure)?.message ?? null;
      return;
    }
    people = all.value.filter(({ endsAt }) => endsAt === null || endsAt > Date.now());
    named = new Set(held.value.people.filter((id) => people.some((one) => one.id === id)));
    closed = held.value.closed;
    ready = true;
  });

  function set(id: string, wanted: boolean): void {
    const next = new Set(named);
    if (wanted) next.add(id);
    else next.delete(id);
    named = next;
  }
  async function save(): Promise<void> {
    const saved = await call('PUT /projects/{id}/people', {
      id: project.id,
      body: { closed, people: [...named] },
    });
    const asked =
      demands === project.demandsApproval
        ? saved
        : await call('PUT /projects/{id}/approval', { id: project.id, body: { demands } });
    if (!asked.ok) problem = asked.failure.message;
    if (!saved.ok) {
      problem = saved.failure.message;
      return;
    }
    toasts.show(
      closed
        ? `“${project.name}” is closed to all but those named in it.`
        : `“${project.name}” is open to the studio.`,
    );
    onclose();
    await refresh();
  }
</script>

<Dialog title="Who is in “{project.name}”" width={440} {onclose}>
  <Tick
    label="Closed: only those named here, and owners, see it"
    checked={closed}
    disabled={!ready}
    onset={(value) => (closed = value)}
  />
  <ul aria-label="People">
    {#each people as one (one.id)}
      <li>
        <Mark name={one.name} colour={one.colour} size={22} />
        <Tick
          label="{one.name}, {one.role}"
          checked={named.has(one.id)}
          onset={(wanted) => set(one.id, wanted)}
        />
      </li>
    {/each}
  </ul>
  <Tick
    label="Hand over only what is approved"
    checked={demands}
    disabled={!ready}
    onset={(value) => (demands = value)}
  />
  <p class="muted">Contributors change only the projects that they are named in.</p>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" disabled={!ready} onclick={save}>Save</Button>
  {/snippet}
</Dialog>

<style>
  ul {
    display: grid;
    gap: 6px;
    max-height: 300px;
    margin: 0;
    padding: 0;
    overflow: auto;
    list-style: none;
  }
  li {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .problem {
    color: var(--amber);
  }
</style>
