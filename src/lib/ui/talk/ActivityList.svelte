<script lang="ts">
  import { onMount } from 'svelte';
  import { done, type Outcome } from '$lib/contract/failure';
  import type { ActivityItem, TakenBack } from '$lib/contract/talk';
  import Button from '../components/Button.svelte';
  import PageSection from '../components/PageSection.svelte';
  import Mark from '../people/Mark.svelte';
  import { whenOf } from '../people/say';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { onLive } from '../state/live';
  import { activityWords } from './activity-words';

  /** What happened in the studio, the latest first. */
  let items: readonly ActivityItem[] = $state.raw([]);
  let ended = $state(false);
  /** The latest are enough at first; a page is what one question brings. */
  const FEW = 10;
  const PAGE = 60;
  let shown = $state(FEW);

  async function load(before: number | null): Promise<void> {
    const found = await call('GET /activity', { query: before === null ? {} : { before } });
    if (!found.ok) return;
    items = before === null ? found.value : [...items, ...found.value];
    ended = found.value.length === 0;
  }
  async function earlier(): Promise<void> {
    if (shown >= items.length) await load(items[items.length - 1]?.id ?? null);
    shown += PAGE;
  }
  /** Takes something back; answers how many parts of it stay, as they were changed since. */
  async function takeBack(way: TakenBack): Promise<Outcome<number>> {
    if (way.do === 'undo-change') {
      const undone = await call('POST /changes/{id}/undone', { id: way.id });
      return undone.ok ? done(undone.value.left) : undone;
    }
    const given = { id: way.id, body: { archived: false } };
    const restored = await {
      pattern: () => call('PUT /patterns/{id}/archived', given),
      layout: () => call('PUT /layouts/{id}/archived', given),
      project: () => call('PUT /projects/{id}/archived', given),
    }[way.kind]();
    return restored.ok ? done(0) : restored;
  }
  async function undo({ undo: way }: ActivityItem): Promise<void> {
    if (!way) return;
    const undone = await takeBack(way);
    if (!undone.ok) toasts.problem(undone.failure.message);
    else
      toasts.show(
        undone.value > 0
          ? `It is taken back, but for ${undone.value} that were changed since.`
          : 'It is taken back.',
      );
    await load(null);
  }
  onMount(() => void load(null));
  onLive(
    ['pattern.', 'bulk.', 'project.', 'approval.', 'comment.', 'person.', 'backup.'],
    () => void load(null),
    1000,
  );
</script>

<PageSection title="What happened">
  <ol class="lines">
    {#each items.slice(0, shown) as item (item.id)}
      <li>
        <Mark name={item.by?.name ?? 'Isle'} colour={item.by?.colour ?? '#5c6664'} size={20} />
        <span class="what">
          <strong>{item.by?.name ?? 'Isle'}</strong>
          {activityWords(item)}
          <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -->
          {#if item.href}<a href={item.href}>{item.what}</a>{:else}{item.what}{/if}
        </span>
        {#if item.undo}
          <Button kind="quiet" label="Undo: {activityWords(item)} {item.what}" onclick={() => undo(item)}
            >Undo</Button
          >
        {/if}
        <time class="muted" datetime={new Date(item.at).toISOString()}>{whenOf(item.at)}</time>
      </li>
    {:else}
      <li class="muted">Nothing yet.</li>
    {/each}
  </ol>
  {#if shown < items.length || (items.length >= PAGE && !ended)}
    <div><Button kind="quiet" onclick={earlier}>Show earlier</Button></div>
  {/if}
</PageSection>

<style>
  .what {
    flex: 1;
  }
</style>
