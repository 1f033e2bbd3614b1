<script lang="ts">
  import { refresh } from '$lib/ui/state/refresh';
  import SheetScreen from '$lib/ui/sheets/SheetScreen.svelte';

  let { data } = $props();
</script>

<svelte:head><title>{data.sheet.name} · {data.sheet.projectName} · Isle</title></svelte:head>

{#key data.sheet.id}
  <SheetScreen sheet={data.sheet} sources={data.sources} mayChange={data.mayChange} onsources={refresh} />
{/key}
