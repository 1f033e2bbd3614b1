<script lang="ts">
  import type { PersonData } from '$lib/contract/people';
  import type { CommentData } from '$lib/contract/talk';
  import Button from '../components/Button.svelte';
  import Mark from '../people/Mark.svelte';
  import { whenOf } from '../people/say';
  import SayForm from './SayForm.svelte';
  import { WHOLE, type Talk } from './talk.svelte';

  /** A comment with the answers to it. */
  type Props = {
    talk: Talk;
    one: CommentData;
    number: number | null;
    about: string;
    people: readonly PersonData[];
  };
  let { talk, one, number, about, people }: Props = $props();
  let answering = $state(false);
  const names = $derived(new Map(people.map(({ id, name }) => [id, name])));
  /** The words with the names that are meant set apart. */
  function parts({ words, mentions }: CommentData): { text: string; named: boolean }[] {
    const signs = mentions.flatMap((id) => names.get(id) ?? []).map((name) => `@${name}`);
    if (signs.length === 0) return [{ text: words, named: false }];
    const plain = signs.map((sign) => sign.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
    return words.split(new RegExp(`(${plain})`, 'i')).map((text) => ({
      text,
      named: signs.some((sign) => sign.toLowerCase() === text.toLowerCase()),
    }));
  }
</script>

<article class:chosen={talk.chosen === one.id} class:done={one.doneAt !== null}>
  {#each [one, ...talk.answersTo(one.id)] as said (said.id)}
    <div class="said" class:answer={said !== one}>
      <Mark name={said.by.name} colour={said.by.colour} size={22} />
      <div>
        <p>
          <strong>{said.by.name}</strong>
          <span class="muted">{whenOf(said.createdAt)}</span>
          {#if said.unread}<span class="new">new</span>{/if}
        </p>
        {#if said === one && (number !== null || about)}
          <button
            type="button"
            class="about"
            aria-pressed={talk.chosen === one.id}
            onclick={() => (talk.chosen = talk.chosen === one.id ? null : one.id)}
            >{number === null ? '' : `${number} · `}{about}</button
          >
        {/if}
        <p class="words">
          {#each parts(said) as part, index (index)}{#if part.named}<b>{part.text}</b
              >{:else}{part.text}{/if}{/each}
        </p>
      </div>
    </div>
  {/each}
  {#if answering}
    <SayForm
      label="An answer"
      wanted={one.id}
      action="Answer"
      {people}
      say={async (words) => {
        const answered = await talk.say(words, { ...WHOLE, parentId: one.id });
        if (answered.ok) answering = false;
        return answered;
      }}
      oncancel={() => (answering = false)}
    />
  {:else}
    <div class="ways">
      {#if one.doneAt === null}
        <Button kind="quiet" onclick={() => (answering = true)}>Answer</Button>
        <Button kind="quiet" onclick={() => talk.setDone(one, true)}>Done</Button>
      {:else}
        <span class="muted">Done{one.doneBy ? `, ${one.doneBy}` : ''}</span>
        <Button kind="quiet" onclick={() => talk.setDone(one, false)}>Not done</Button>
      {/if}
    </div>
  {/if}
</article>

<style>
  article {
    display: grid;
    gap: 6px;
    padding: 10px 12px;
    border-bottom: 1px solid var(--rule);
  }
  .chosen {
    box-shadow: inset 3px 0 var(--signal);
  }
  .done {
    opacity: 0.75;
  }
  .said {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 8px;
  }
  .answer {
    margin-left: 16px;
  }
  .words {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  b {
    color: var(--kelp);
  }
  .new {
    padding: 0 5px;
    border-radius: 8px;
    background: var(--signal-tint);
    color: var(--signal);
    font-size: var(--small);
    font-weight: 600;
  }
  .about {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-size: var(--small);
    text-align: left;
    cursor: pointer;
  }
  .ways {
    display: flex;
    align-items: center;
    justify-content: flex-end;
    gap: 4px;
  }
</style>
