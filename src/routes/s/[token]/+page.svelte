<script lang="ts">
  import SharedView from '$lib/ui/sheets/SharedView.svelte';

  let { data } = $props();
</script>

<svelte:head>
  <title>{data.sheet.shown.line || 'A sheet for you'}</title>
  <meta name="referrer" content="no-referrer" />
</svelte:head>

<SharedView token={data.token} sheet={data.sheet} />
