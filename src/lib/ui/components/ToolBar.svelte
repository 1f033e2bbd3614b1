<script lang="ts">
  import type { Snippet } from 'svelte';
  import { oneStop } from '../state/one-stop';

  /** A floating row of small tools over a stage; its buttons are plain <button>s. */
  type Props = { label: string; place?: 'right' | 'left' | 'whole' | 'foot'; children: Snippet };
  let { label, place = 'right', children }: Props = $props();
</script>

<div class="tools {place}" role="toolbar" aria-label={label} {@attach oneStop}>{@render children()}</div>

<style>
  .tools {
    position: absolute;
    top: 10px;
    display: flex;
    align-items: center;
    gap: 2px;
    padding: 3px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: 0 1px 4px rgb(20 33 31 / 18%);
  }
  .right {
    right: 10px;
  }
  .foot {
    top: auto;
    right: 10px;
    bottom: 8px;
  }
  .left,
  .whole {
    left: 10px;
    flex-wrap: wrap;
    max-width: calc(100% - 20px);
  }
  /* The view's own tools stand at the right. */
  .left {
    max-width: calc(100% - 264px);
  }
  .tools > :global(button),
  .tools > :global(.popover > .trigger) {
    display: inline-flex;
    align-items: center;
    justify-content: center;
    min-width: 28px;
    height: 28px;
    padding: 0 6px;
    border: 0;
    border-radius: 5px;
    background: none;
    cursor: pointer;
  }
  .tools > :global(button:hover:not(:disabled)),
  .tools > :global(.popover > .trigger:hover:not(:disabled)) {
    background: var(--paper);
  }
  .tools > :global(button[aria-pressed='true']),
  .tools > :global(.popover > .trigger[aria-pressed='true']) {
    background: var(--kelp-tint);
    color: var(--kelp);
  }
  .tools > :global(button:disabled),
  .tools > :global(.popover > .trigger:disabled) {
    color: var(--rule-strong);
    cursor: default;
  }
</style>
