<script lang="ts">
  import BenchScreen from '$lib/ui/bench/BenchScreen.svelte';

  let { data } = $props();
</script>

<svelte:head><title>{data.pattern.name} · Bench · Isle</title></svelte:head>

{#key data.pattern.id}
  <BenchScreen pattern={data.pattern} palettes={data.palettes} />
{/key}
