<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';
  import PersonMenu from '../people/PersonMenu.svelte';
  import SaidBefore from './SaidBefore.svelte';

  /** The bar over every view: the mark, the three places, where one is, and the view's actions. */
  type Props = {
    trail?: Snippet;
    actions?: Snippet;
    /** What the first press of Tab offers to go to at once: its name, and where it is. */
    skip?: { label: string; to: string };
  };
  let { trail, actions, skip }: Props = $props();

  const PLACES = [
    { href: '/library', label: 'Library' },
    { href: '/projects', label: 'Projects' },
    { href: '/palettes', label: 'Palettes' },
  ];
</script>

<header>
  {#if skip}
    <button type="button" class="skip" onclick={() => document.querySelector<HTMLElement>(skip.to)?.focus()}
      >{skip.label}</button
    >
  {/if}
  <a class="brand" href="/library" aria-label="Isle, library">
    <svg viewBox="0 0 28 24" width="28" height="24" aria-hidden="true">
      <path d="M2 15a12 12 0 0 1 24 0z" fill="var(--kelp)" />
      <path
        d="M2 19c3 0 3 3 6 3s3-3 6-3 3 3 6 3 3-3 6-3"
        fill="none"
        stroke="var(--signal)"
        stroke-width="2.4"
        stroke-linecap="round"
      />
    </svg>
    <span>Isle</span>
  </a>
  <nav aria-label="Places">
    {#each PLACES as place (place.href)}
      <a href={place.href} aria-current={page.url.pathname.startsWith(place.href) ? 'page' : undefined}
        >{place.label}</a
      >
    {/each}
  </nav>
  <div class="trail">{@render trail?.()}</div>
  <div class="actions">{@render actions?.()}</div>
  <SaidBefore />
  <PersonMenu />
</header>

<style>
  header {
    display: flex;
    align-items: center;
    gap: 16px;
    height: var(--bar);
    flex: none;
    padding: 0 14px;
    border-bottom: 1px solid var(--rule);
    background: var(--card);
  }
  .skip {
    position: absolute;
    top: 8px;
    left: 8px;
    z-index: 70;
    padding: 6px 12px;
    border: 2px solid var(--kelp);
    border-radius: var(--radius);
    background: var(--card);
  }
  .skip:not(:focus) {
    width: 1px;
    height: 1px;
    padding: 0;
    border: 0;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .brand {
    display: inline-flex;
    align-items: center;
    gap: 8px;
    color: var(--ink);
    font-size: 20px;
    font-weight: 750;
    letter-spacing: -0.02em;
    text-decoration: none;
  }
  nav {
    display: flex;
    gap: 2px;
  }
  nav a {
    padding: 5px 10px;
    border-radius: var(--radius);
    color: var(--muted);
    text-decoration: none;
  }
  nav a:hover {
    color: var(--ink);
  }
  nav [aria-current] {
    background: var(--kelp-tint);
    color: var(--kelp);
    font-weight: 650;
  }
  .trail {
    display: flex;
    align-items: center;
    gap: 8px;
    min-width: 0;
    flex: 1;
    color: var(--muted);
    white-space: nowrap;
    overflow: hidden;
  }
  .actions {
    display: flex;
    align-items: center;
    gap: 10px;
  }
  @media (max-width: 1100px) {
    header {
      gap: 8px;
    }
    .brand span {
      display: none;
    }
    nav a {
      padding: 5px 8px;
    }
  }
  @media (max-width: 900px) {
    header {
      gap: 8px;
      padding: 0 8px;
    }
    .brand span {
      display: none;
    }
    nav {
      gap: 0;
    }
    nav a {
      padding: 5px 6px;
    }
    .actions {
      flex: none;
      gap: 5px;
    }
    .actions :global(.button) {
      padding-inline: 7px;
    }
  }
</style>
