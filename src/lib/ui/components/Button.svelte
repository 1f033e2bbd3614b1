<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A button, or a link that looks like one where `href` is given. `main` is the one main action of a view. */
  type Props = {
    kind?: 'main' | 'plain' | 'quiet';
    href?: string;
    title?: string;
    label?: string;
    disabled?: boolean;
    pressed?: boolean;
    type?: 'button' | 'submit';
    /** The form that a submit button outside of it sends. */
    form?: string;
    onclick?: (event: MouseEvent) => void;
    children: Snippet;
  };
  let {
    kind = 'plain',
    href,
    title,
    label,
    disabled = false,
    pressed,
    type = 'button',
    form,
    onclick,
    children,
  }: Props = $props();
</script>

{#if href}
  <a class="button {kind}" {href} {title} aria-label={label}>{@render children()}</a>
{:else}
  <button
    class="button {kind}"
    {type}
    {form}
    {title}
    {disabled}
    {onclick}
    aria-label={label}
    aria-pressed={pressed}
  >
    {@render children()}
  </button>
{/if}

<style>
  .button {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 30px;
    padding: 4px 12px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--card);
    color: var(--ink);
    font-weight: 600;
    text-decoration: none;
    white-space: nowrap;
    cursor: pointer;
  }
  .button:hover:not(:disabled) {
    border-color: var(--rule-strong);
  }
  .main {
    border-color: var(--kelp);
    background: var(--kelp);
    color: #fff;
  }
  .main:hover:not(:disabled) {
    background: var(--kelp-dark);
  }
  .quiet {
    min-height: 24px;
    padding: 2px 6px;
    border-color: transparent;
    background: none;
    color: var(--kelp);
  }
  .button[aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
  }
  .button:disabled {
    color: var(--muted);
    background: var(--paper);
    border-color: var(--rule);
    cursor: default;
  }
  .quiet:disabled {
    border-color: transparent;
    background: none;
  }
</style>
