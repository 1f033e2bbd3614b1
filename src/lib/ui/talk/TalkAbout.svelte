<script lang="ts">
  import type { CommentKind } from '$lib/contract/talk';
  import TalkList from './TalkList.svelte';
  import { Talk } from './talk.svelte';

  /** What is said about something that has no places to point at. */
  type Props = { kind: CommentKind; id: string };
  let { kind, id }: Props = $props();
  // svelte-ignore state_referenced_locally
  const talk = new Talk(kind, id);
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
