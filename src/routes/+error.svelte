<script lang="ts">
  import { page } from '$app/state';
  import Button from '$lib/ui/components/Button.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
</script>

<svelte:head><title>Not found · Isle</title></svelte:head>
<TopBar />
<main>
  <h1>{page.status === 404 ? 'Not here' : 'Something went wrong'}</h1>
  <p>{page.error?.message}</p>
  <Button href="/library">Go to the library</Button>
</main>

<style>
  main {
    display: grid;
    gap: 16px;
    justify-items: start;
    max-width: 560px;
    margin: 80px auto;
    padding: 0 24px;
  }
</style>
