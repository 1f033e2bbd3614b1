<script lang="ts">
  /** Stands where it would be told how saving goes, for whoever only looks. */
  type Props = { what: string };
  let { what }: Props = $props();
</script>

<span class="muted" title="Your role does not change this {what}">You look on</span>
