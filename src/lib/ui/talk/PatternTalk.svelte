<script lang="ts">
  import TalkList from './TalkList.svelte';
  import { Talk } from './talk.svelte';

  /** What is said about a pattern. */
  type Props = { id: string };
  let { id }: Props = $props();
  // svelte-ignore state_referenced_locally
  const talk = new Talk('pattern', id);
  talk.follow();
</script>

<section aria-label="Comments"><TalkList {talk} /></section>

<style>
  section {
    max-width: 620px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
  }
</style>
