<script lang="ts">
  import { beforeNavigate } from '$app/navigation';
  import '@fontsource-variable/schibsted-grotesk/index.css';
  import '@fontsource-variable/spline-sans-mono/index.css';
  import '$lib/ui/theme.css';
  import '$lib/ui/handles.css';
  import SightFilters from '$lib/ui/components/SightFilters.svelte';
  import Toasts from '$lib/ui/components/Toasts.svelte';
  import { closeTopmost } from '$lib/ui/state/back';
  import { letGoOfPictures } from '$lib/ui/state/leaving';

  let { children } = $props();

  beforeNavigate(({ type, cancel }) => {
    if (type === 'popstate' && closeTopmost()) cancel();
  });
</script>

<svelte:window onbeforeunload={letGoOfPictures} />
{@render children()}
<SightFilters />
<Toasts />
