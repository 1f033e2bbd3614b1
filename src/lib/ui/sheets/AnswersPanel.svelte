<script lang="ts">
  import type { SheetAnswer } from '$lib/contract/data';
  import { sayDate } from '../library/say';
  import Button from '../components/Button.svelte';
  import Panel from '../components/Panel.svelte';
  import type { SheetSession } from './session.svelte';
  import { factsOf, type SheetSources } from './sources';

  /** What clients left, by what they left it about. */
  type Props = { session: SheetSession; sources: SheetSources };
  let { session, sources }: Props = $props();

  const unread = $derived(session.answers.filter(({ readAt }) => readAt === null).length);
  const groups = $derived.by(() => {
    const found = new Map<string, SheetAnswer[]>();
    for (const one of session.answers) found.set(one.item, [...(found.get(one.item) ?? []), one]);
    return [...found].map(([id, answers]) => {
      const item = session.body.items.find((one) => one.id === id);
      const title = !item
        ? 'no longer on the sheet'
        : item.kind === 'note'
          ? 'A note'
          : factsOf(sources, item).title;
      return { id, title, answers };
    });
  });
  const whose = ({ who, to }: SheetAnswer): string => [who, to].filter(Boolean).join(', ') || 'a client';
</script>

<Panel title="What clients left">
  {#snippet aside()}
    {#if unread > 0}
      <Button kind="quiet" onclick={() => void session.read()}>{unread} new, read</Button>
    {/if}
  {/snippet}
  {#each groups as { id, title, answers } (id)}
    <div class="group">
      <button type="button" onclick={() => (session.chosenId = id)}>{title}</button>
      {#each answers as one (one.id)}
        <div class="answer" class:new={one.readAt === null}>
          {#if one.choice}
            <strong class={one.choice}>{one.choice === 'this' ? 'This one' : 'Not this'}</strong>
          {:else}<p>{one.words}</p>{/if}
          <span class="muted">{whose(one)}, {sayDate(one.createdAt)}</span>
        </div>
      {/each}
    </div>
  {:else}
    <p class="muted">
      {session.links.length === 0 ? 'Nobody has a link yet.' : 'Nothing yet.'}
    </p>
  {/each}
</Panel>

<style>
  .group {
    margin-bottom: 10px;
  }
  button {
    padding: 0;
    border: 0;
    background: none;
    font-weight: 650;
    text-align: left;
    cursor: pointer;
  }
  .answer {
    padding: 4px 8px;
    margin-top: 4px;
    border-left: 2px solid var(--rule);
  }
  .new {
    border-color: var(--kelp);
  }
  .answer p {
    white-space: pre-line;
    overflow-wrap: anywhere;
  }
  .answer span {
    font-size: var(--small);
  }
  .this {
    display: block;
    color: var(--kelp);
  }
  .not {
    display: block;
    color: var(--signal);
  }
</style>
