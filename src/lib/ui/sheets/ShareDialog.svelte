<script lang="ts">
  import { SHEET_LIMITS } from '$lib/core/sheet/client-sheet';
  import { sayDate } from '../library/say';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import Field from '../components/Field.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { toasts } from '../state/toasts.svelte';
  import type { SheetSession } from './session.svelte';
  import type { SheetSources } from './sources';

  /** Shows a sheet to clients: makes its pictures, makes links that end, and ends them. */
  type Props = { session: SheetSession; sources: SheetSources; onclose: () => void };
  let { session, sources, onclose }: Props = $props();

  let to = $state('');
  let days = $state(14);
  let share: number | null = $state(null);
  let problem: string | null = $state(null);

  async function show(): Promise<boolean> {
    [share, problem] = [0, null];
    problem = await session.show(sources, (now) => (share = now));
    share = null;
    return problem === null;
  }
  async function make(): Promise<void> {
    if (!(await show())) return;
    const made = await session.link(to.trim(), Math.round(days));
    if (!made.ok) problem = made.failure.message;
    else {
      to = '';
      await copy(made.value.token);
    }
  }
  const addressOf = (token: string): string => `${location.origin}/s/${token}`;
  async function copy(token: string): Promise<void> {
    try {
      await navigator.clipboard.writeText(addressOf(token));
      toasts.show('The link is copied.');
    } catch {
      // Where the clipboard is closed to pages, the link stands there to be selected.
    }
  }
</script>

<Dialog title="Show to a client" width={540} {onclose}>
  <p class="muted">
    Whoever has a link sees this sheet and nothing else of the studio, without signing in, and can leave a
    choice and words about each thing. It shows the sheet as it is when you make the link or show it anew.
  </p>
  <div class="new">
    <Field label="For whom, in your own words" bind:value={to} />
    <label class="days"
      ><span>Ends after, days</span>
      <NumberField
        label="Days until the link ends"
        value={days}
        kind={{ suffix: '' }}
        digits={0}
        {...SHEET_LIMITS.days}
        onset={(value) => (days = Math.round(value))}
      /></label
    >
    <Button kind="main" disabled={share !== null} onclick={() => void make()}>Make a link</Button>
  </div>
  {#if share !== null}
    <progress value={share} aria-label="How far the pictures are"></progress>
    <p class="muted">Its pictures are being made.</p>
  {/if}
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if session.links.length > 0}
    <h3>Links</h3>
    <ul>
      {#each session.links as { token, to: whom, endsAt, endedAt } (token)}
        {@const over = endedAt ?? (endsAt < Date.now() ? endsAt : null)}
        <li class:over={over !== null}>
          <strong>{whom === '' ? 'A link' : whom}</strong>
          <span class="muted">{over === null ? `until ${sayDate(endsAt)}` : `ended ${sayDate(over)}`}</span>
          {#if over === null}
            <Button kind="quiet" onclick={() => void copy(token)}>Copy</Button>
            <Button kind="quiet" href="/s/{token}">See it</Button>
            <Button kind="quiet" onclick={() => void session.endLink(token)}>End it</Button>
            <code>{addressOf(token)}</code>
          {/if}
        </li>
      {/each}
    </ul>
  {/if}
  {#snippet actions()}
    {#if session.shownAt !== null}
      <Button disabled={share !== null} onclick={() => void show()}>Show it as it is now</Button>
    {/if}
    <Button onclick={onclose}>Close</Button>
  {/snippet}
</Dialog>

<style>
  .new {
    display: grid;
    grid-template-columns: 1fr auto auto;
    gap: 12px;
    align-items: end;
    margin: 12px 0;
  }
  .days {
    display: grid;
    gap: 6px;
    padding-bottom: 4px;
  }
  .days span {
    color: var(--muted);
    font-size: var(--small);
  }
  progress {
    width: 100%;
    accent-color: var(--kelp);
  }
  .problem {
    color: var(--signal);
  }
  h3 {
    margin: 14px 0 4px;
    font-size: 13px;
  }
  ul {
    max-height: 260px;
    padding: 0;
    margin: 0;
    overflow: auto;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto auto auto auto;
    gap: 0 8px;
    align-items: baseline;
    padding: 6px 0;
    border-top: 1px solid var(--rule);
  }
  .over {
    color: var(--muted);
  }
  code {
    grid-column: 1 / -1;
    overflow: hidden;
    color: var(--muted);
    font: 500 11px var(--mono);
    text-overflow: ellipsis;
    user-select: all;
  }
</style>
