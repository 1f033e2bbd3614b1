<script lang="ts">
  import type { LibraryFacets } from '$lib/contract/data';
  import Button from '../components/Button.svelte';
  import HappenedDialog from '../talk/HappenedDialog.svelte';
  import FirstSteps from './FirstSteps.svelte';
  import { sayPatterns } from './say';

  /** What stands beside the wall while no hanger is chosen: it keeps the place, so that the wall never moves. */
  type Props = { facets: LibraryFacets };
  let { facets }: Props = $props();

  let looking = $state(false);
  const KEYS = [
    ['Press, arrows', 'choose a hanger'],
    ['Shift, Ctrl/Cmd', 'choose several'],
    ['Enter, double press', 'open it'],
    ['F', 'fill the shape worked on last'],
    ['/', 'search'],
  ] as const;
  const { live, stock, unpublished } = $derived(facets.counts);
</script>

<div class="panel">
  {#if !facets.filled}<FirstSteps {facets} />{/if}
  <section>
    <h2>Nothing is chosen</h2>
    <p class="muted">
      {sayPatterns(live)} on the wall{stock > 0 ? `, ${stock} of them stock` : ''}{unpublished > 0
        ? `; ${unpublished} with work that is not published`
        : ''}.
    </p>
    <dl>
      {#each KEYS as [key, what] (key)}<dt class="mono">{key}</dt>
        <dd>{what}</dd>{/each}
    </dl>
    <div class="past"><Button onclick={() => (looking = true)}>What happened …</Button></div>
  </section>
</div>
{#if looking}
  <HappenedDialog
    title="What happened in the library"
    of={{ library: true }}
    onclose={() => (looking = false)}
  />
{/if}

<style>
  .panel {
    display: grid;
    gap: 24px;
  }
  h2 {
    font-size: 16px;
  }
  p {
    margin-top: 6px;
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 6px 12px;
    margin-top: 14px;
    font-size: var(--small);
  }
  .past {
    margin-top: 18px;
  }
  dt {
    color: var(--muted);
  }
  dd {
    margin: 0;
  }
</style>
