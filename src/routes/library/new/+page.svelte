<script lang="ts">
  import BenchScreen from '$lib/ui/bench/BenchScreen.svelte';

  let { data } = $props();
</script>

<svelte:head><title>New pattern · Isle</title></svelte:head>

<BenchScreen pattern={null} palettes={data.palettes} />
