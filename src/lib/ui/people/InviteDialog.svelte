<script lang="ts">
  import { ROLES, ROLE_WORDS, type Role } from '$lib/contract/people';
  import { call } from '../state/api';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Tick from '../components/Tick.svelte';

  /** Asks somebody into the studio: who, what they may do, in which projects, and until when. */
  type Made = { name: string; token: string; endsAt: number; renewal: boolean };
  type Props = {
    projects: readonly { id: string; name: string }[];
    onmade: (made: Made) => void;
    onclose: () => void;
  };
  let { projects, onmade, onclose }: Props = $props();

  let name = $state('');
  let role: Role = $state('designer');
  let days = $state(7);
  let leaves = $state('');
  let chosen: ReadonlySet<string> = $state.raw(new Set());
  let fault: { path: string; message: string } | null = $state.raw(null);
  let busy = $state(false);

  function set(id: string, wanted: boolean): void {
    const next = new Set(chosen);
    if (wanted) next.add(id);
    else next.delete(id);
    chosen = next;
  }
  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (name.trim() === '') {
      fault = { path: 'name', message: 'Say for whom the link is.' };
      return;
    }
    busy = true;
    // The end of the day that was chosen.
    const leavesAt = leaves === '' ? null : new Date(`${leaves}T23:59:59`).getTime();
    const body = { name: name.trim(), role, projects: [...chosen], days, leavesAt };
    const made = await call('POST /invitations', { body });
    busy = false;
    if (made.ok) onmade({ name: name.trim(), renewal: false, ...made.value });
    else fault = made.failure;
  }
</script>

<Dialog title="Invite somebody" width={480} {onclose}>
  <form id="invite" onsubmit={submit}>
    <Field
      label="For whom"
      bind:value={name}
      problem={fault?.path === 'name' ? fault.message : null}
      autofocus
    />
    <fieldset>
      <legend>What they may do</legend>
      {#each ROLES as one (one)}
        <label>
          <input type="radio" name="role" value={one} checked={role === one} onchange={() => (role = one)} />
          <span><strong>{one}</strong> <span class="muted">{ROLE_WORDS[one]}</span></span>
        </label>
      {/each}
    </fieldset>
    {#if projects.length > 0 && role !== 'owner'}
      <fieldset>
        <legend>Named in these projects</legend>
        <div class="projects">
          {#each projects as project (project.id)}
            <Tick
              label={project.name}
              checked={chosen.has(project.id)}
              onset={(wanted) => set(project.id, wanted)}
            />
          {/each}
        </div>
      </fieldset>
    {/if}
    <div class="days">
      <span>The link works for</span>
      <NumberField
        label="Days that the link works"
        kind={{ suffix: '' }}
        value={days}
        least={1}
        most={60}
        digits={0}
        onset={(value) => (days = Math.round(value))}
      />
      <span>days</span>
    </div>
    <label class="until">
      <span>They stay until (empty: no end)</span>
      <input type="date" bind:value={leaves} min={new Date().toISOString().slice(0, 10)} />
    </label>
    {#if fault && fault.path !== 'name'}<p class="problem" role="alert">{fault.message}</p>{/if}
  </form>
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" type="submit" form="invite" disabled={busy}>Make the link</Button>
  {/snippet}
</Dialog>

<style>
  form {
    display: grid;
    gap: 14px;
  }
  fieldset {
    display: grid;
    gap: 5px;
    margin: 0;
    padding: 0;
    border: 0;
  }
  legend,
  .until span {
    margin-bottom: 4px;
    color: var(--muted);
    font-size: var(--small);
  }
  fieldset label {
    display: flex;
    align-items: flex-start;
    gap: 8px;
  }
  input[type='radio'] {
    margin: 3px 0 0;
    accent-color: var(--kelp);
  }
  .projects {
    display: grid;
    gap: 5px;
    max-height: 120px;
    overflow: auto;
  }
  .days {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .until {
    display: grid;
  }
  .until input {
    justify-self: start;
    padding: 4px 8px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  .problem {
    color: var(--amber);
  }
</style>
