<script lang="ts">
  import { onMount } from 'svelte';
  import type { PersonData } from '$lib/contract/people';
  import type { CommentData } from '$lib/contract/talk';
  import Tick from '../components/Tick.svelte';
  import { call } from '../state/api';
  import SayForm from './SayForm.svelte';
  import Thread from './Thread.svelte';
  import { WHOLE, type Talk } from './talk.svelte';

  /** What is said about something, with a place to say more. */
  type Props = {
    talk: Talk;
    /** What a comment is about, in words; "" for the whole. */
    aboutOf?: (one: CommentData) => string;
    /** Whether comments have numbers, as on a stage. */
    numbered?: boolean;
    label?: string;
  };
  let {
    talk,
    aboutOf = () => '',
    numbered = false,
    label = 'Say something; @ names somebody',
  }: Props = $props();

  let people: PersonData[] = $state.raw([]);
  onMount(() => {
    talk.open = true;
    void call('GET /people').then((found) => found.ok && (people = found.value));
    return () => (talk.open = false);
  });
  // What is marked as new stays marked while one looks at it.
  $effect(() => {
    if (talk.unread > 0) void talk.read();
  });
  const finished = $derived(
    talk.comments.filter(({ parentId, doneAt }) => parentId === null && doneAt !== null).length,
  );
</script>

<div class="list">
  {#each talk.pins as { one, number } (one.id)}
    <Thread
      {talk}
      {one}
      {people}
      number={numbered && (one.shapeId !== null || one.x !== null) ? number : null}
      about={aboutOf(one)}
    />
  {:else}
    <p class="muted none">Nothing is said here yet.</p>
  {/each}
</div>
<div class="foot">
  {#if finished > 0}
    <Tick
      label="Show {finished} that {finished === 1 ? 'is' : 'are'} done"
      checked={talk.all}
      onset={(all) => (talk.all = all)}
    />
  {/if}
  <SayForm
    {label}
    wanted={talk.spot === WHOLE ? null : talk.spot}
    action="Say it"
    {people}
    say={(words) => talk.say(words, { ...WHOLE, ...talk.spot })}
  />
</div>

<style>
  .list {
    min-height: 0;
    overflow: auto;
  }
  .none {
    padding: 12px;
  }
  .foot {
    display: grid;
    gap: 8px;
    padding: 10px 12px;
    margin-top: auto;
    border-top: 1px solid var(--rule);
  }
</style>
