<script lang="ts">
  import { page } from '$app/state';
  import BenchScreen from '$lib/ui/bench/BenchScreen.svelte';

  let { data } = $props();
  /** `?start=measured` begins with a pattern from numbers, with the numbers used last. */
  const measured = page.url.searchParams.get('start') === 'measured';
</script>

<svelte:head><title>New pattern · Isle</title></svelte:head>

<BenchScreen pattern={null} palettes={data.palettes} {measured} />
