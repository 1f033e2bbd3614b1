<script lang="ts">
  /** The name above a value of the fill bar. Where the value was changed, pressing it sets it back. */
  type Props = { name: string; plain: string; changed: boolean; onreset: () => void };
  let { name, plain, changed, onreset }: Props = $props();
</script>

{#if changed}
  <button
    type="button"
    class="title"
    title="Set back to {plain}"
    aria-label="Set the {name.toLowerCase()} back to {plain}"
    onclick={onreset}>{name}</button
  >
{:else}
  <span>{name}</span>
{/if}

<style>
  span {
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
  .title {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-size: var(--small);
    white-space: nowrap;
    cursor: pointer;
  }
  .title:hover {
    text-decoration: underline;
  }
</style>
