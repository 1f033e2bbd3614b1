<script lang="ts">
  import { goto } from '$app/navigation';
  import { ROLE_WORDS } from '$lib/contract/people';
  import { call } from '$lib/ui/state/api';
  import Button from '$lib/ui/components/Button.svelte';
  import Field from '$lib/ui/components/Field.svelte';
  import PasswordField from '$lib/ui/people/PasswordField.svelte';
  import Threshold from '$lib/ui/people/Threshold.svelte';

  let { data } = $props();
  const link = $derived(data.invitation);
  // svelte-ignore state_referenced_locally
  let name = $state(data.invitation.name);
  let email = $state('');
  let password = $state('');
  let busy = $state(false);
  let fault: { path: string; message: string } | null = $state.raw(null);
  const at = (path: string): string | null => (fault?.path === path ? fault.message : null);

  async function comeIn(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    const given = link.renewal ? { password } : { name, email, password };
    const came = await call('POST /invitations/links/{token}', { token: data.token, body: given });
    busy = false;
    if (came.ok) return goto('/library', { invalidateAll: true });
    const { path, message } = came.failure;
    fault = { path: ['name', 'email'].includes(path) ? path : 'password', message };
  }
</script>

<svelte:head>
  <title>{link.renewal ? 'A new password' : `Come into ${link.studio}`} · Isle</title>
  <meta name="referrer" content="no-referrer" />
</svelte:head>
<Threshold title={link.renewal ? 'A new password' : `Come into ${link.studio}`}>
  {#if link.renewal}
    <p class="muted">
      For {link.name}, who signs in as {link.email}. All places where you are signed in end.
    </p>
  {:else}
    <p class="muted">You come in as a <strong>{link.role}</strong>: {ROLE_WORDS[link.role]}.</p>
  {/if}
  <form onsubmit={comeIn}>
    {#if !link.renewal}
      <Field label="Your name, as colleagues see it" bind:value={name} problem={at('name')} autofocus />
      <Field
        label="E-mail address, with which you will sign in"
        kind="email"
        autocomplete="username"
        bind:value={email}
        problem={at('email')}
      />
    {/if}
    <PasswordField label="Password" fresh bind:value={password} problem={at('password')} />
    <div>
      <Button kind="main" type="submit" disabled={busy}
        >{link.renewal ? 'Set it and sign in' : 'Come in'}</Button
      >
    </div>
  </form>
</Threshold>

<style>
  form {
    display: grid;
    gap: 14px;
  }
</style>
