<script lang="ts">
  import { page } from '$app/state';
  import type { Me } from '$lib/contract/people';
  import { call } from '../state/api';
  import { onLive } from '../state/live';
  import { mentions } from './mentions.svelte';
  import { toasts } from '../state/toasts.svelte';
  import Button from '../components/Button.svelte';
  import Popover from '../components/Popover.svelte';
  import Mark from './Mark.svelte';

  /** Who is signed in, and the ways to oneself, to the studio and out. */
  const me = $derived((page.data.me ?? null) as Me | null);

  const unread = $derived(mentions.list ?? me?.mentions ?? []);
  const count = $derived(unread.length);
  const named = $derived(
    count === 0
      ? 'You and the studio'
      : `You and the studio, ${count === 1 ? 'named once' : `named ${count} times`}`,
  );
  onLive(['comment.'], () => void mentions.load(), 1500);

  async function signOut(): Promise<void> {
    const left = await call('DELETE /sessions/own');
    if (!left.ok && left.failure.code !== 'signed_out') return toasts.problem(left.failure.message);
    // A whole new page: nothing of what was open stays in this tab.
    location.assign('/sign-in');
  }
</script>

{#if me}
  <span class="me">
    <Popover label={named} title={me.person.name} width={260}>
      {#snippet button()}<Mark name={me.person.name} colour={me.person.colour} />{#if count > 0}<span
            class="count"
            data-count={count}
          ></span>{/if}{/snippet}
      {#snippet children(close)}
        <p class="who">
          <strong>{me.person.name}</strong><br /><span class="muted">{me.person.role} · {me.studio.name}</span
          >
        </p>
        {#if count > 0}
          <ul aria-label="Where you are named">
            {#each unread as one (one.id)}
              <li>
                <!-- eslint-disable-next-line svelte/no-navigation-without-resolve -->
                <a href={one.href} onclick={close}>{one.by}, {one.what}</a>
                <span class="muted">{one.words.slice(0, 80)}</span>
              </li>
            {/each}
          </ul>
        {/if}
        <div class="ways">
          {#if me.studio.opened}
            <Button kind="quiet" href="/me">You and your devices</Button>
            <Button kind="quiet" href="/studio">The studio</Button>
            <Button
              kind="quiet"
              onclick={() => {
                close();
                void signOut();
              }}>Sign out</Button
            >
          {:else}
            <p class="muted">
              You are alone here: Isle is reached from this machine only, without a password. Open the studio
              to ask others in.
            </p>
            <Button kind="quiet" href="/studio">Open the studio …</Button>
          {/if}
        </div>
      {/snippet}
    </Popover>
  </span>
{/if}

<style>
  .me :global(.trigger) {
    padding: 2px;
    border-color: transparent;
    background: none;
  }
  /* Letters to look at: the button's name says it. */
  .count::before {
    content: attr(data-count);
  }
  .count {
    min-width: 16px;
    margin-left: -8px;
    border-radius: 8px;
    background: var(--signal);
    color: #fff;
    font: 700 10px/16px var(--mono);
    text-align: center;
    align-self: flex-start;
  }
  ul {
    display: grid;
    gap: 6px;
    margin: 0 0 8px;
    padding: 0;
    list-style: none;
    white-space: normal;
  }
  li {
    display: grid;
  }
  .who {
    margin-bottom: 8px;
    white-space: normal;
  }
  .ways {
    display: grid;
    justify-items: start;
    gap: 2px;
    white-space: normal;
  }
</style>
