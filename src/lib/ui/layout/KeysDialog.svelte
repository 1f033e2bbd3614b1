<script lang="ts">
  import Dialog from '../components/Dialog.svelte';

  /** All keys of a view. */
  type Props = { keys: readonly (readonly [keys: string, what: string])[]; onclose: () => void };
  let { keys, onclose }: Props = $props();
</script>

<Dialog title="Keys" width={480} {onclose}>
  <dl>
    {#each keys as [key, what] (key)}
      <dt class="mono">{key}</dt>
      <dd>{what}</dd>
    {/each}
  </dl>
</Dialog>

<style>
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 5px 18px;
    margin: 0;
  }
  dd {
    margin: 0;
  }
</style>
