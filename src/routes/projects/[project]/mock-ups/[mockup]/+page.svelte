<script lang="ts">
  import MockupScreen from '$lib/ui/mockup/MockupScreen.svelte';

  let { data } = $props();
</script>

<svelte:head><title>{data.mockup.name} · {data.mockup.projectName} · Isle</title></svelte:head>

{#key data.mockup.id}
  <MockupScreen
    mockup={data.mockup}
    used={data.used}
    layouts={data.layouts}
    hangers={data.hangers}
    palettes={data.palettes}
    mayChange={data.mayChange}
    measure={data.measure === 'px' ? 'mm' : data.measure}
  />
{/key}
