<script lang="ts">
  import type { Outcome } from '$lib/contract/failure';
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import Field from '../components/Field.svelte';
  import PasswordField from './PasswordField.svelte';

  /** Opens the studio: whoever sits here becomes its first owner, and from then on everyone signs in. */
  type Props = { studio: string; name: string };
  let { studio: called, name: known }: Props = $props();

  // svelte-ignore state_referenced_locally
  let studio = $state(called);
  // svelte-ignore state_referenced_locally
  let name = $state(known);
  let email = $state('');
  let password = $state('');
  let busy = $state(false);
  let fault: { path: string; message: string } | null = $state.raw(null);
  const at = (path: string): string | null => (fault?.path === path ? fault.message : null);

  async function open(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    const opened: Outcome<unknown> = await call('POST /studio/opened', {
      body: { studio, name, email, password },
    });
    busy = false;
    if (opened.ok) {
      toasts.show('The studio is open. Invite your colleagues here.');
      return refresh();
    }
    const { path, message } = opened.failure;
    fault = { path: ['studio', 'name', 'email'].includes(path) ? path : 'password', message };
  }
</script>

<section aria-labelledby="open-studio">
  <h1 id="open-studio">Open the studio</h1>
  <p>
    So far Isle is yours alone on this machine, without a password. When you open the studio you become its
    first owner; from then on everyone signs in, and you ask colleagues in by links. All patterns, projects
    and palettes stay as they are.
  </p>
  <form onsubmit={open}>
    <Field label="The studio's name" bind:value={studio} problem={at('studio')} autofocus />
    <Field label="Your name, as colleagues see it" bind:value={name} problem={at('name')} />
    <Field
      label="Your e-mail address, with which you will sign in"
      kind="email"
      autocomplete="username"
      bind:value={email}
      problem={at('email')}
    />
    <PasswordField label="Password" fresh bind:value={password} problem={at('password')} />
    <div><Button kind="main" type="submit" disabled={busy}>Open the studio</Button></div>
  </form>
  <p class="muted">
    There is no way back to working without a password. Should you lose yours, whoever may use this machine
    runs “npm run isle -- owner NAME ADDRESS” and gets a link to set a new one.
  </p>
</section>

<style>
  section {
    display: grid;
    gap: 16px;
    max-width: 520px;
  }
  form {
    display: grid;
    gap: 14px;
    max-width: 400px;
  }
</style>
