<script lang="ts">
  import type { PasskeyData } from '$lib/contract/people';
  import { call } from '../state/api';
  import { refresh } from '../state/refresh';
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import PageSection from '../components/PageSection.svelte';
  import NewThing from '../library/NewThing.svelte';
  import { knowsPasskeys, makePasskey } from './passkeys';
  import { whenOf } from './say';

  /** One's own passkeys: keys that this or another device holds, to sign in without a password. */
  type Props = { passkeys: readonly PasskeyData[] };
  let { passkeys }: Props = $props();
  let naming = $state(false);

  async function forget({ id, name }: PasskeyData): Promise<void> {
    const gone = await call('DELETE /me/passkeys/{id}', { id });
    if (!gone.ok) toasts.problem(gone.failure.message);
    else toasts.show(`The passkey “${name}” is forgotten.`);
    await refresh();
  }
</script>

<PageSection title="Passkeys" width={640}>
  <p class="muted">
    Sign in with your fingerprint, your face or a key, without a password. The secret stays on your device.
  </p>
  {#if passkeys.length > 0}
    <ul class="lines">
      {#each passkeys as key (key.id)}
        <li>
          <span
            ><strong>{key.name}</strong>
            <span class="muted"
              >{key.usedAt === null ? 'not used yet' : `last used ${whenOf(key.usedAt)}`}</span
            ></span
          >
          <Button kind="quiet" label="Forget the passkey {key.name}" onclick={() => forget(key)}
            >Forget</Button
          >
        </li>
      {/each}
    </ul>
  {/if}
  <div><Button disabled={!knowsPasskeys()} onclick={() => (naming = true)}>Add a passkey …</Button></div>
</PageSection>
{#if naming}
  <NewThing
    title="Add a passkey"
    label="What you call it"
    action="Add it"
    name="This device"
    create={async (name) => {
      const made = await makePasskey(name);
      if (made.ok) {
        naming = false;
        toasts.show(`The passkey “${name}” signs you in from now on.`);
        await refresh();
      }
      return made;
    }}
    onclose={() => (naming = false)}
  />
{/if}
