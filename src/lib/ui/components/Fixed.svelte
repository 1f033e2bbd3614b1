<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Fields and buttons that whoever only looks can read and not use. */
  type Props = { fixed: boolean; children: Snippet };
  let { fixed, children }: Props = $props();
</script>

<fieldset role="presentation" disabled={fixed}>{@render children()}</fieldset>

<style>
  fieldset {
    display: contents;
  }
</style>
