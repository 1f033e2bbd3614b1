<script lang="ts">
  import LayoutScreen from '$lib/ui/layout/LayoutScreen.svelte';

  let { data } = $props();
</script>

<svelte:head><title>{data.layout.name} · {data.layout.projectName} · Isle</title></svelte:head>

{#key data.layout.id}
  <LayoutScreen
    layout={data.layout}
    mayChange={data.mayChange}
    patterns={data.patterns}
    pages={data.pages}
    layouts={data.layouts}
    hangers={data.hangers}
    palettes={data.palettes}
    shape={data.shape}
    proof={data.proof}
    press={data.press}
    proofing={data.proofing}
  />
{/key}
