<script lang="ts">
  import type { Outcome } from '$lib/contract/failure';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';

  /** A dialog that asks for a name and makes something; the problem of a refused name stands under the field. */
  type Props = {
    title: string;
    label: string;
    action: string;
    name?: string;
    create: (name: string) => Promise<Outcome<unknown>>;
    onclose: () => void;
  };
  let { title, label, action, name = '', create, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  let typed = $state(name);
  let problem: string | null = $state(null);
  let busy = $state(false);

  async function submit(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    const made = typed.trim() === '' ? null : await create(typed.trim());
    busy = false;
    problem = made === null ? `${label} must not be empty.` : made.ok ? null : made.failure.message;
  }
</script>

<Dialog {title} width={400} {onclose}>
  <form id="new-thing" onsubmit={submit}>
    <Field {label} bind:value={typed} {problem} autofocus />
    <div class="actions">
      <Button onclick={onclose}>Cancel</Button>
      <Button kind="main" type="submit" disabled={busy}>{action}</Button>
    </div>
  </form>
</Dialog>

<style>
  .actions {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
    margin-top: 20px;
  }
</style>
