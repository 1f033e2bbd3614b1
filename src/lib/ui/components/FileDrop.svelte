<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A whole view that takes files dropped anywhere on it. */
  type Props = { onfiles: (files: File[]) => void; children: Snippet };
  let { onfiles, children }: Props = $props();
</script>

<div
  class="view"
  role="presentation"
  ondragover={(event) => event.dataTransfer?.types.includes('Files') && event.preventDefault()}
  ondrop={(event) => {
    if (!event.dataTransfer?.files.length) return;
    event.preventDefault();
    onfiles([...event.dataTransfer.files]);
  }}
>
  {@render children()}
</div>

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
  }
</style>
