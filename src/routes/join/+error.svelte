<script lang="ts">
  import { page } from '$app/state';
  import Threshold from '$lib/ui/people/Threshold.svelte';
</script>

<svelte:head><title>No way in · Isle</title></svelte:head>
<Threshold title={page.status === 404 ? 'No way in by this link' : 'Something went wrong'}>
  <p>{page.error?.message}</p>
</Threshold>
