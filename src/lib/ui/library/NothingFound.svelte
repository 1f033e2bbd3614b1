<script lang="ts">
  import { may } from '../state/may';
  import Button from '../components/Button.svelte';
  import { isNarrowed, type LibraryView } from './query';

  /** What the library says where it has nothing to show, and what to do then. */
  type Props = { view: LibraryView; onall: () => void };
  let { view, onall }: Props = $props();
</script>

<div class="empty">
  {#if view.search !== '' || isNarrowed(view)}
    <h2>{view.search === '' ? 'No pattern is like that' : `Nothing matches “${view.search}”`}</h2>
    <p>
      The search looks in names, descriptions, tags, collections, credits and the names of palette colours,
      also inside words and with one wrong letter. Try fewer words, or take a filter off.
    </p>
    <Button onclick={onall}>Show all patterns</Button>
  {:else if view.show === 'archived'}
    <h2>The archive is empty</h2>
    <p>Patterns that you archive are kept here and can be restored.</p>
    <Button href="/library">Back to all patterns</Button>
  {:else if view.show === 'drafts'}
    <h2>No work in progress</h2>
    <p>A pattern that is changed on the bench and not yet published shows up here.</p>
    <Button href="/library">Back to all patterns</Button>
  {:else}
    <h2>No patterns yet</h2>
    <p>Everything here is in the archive or not begun.</p>
    {#if may('contributor')}<Button kind="main" href="/library/new">New pattern</Button>{/if}
  {/if}
</div>

<style>
  .empty {
    display: grid;
    gap: 10px;
    justify-items: start;
    max-width: 460px;
    margin: 60px auto;
    padding: 24px;
    border-radius: 8px;
    background: #fbfbfa;
  }
</style>
