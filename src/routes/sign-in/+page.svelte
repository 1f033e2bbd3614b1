<script lang="ts">
  import { goto } from '$app/navigation';
  import KeyRound from '@lucide/svelte/icons/key-round';
  import type { Outcome } from '$lib/contract/failure';
  import { call } from '$lib/ui/state/api';
  import Button from '$lib/ui/components/Button.svelte';
  import Field from '$lib/ui/components/Field.svelte';
  import PasswordField from '$lib/ui/people/PasswordField.svelte';
  import { knowsPasskeys, signInByPasskey } from '$lib/ui/people/passkeys';
  import Threshold from '$lib/ui/people/Threshold.svelte';

  let { data } = $props();
  let email = $state('');
  let password = $state('');
  let problem: string | null = $state(null);
  let busy = $state(false);

  async function by(way: () => Promise<Outcome<unknown>>): Promise<void> {
    if (busy) return;
    busy = true;
    problem = null;
    const came = await way();
    busy = false;
    if (!came.ok) problem = came.failure.message;
    else await goto(data.to, { invalidateAll: true });
  }
</script>

<svelte:head><title>Sign in · Isle</title></svelte:head>
<Threshold title={data.studio}>
  <form
    onsubmit={(event) => {
      event.preventDefault();
      void by(() => call('POST /sessions', { body: { email, password } }));
    }}
  >
    <Field label="E-mail address" kind="email" autocomplete="username" bind:value={email} autofocus />
    <PasswordField label="Password" bind:value={password} {problem} />
    <div class="ways">
      <Button kind="main" type="submit" disabled={busy || email === '' || password === ''}>Sign in</Button>
      {#if knowsPasskeys()}
        <Button disabled={busy} onclick={() => by(signInByPasskey)}
          ><KeyRound size={15} />With a passkey</Button
        >
      {/if}
    </div>
  </form>
  <p class="muted">
    You cannot get in? An owner of the studio gives you a link by which you set a new password. There is no
    mail server behind it: they hand it to you.
  </p>
</Threshold>

<style>
  form {
    display: grid;
    gap: 14px;
  }
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
