<script lang="ts">
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import ActivityList from './ActivityList.svelte';

  /** What happened in a project or in the library. */
  type Props = { title: string; of: { project: string } | { library: true }; onclose: () => void };
  let { title, of, onclose }: Props = $props();
</script>

<Dialog {title} width={720} {onclose}>
  <div class="list"><ActivityList {of} /></div>
  {#snippet actions()}<Button onclick={onclose}>Close</Button>{/snippet}
</Dialog>

<style>
  .list {
    max-height: 60vh;
    overflow: auto;
  }
</style>
