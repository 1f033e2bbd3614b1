<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { PicturedRecipe } from '$lib/core/recipe/recipe';
  import { freshFrom } from '$lib/ui/picture/address';
  import BenchScreen from '$lib/ui/bench/BenchScreen.svelte';
  import PictureScreen from '$lib/ui/picture/PictureScreen.svelte';
  import PictureStart from '$lib/ui/picture/PictureStart.svelte';

  let { data } = $props();
  /**
   * A new pattern takes its own address once it is saved, without another page. Who comes back to that by the browser is
   * shown this page again, under the address of a pattern that is there: then that one is opened.
   */
  const there =
    typeof location !== 'undefined' && location.pathname !== page.url.pathname ? location.pathname : null;
  onMount(() => void (there && goto(there, { replaceState: true })));
  /** `?start=measured` begins with a pattern from numbers, with the numbers used last. */
  const start = page.url.searchParams.get('start');
  /** `?start=picture` begins with a picture, of which a repeat is made. */
  let pictured: PicturedRecipe | null = $state.raw(
    start === 'picture' ? freshFrom(page.url.searchParams) : null,
  );
</script>

<svelte:head><title>New pattern · Isle</title></svelte:head>

{#if there}
  <p class="visually-hidden" role="status">Opening the pattern …</p>
{:else if start === 'picture'}
  {#if pictured}<PictureScreen pattern={null} fresh={pictured} palettes={data.palettes} />
  {:else}
    <PictureStart pattern={page.url.searchParams.get('of')} onpicture={(fresh) => (pictured = fresh)} />
  {/if}
{:else}
  <BenchScreen pattern={null} palettes={data.palettes} measured={start === 'measured'} />
{/if}
