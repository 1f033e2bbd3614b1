<script lang="ts">
  import Button from './Button.svelte';
  import Dialog from './Dialog.svelte';

  /** Someone else saved meanwhile: both versions are at hand, and neither choice loses the other before one has looked. */
  type Props = { message: string; onmine: () => void; ontheirs: () => void; undoes?: boolean };
  let { message, onmine, ontheirs, undoes = true }: Props = $props();
</script>

<Dialog title="Changed elsewhere" must onclose={() => undefined}>
  <p>{message}</p>
  <p class="muted">
    Keeping yours saves it over the other version. Taking the other shows it here{undoes
      ? ', and undo brings your version back.'
      : ' and drops what you typed.'}
  </p>
  {#snippet actions()}
    <Button onclick={ontheirs}>Take the other version</Button>
    <Button kind="main" onclick={onmine}>Keep mine</Button>
  {/snippet}
</Dialog>
