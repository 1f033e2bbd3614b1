<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Plus from '@lucide/svelte/icons/plus';
  import Ruler from '@lucide/svelte/icons/ruler';
  import Button from '$lib/ui/components/Button.svelte';
  import LayOn from '$lib/ui/components/LayOn.svelte';
  import Switch from '$lib/ui/components/Switch.svelte';
  import TopBar from '$lib/ui/components/TopBar.svelte';
  import { isSurface, surfaceBackground } from '$lib/ui/components/surfaces';
  import Hanger from '$lib/ui/library/Hanger.svelte';

  let { data } = $props();

  const STRIP = { width: 240, height: 192 };
  const SCALES = [0.25, 0.5, 1] as const;

  const surface = $derived.by(() => {
    const asked = page.url.searchParams.get('on');
    return isSurface(asked) ? asked : 'mid';
  });
  const scale = $derived.by(() => {
    const asked = Number(page.url.searchParams.get('scale'));
    return SCALES.find((known) => known === asked) ?? 0.5;
  });
  const kept = ['on', 'scale', 'show', 'search'];

  /** Puts a choice into the address, so that a reload or a sent link shows the same wall. */
  function choose(name: string, value: string, normal: string): void {
    const entries = kept.map(
      (key) => [key, key === name ? value : (page.url.searchParams.get(key) ?? '')] as const,
    );
    const query = entries.filter(([key, held]) => held !== '' && !(key === name && held === normal));
    const text = query.map(([key, held]) => `${key}=${encodeURIComponent(held)}`).join('&');
    void goto(text ? `?${text}` : '/library', { replaceState: true, keepFocus: true, noScroll: true });
  }
</script>

<svelte:head><title>Library · Isle</title></svelte:head>

<div class="view">
  <TopBar>
    {#snippet actions()}
      <Button href="/library/new?start=measured"><Ruler size={16} />Measured</Button>
      <Button kind="main" href="/library/new"><Plus size={16} />New pattern</Button>
    {/snippet}
  </TopBar>
  <div class="tools">
    <input
      type="search"
      placeholder="Find by name or description"
      aria-label="Find a pattern"
      value={data.search}
      oninput={(event) => choose('search', event.currentTarget.value, '')}
    />
    <Switch
      label="Show"
      value={data.show}
      options={[
        { value: 'all', label: data.show === 'all' && data.search === '' ? `All ${data.count}` : 'All' },
        { value: 'drafts', label: 'With a draft' },
        { value: 'archived', label: 'Archive' },
      ]}
      onset={(value) => choose('show', value, 'all')}
    />
    <span class="space"></span>
    <Switch
      label="Common scale"
      value={String(scale)}
      options={SCALES.map((value) => ({
        value: String(value),
        label: `${value * 100} %`,
        title: 'Scale of all strips',
      }))}
      onset={(value) => choose('scale', value, '0.5')}
    />
    <LayOn value={surface} onset={(value) => choose('on', value, 'mid')} />
  </div>
  <main class="wall" class:dark={surface === 'dark'}>
    <h1 class="visually-hidden">Library</h1>
    {#if data.patterns.length > 0}
      <div class="grid">
        {#each data.patterns as pattern (pattern.id)}
          <Hanger {pattern} {...STRIP} {scale} {surface} />
        {/each}
      </div>
    {:else}
      <div class="empty" style:background={surfaceBackground('light')}>
        {#if data.search !== ''}
          <h2>Nothing matches “{data.search}”</h2>
          <p>The search looks for words in names and descriptions. Try the beginning of a word.</p>
          <Button onclick={() => choose('search', '', '')}>Clear the search</Button>
        {:else if data.show === 'archived'}
          <h2>The archive is empty</h2>
          <p>Patterns that you archive are kept here and can be restored.</p>
          <Button href="/library">Back to all patterns</Button>
        {:else if data.show === 'drafts'}
          <h2>No work in progress</h2>
          <p>A pattern that is changed on the bench and not yet published shows up here.</p>
          <Button href="/library">Back to all patterns</Button>
        {:else}
          <h2>No patterns yet</h2>
          <p>
            Make the first one from a simple shape or an SVG file; it hangs here as soon as it is published.
          </p>
          <Button kind="main" href="/library/new">New pattern</Button>
        {/if}
      </div>
    {/if}
  </main>
</div>

<style>
  .view {
    display: flex;
    flex-direction: column;
    height: 100vh;
  }
  .tools {
    display: flex;
    align-items: center;
    gap: 16px;
    flex-wrap: wrap;
    padding: 10px 16px;
    border-bottom: 1px solid var(--rule);
    background: var(--paper);
  }
  .space {
    flex: 1;
  }
  input[type='search'] {
    width: 250px;
    padding: 6px 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
  .wall {
    flex: 1;
    overflow: auto;
    padding: 20px 16px 32px;
    background: var(--surround);
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
    gap: 26px 16px;
  }
  .empty {
    display: grid;
    gap: 10px;
    justify-items: start;
    max-width: 460px;
    margin: 60px auto;
    padding: 24px;
    border-radius: 8px;
  }
</style>
