<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import type { LibraryFacets } from '$lib/contract/data';

  /** The three steps to a first filled shape; they are gone once one is filled. */
  type Props = { facets: LibraryFacets };
  let { facets }: Props = $props();

  const steps = $derived([
    { done: facets.counts.live > 0, text: 'Hang a pattern: make one, or take the stock.' },
    { done: facets.latest.length > 0, text: 'Make a layout: choose a pattern, then “Use …”.' },
    { done: facets.filled, text: 'Draw a shape there and press a hanger.' },
  ]);
</script>

<section aria-label="First steps">
  <h2>To a first filled shape</h2>
  <ol>
    {#each steps as { done, text } (text)}
      <li class:done>
        <span class="mark"
          >{#if done}<Check size={14} /><span class="visually-hidden">Done:</span>{/if}</span
        >{text}
      </li>
    {/each}
  </ol>
</section>

<style>
  ol {
    display: grid;
    gap: 8px;
    margin-top: 10px;
  }
  li {
    display: grid;
    grid-template-columns: 22px 1fr;
    align-items: start;
  }
  .done {
    color: var(--muted);
  }
  .mark {
    display: inline-grid;
    place-items: center;
    width: 16px;
    height: 16px;
    border: 1px solid var(--rule-strong);
    border-radius: 50%;
    color: var(--kelp);
  }
</style>
