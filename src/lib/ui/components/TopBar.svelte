<script lang="ts">
  import type { Snippet } from 'svelte';
  import { page } from '$app/state';

  /** The bar over every view: the mark, the three places, where one is, and the view's actions. */
  type Props = { trail?: Snippet; actions?: Snippet };
  let { trail, actions }: Props = $props();

  const PLACES = [
    { href: '/library', label: 'Library' },
    { href: '/projects', label: 'Projects' },
    { href: '/palettes', label: 'Palettes' },
  ];
</script>

<header>
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
