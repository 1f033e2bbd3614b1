<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Nothing is shown here</title></svelte:head>
<main>
  <h1>{page.status === 404 ? 'Nothing is shown here' : 'Something went wrong'}</h1>
  <p>{page.error?.message}</p>
</main>

<style>
  main {
    display: grid;
    gap: 14px;
    max-width: 560px;
    padding: 0 24px;
    margin: 100px auto;
  }
</style>
