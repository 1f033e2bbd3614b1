<script lang="ts">
  import '@fontsource-variable/schibsted-grotesk/index.css';
  import '@fontsource-variable/spline-sans-mono/index.css';
  import '$lib/ui/theme.css';
  import '$lib/ui/handles.css';
  import SightFilters from '$lib/ui/components/SightFilters.svelte';
  import Toasts from '$lib/ui/components/Toasts.svelte';

  let { children } = $props();
</script>

{@render children()}
<SightFilters />
<Toasts />
