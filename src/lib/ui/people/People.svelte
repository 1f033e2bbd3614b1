<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus';
  import { ROLES, ROLE_WORDS, type InvitationData, type PersonData, type Role } from '$lib/contract/people';
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import GivenLink from './GivenLink.svelte';
  import InviteDialog from './InviteDialog.svelte';
  import Mark from './Mark.svelte';
  import { dayOf, whenOf } from './say';

  /** Who is in the studio and who was asked in; owners say what each may do. */
  type Props = {
    people: readonly PersonData[];
    invitations: readonly InvitationData[];
    projects: readonly { id: string; name: string }[];
    me: PersonData;
  };
  let { people, invitations, projects, me }: Props = $props();
  const owner = $derived(me.role === 'owner');
  const gone = ({ endsAt }: PersonData): boolean => endsAt !== null && endsAt <= Date.now();
  const sorted = $derived([...people].sort((one, other) => Number(gone(one)) - Number(gone(other))));

  let inviting = $state(false);
  let given: { name: string; token: string; endsAt: number; renewal: boolean } | null = $state.raw(null);

  const options = ROLES.map((role) => [role, role] as const);

  async function change(
    one: PersonData,
    to: { role?: Role; endsAt?: number | null },
    said: string,
  ): Promise<void> {
    const back = to.role === undefined ? { endsAt: one.endsAt } : { role: one.role };
    const saved = await call('PATCH /people/{id}', { id: one.id, body: to });
    await refresh();
    if (!saved.ok) return toasts.problem(saved.failure.message);
    toasts.show(said, {
      action: {
        label: 'Undo',
        run: () => void call('PATCH /people/{id}', { id: one.id, body: back }).then(refresh),
      },
    });
  }
  async function renew(one: PersonData): Promise<void> {
    const made = await call('POST /people/{id}/renewals', { id: one.id });
    if (!made.ok) return toasts.problem(made.failure.message);
    given = { name: one.name, renewal: true, ...made.value };
    await refresh();
  }
  async function withdraw({ id, name }: InvitationData): Promise<void> {
    const gone = await call('DELETE /invitations/{id}', { id });
    if (!gone.ok) toasts.problem(gone.failure.message);
    else toasts.show(`The link for ${name} is void.`);
    await refresh();
  }
</script>

<section aria-labelledby="people">
  <header>
    <h1 id="people">People</h1>
    {#if owner}
      <Button kind="main" onclick={() => (inviting = true)}><Plus size={16} />Invite somebody</Button>
    {/if}
  </header>
  <table>
    <thead>
      <tr>
        <th scope="col">Name</th>
        {#if owner}<th scope="col">Signs in as</th>{/if}
        <th scope="col">Role</th>
        {#if owner}<th scope="col">Last here</th>{/if}
        <th scope="col">Stays until</th>
        {#if owner}<th scope="col"><span class="unseen">What to do</span></th>{/if}
      </tr>
    </thead>
    <tbody>
      {#each sorted as one (one.id)}
        <tr class:gone={gone(one)}>
          <td>
            <span class="who">
              <Mark name={one.name} colour={one.colour} gone={gone(one)} />
              <span>{one.name}{one.id === me.id ? ' (you)' : ''}</span>
            </span>
          </td>
          {#if owner}<td class="muted">{one.email ?? 'never came in'}</td>{/if}
          <td title={ROLE_WORDS[one.role]}>
            {#if owner && !gone(one)}
              <Choice
                label="Role of {one.name}"
                value={one.role}
                {options}
                onset={(role) =>
                  change(one, { role }, `${one.name} is ${role === 'owner' ? 'an' : 'a'} ${role} now.`)}
              />
            {:else}
              {one.role}
            {/if}
          </td>
          {#if owner}<td class="muted">{one.seenAt === null ? '—' : whenOf(one.seenAt)}</td>{/if}
          <td class="muted"
            >{gone(one)
              ? `left ${dayOf(one.endsAt ?? 0)}`
              : one.endsAt === null
                ? '—'
                : dayOf(one.endsAt)}</td
          >
          {#if owner}
            <td class="ways">
              {#if gone(one)}
                <Button kind="quiet" onclick={() => change(one, { endsAt: null }, `${one.name} is back.`)}
                  >Let back in</Button
                >
              {:else if one.id !== me.id}
                {#if one.email !== null}
                  <Button kind="quiet" onclick={() => renew(one)}>New password …</Button>
                {/if}
                <Button
                  kind="quiet"
                  onclick={() =>
                    change(one, { endsAt: Date.now() }, `${one.name} is not in the studio any more.`)}
                  >Take out</Button
                >
              {/if}
            </td>
          {/if}
        </tr>
      {/each}
      {#each invitations as one (one.id)}
        <tr>
          <td><span class="who"><span class="waits" aria-hidden="true"></span>{one.name}</span></td>
          <td class="muted">{one.personId ? 'has a link for a new password' : 'was invited'}</td>
          <td>{one.role}</td>
          <td class="muted">—</td>
          <td class="muted">link until {dayOf(one.endsAt)}</td>
          <td class="ways"><Button kind="quiet" onclick={() => withdraw(one)}>Withdraw</Button></td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>
{#if inviting}
  <InviteDialog
    {projects}
    onmade={(made) => {
      inviting = false;
      given = made;
      void refresh();
    }}
    onclose={() => (inviting = false)}
  />
{/if}
{#if given}<GivenLink {...given} onclose={() => (given = null)} />{/if}

<style>
  section {
    max-width: 1080px;
  }
  header {
    display: flex;
    align-items: center;
    justify-content: space-between;
    margin-bottom: 12px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    background: var(--card);
    border: 1px solid var(--rule);
  }
  th {
    color: var(--muted);
    font-size: var(--small);
    font-weight: 500;
    text-align: left;
  }
  th,
  td {
    padding: 7px 12px;
    border-bottom: 1px solid var(--rule);
  }
  tr:last-child td {
    border-bottom: 0;
  }
  .who {
    display: flex;
    align-items: center;
    gap: 10px;
    font-weight: 600;
  }
  .gone .who {
    color: var(--muted);
    font-weight: 400;
  }
  .waits {
    width: 26px;
    height: 26px;
    border: 1px dashed var(--rule-strong);
    border-radius: 6px 6px 6px 0;
  }
  .ways {
    text-align: right;
    white-space: nowrap;
  }
  .unseen {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
</style>
