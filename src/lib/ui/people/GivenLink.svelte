<script lang="ts">
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import { dayOf } from './say';

  /** A link that was just made: it is shown this once, for somebody to hand over. */
  type Props = { name: string; token: string; endsAt: number; renewal: boolean; onclose: () => void };
  let { name, token, endsAt, renewal, onclose }: Props = $props();
  const address = $derived(`${location.origin}/join/${token}`);

  async function copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(address);
      toasts.show('The link is copied.');
    } catch {
      toasts.problem('This browser does not let Isle copy; mark the link and copy it yourself.');
    }
  }
</script>

<Dialog title="The link for {name}" width={520} {onclose}>
  <p>
    {renewal
      ? `Hand it to ${name}: whoever opens it sets a new password for them.`
      : `Hand it to ${name}: whoever opens it first comes into the studio by it.`}
    It works once, until {dayOf(endsAt)}, and is shown only here.
  </p>
  <input
    type="text"
    class="mono"
    readonly
    value={address}
    aria-label="The link"
    onfocus={(event) => event.currentTarget.select()}
  />
  {#snippet actions()}
    <Button onclick={onclose}>Close</Button>
    <Button kind="main" onclick={copy}>Copy the link</Button>
  {/snippet}
</Dialog>

<style>
  input {
    padding: 7px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--paper);
    font-size: 12px;
  }
</style>
