<script lang="ts">
  import { onMount } from 'svelte';
  import { beforeNavigate } from '$app/navigation';
  import '@fontsource-variable/schibsted-grotesk/index.css';
  import '@fontsource-variable/spline-sans-mono/index.css';
  import '$lib/ui/theme.css';
  import '$lib/ui/handles.css';
  import SightFilters from '$lib/ui/components/SightFilters.svelte';
  import Toasts from '$lib/ui/components/Toasts.svelte';
  import { closeTopmost } from '$lib/ui/state/back';
  import { letGoOfPictures } from '$lib/ui/state/leaving';
  import { toasts } from '$lib/ui/state/toasts.svelte';

  let { children } = $props();

  onMount(() => {
    toasts.recall();
    // From here on a press does what it says: scripts and tests wait for it.
    document.documentElement.dataset.alive = '';
  });
  beforeNavigate(({ type, cancel }) => {
    if (type === 'popstate' && closeTopmost()) cancel();
  });
</script>

<svelte:window onbeforeunload={letGoOfPictures} />
{@render children()}
<SightFilters />
<Toasts />
