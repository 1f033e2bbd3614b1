<script lang="ts">
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import PageSection from '../components/PageSection.svelte';
  import PasswordField from './PasswordField.svelte';

  /** Sets another password for oneself. */
  type Props = { has: boolean };
  let { has }: Props = $props();
  let present = $state('');
  let password = $state('');
  let busy = $state(false);
  let fault: { path: string; message: string } | null = $state.raw(null);

  async function set(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    const saved = await call('PUT /me/password', { body: { present: has ? present : null, password } });
    busy = false;
    fault = saved.ok ? null : saved.failure;
    if (!saved.ok) return;
    [present, password] = ['', ''];
    toasts.show('Your password is changed; everywhere else you are signed out.');
    await refresh();
  }
</script>

<PageSection title="Password" width={400}>
  <form onsubmit={set}>
    {#if has}
      <PasswordField
        label="Present password"
        bind:value={present}
        problem={fault?.path === 'present' ? fault.message : null}
      />
    {/if}
    <PasswordField
      label="New password"
      fresh
      bind:value={password}
      problem={fault && fault.path !== 'present' ? fault.message : null}
    />
    <div><Button type="submit" disabled={busy || password === ''}>Change the password</Button></div>
  </form>
</PageSection>

<style>
  form {
    display: grid;
    gap: 12px;
  }
</style>
