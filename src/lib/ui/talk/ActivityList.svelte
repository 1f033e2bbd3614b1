<script lang="ts">
  import { onMount } from 'svelte';
  import { ACTIVITY_KINDS, type ActivityItem } from '$lib/contract/talk';
  import Button from '../components/Button.svelte';
  import Mark from '../people/Mark.svelte';
  import { whenOf } from '../people/say';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import { onLive } from '../state/live';
  import { refresh } from '../state/refresh';
  import { activityWords } from './activity-words';

  /** What happened in the studio, in one project or in the library, the latest first, with what is taken back from here. */
  type Props = { of?: { project: string } | { library: true } | undefined };
  let { of = undefined }: Props = $props();

  let items: readonly ActivityItem[] = $state.raw([]);
  let ended = $state(false);
  /** The latest are enough at first; a page is what one question brings. */
  const FEW = 10;
  const PAGE = 60;
  let shown = $state(FEW);

  async function load(before: number | null): Promise<void> {
    const found = await call('GET /activity', { query: { ...of, ...(before === null ? {} : { before }) } });
    if (!found.ok) return;
    const oldest = found.value[found.value.length - 1]?.id ?? Infinity;
    // What was loaded of earlier times stays below the latest.
    items =
      before === null
        ? [...found.value, ...items.filter(({ id }) => id < oldest)]
        : [...items, ...found.value];
    ended = found.value.length === 0;
  }
  async function earlier(): Promise<void> {
    if (shown >= items.length) await load(items[items.length - 1]?.id ?? null);
    shown += PAGE;
  }
  async function undo({ id }: ActivityItem): Promise<void> {
    const undone = await call('POST /activity/{id}/undone', { id: String(id) });
    if (!undone.ok) toasts.problem(undone.failure.message);
    else {
      const { left } = undone.value;
      items = items.map((item) => (item.id === id ? { ...item, undo: false } : item));
      toasts.show(
        left > 0 ? `It is taken back, but for ${left} that were changed since.` : 'It is taken back.',
      );
      await refresh();
    }
    await load(null);
  }
  onMount(() => void load(null));
  onLive(ACTIVITY_KINDS, () => void load(null), 1000);
</script>

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

<style>
  .what {
    flex: 1;
  }
</style>
