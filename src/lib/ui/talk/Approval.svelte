<script lang="ts">
  import { page } from '$app/state';
  import { mayAs, type Me } from '$lib/contract/people';
  import type { ApprovalState, ApprovedKind } from '$lib/contract/talk';
  import { call } from '../state/api';
  import { onLive } from '../state/live';
  import { toasts } from '../state/toasts.svelte';
  import { whenOf } from '../people/say';

  /** How far a layout or pattern is: worked on, asked for approval, approved; whoever may, says so here. */
  type Props = {
    kind: ApprovedKind;
    id: string;
    /** With each another one it is looked up anew. */
    version: number;
  };
  let { kind, id, version }: Props = $props();

  let held = $state.raw<ApprovalState | null>(null);
  const role = $derived((page.data.me as Me | null)?.person.role ?? 'viewer');
  async function load(): Promise<void> {
    const found = await call('GET /approvals', { query: { kind, id } });
    if (found.ok) held = found.value;
  }
  $effect(() => {
    void version;
    void load();
  });
  onLive(['approval.'], (events) => {
    if (events.some(({ subject }) => subject === id || subject === '')) void load();
  });

  const WORDS = { working: 'Working', asked: 'Approval asked', approved: 'Approved' } as const;
  const options = $derived(
    (['working', 'asked', 'approved'] as const).filter(
      (state) => state === held?.state || state !== 'approved' || mayAs(role, 'designer'),
    ),
  );
  const what = $derived(kind === 'layout' ? 'version' : 'revision');
  const title = $derived(
    !held || held.when === null
      ? 'Nobody asked for approval yet'
      : held.state === 'working'
        ? `Approved by ${held.by ?? 'somebody'} at ${what} ${held.at}; it was changed since`
        : `${held.by ?? 'Somebody'}, ${whenOf(held.when)}, ${what} ${held.at}`,
  );
  async function set(state: ApprovalState['state']): Promise<void> {
    const saved = await call('PUT /approvals', { body: { kind, id, state } });
    if (!saved.ok) toasts.problem(saved.failure.message);
    await load();
  }
</script>

{#if held}
  <select
    class={held.state}
    aria-label="How far it is"
    {title}
    value={held.state}
    disabled={!mayAs(role, 'contributor')}
    onchange={(event) => set(event.currentTarget.value as ApprovalState['state'])}
  >
    {#each options as state (state)}<option value={state}>{WORDS[state]}</option>{/each}
  </select>
{/if}

<style>
  .asked {
    background: var(--amber-tint);
    color: var(--amber);
  }
  .approved {
    background: var(--kelp-tint);
    color: var(--kelp);
  }
</style>
