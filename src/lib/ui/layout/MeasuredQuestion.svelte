<script lang="ts">
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import type { MeasuredTrial, Question } from './measured-trial.svelte';

  /** Asks what becomes of numbers that were changed where a pattern is used. */
  type Props = { trial: MeasuredTrial; question: Question };
  let { trial, question }: Props = $props();

  let busy = $state(false);
  const detail = $derived(question.detail);
  /** Why the pattern itself may not be changed from here, if it may not. */
  const kept = $derived(
    detail.stock
      ? 'It is a stock pattern, which stays as it is.'
      : detail.hasDraft
        ? 'It has work on the bench that is not published; publishing from here would take that away.'
        : null,
  );
  async function answer(how: 'publish' | 'new' | 'nothing'): Promise<void> {
    busy = true;
    await trial.answer(how);
    busy = false;
  }
</script>

<Dialog title="Keep the new numbers of “{detail.name}”?" width={540} must onclose={() => undefined}>
  <p>
    {kept ??
      (detail.uses === 1
        ? 'Published, its one use follows.'
        : `Published, all its ${detail.uses} uses follow, but for those that are held.`)}
  </p>
  {#snippet actions()}
    <Button disabled={busy} onclick={() => answer('nothing')}>Give them up</Button>
    <Button kind={kept ? 'main' : 'plain'} disabled={busy} onclick={() => answer('new')}
      >As a new pattern, here alone</Button
    >
    {#if !kept}
      <Button kind="main" disabled={busy} onclick={() => answer('publish')}
        >Publish revision {detail.newest + 1}</Button
      >
    {/if}
  {/snippet}
</Dialog>
