<script lang="ts">
  import { call } from '$lib/ui/state/api';
  import { refresh } from '$lib/ui/state/refresh';
  import { toasts } from '$lib/ui/state/toasts.svelte';
  import BenchScreen from '$lib/ui/bench/BenchScreen.svelte';
  import PictureScreen from '$lib/ui/picture/PictureScreen.svelte';
  import Button from '$lib/ui/components/Button.svelte';
  import Fault from '$lib/ui/components/Fault.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';

  let { data } = $props();
  const pattern = $derived(data.pattern);
  /** What would be on the bench and cannot be read. */
  const fault = $derived(pattern.faults.draft ?? (pattern.hasDraft ? null : pattern.faults.recipe));

  async function dropDraft(): Promise<void> {
    const dropped = await call('DELETE /patterns/{id}/draft', {
      id: pattern.id,
      body: { base: pattern.version },
    });
    if (!dropped.ok) return toasts.problem(dropped.failure.message);
    await refresh();
  }
</script>

<svelte:head><title>{data.pattern.name} · Bench · Isle</title></svelte:head>

{#if fault}
  <TopBar>
    {#snippet trail()}<a href="/library/{pattern.id}" dir="auto">{pattern.name}</a>{/snippet}
  </TopBar>
  <main>
    <Fault title="“{pattern.name}” cannot be opened on the bench" message={fault}>
      {#if pattern.faults.draft && pattern.newest > 0}
        <Button onclick={dropDraft}>Forget the unfinished work</Button>
      {/if}
      <Button href="/library/{pattern.id}?tab=revisions">See its revisions</Button>
    </Fault>
  </main>
{:else}
  {#key pattern.id}
    {@const recipe = pattern.draft ?? pattern.recipe}
    {#if recipe?.kind === 'pictured'}<PictureScreen {pattern} fresh={recipe} palettes={data.palettes} />
    {:else}<BenchScreen {pattern} palettes={data.palettes} />{/if}
  {/key}
{/if}

<style>
  main {
    display: grid;
    min-height: 60vh;
  }
</style>
