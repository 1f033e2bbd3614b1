<script lang="ts">
  import { goto } from '$app/navigation';
  import type { PatternDetail } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';

  /** Deleting an archived pattern for good: its name must be typed, and nothing may use it. */
  type Props = { pattern: PatternDetail; onclose: () => void };
  let { pattern, onclose }: Props = $props();
  let typed = $state('');
  let problem: string | null = $state(null);

  async function remove(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const done = await call('DELETE /patterns/{id}', { id: pattern.id, body: { name: typed } });
    if (!done.ok) {
      problem = done.failure.message;
      return;
    }
    toasts.show(`“${pattern.name}” is deleted for good.`);
    await goto('/library?show=archived');
  }
</script>

<Dialog title="Delete “{pattern.name}” for good" width={440} {onclose}>
  <p>All its revisions and colourways go with it. This cannot be undone.</p>
  <form id="delete-pattern" onsubmit={remove}>
    <Field label="Type its name to delete it" bind:value={typed} {problem} autofocus />
  </form>
  {#snippet actions()}
    <Button onclick={onclose}>Keep it</Button>
    <Button kind="main" type="submit" form="delete-pattern" disabled={typed !== pattern.name}
      >Delete for good</Button
    >
  {/snippet}
</Dialog>
