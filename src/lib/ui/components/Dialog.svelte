<script lang="ts">
  import type { Snippet } from 'svelte';
  import { closesByBack } from '../state/back';

  /**
   * A modal dialog on the platform's own <dialog>: it keeps the focus inside and closes on Escape and by Back. Enter does
   * what its main button says; the first focus is what one came to do: what is to be written, or else the main button.
   */
  type Props = {
    title: string;
    width?: number;
    /** One of its buttons must be pressed: neither Escape nor Back closes it. */
    must?: boolean;
    onclose: () => void;
    children: Snippet;
    actions?: Snippet;
  };
  let { title, width = 440, must = false, onclose, children, actions }: Props = $props();

  let element: HTMLDialogElement | undefined = $state();
  $effect(() => {
    element?.showModal();
    const first = element?.querySelector<HTMLInputElement | HTMLTextAreaElement>(WRITTEN);
    if (first) first.select();
    else main()?.focus();
    return closesByBack(() => !must && element?.close());
  });

  const WRITTEN = '.body :is(input[type="text"], input[type="search"], textarea):not(:disabled)';
  // It stands at the foot, or where the dialog offers several ways.
  const main = (): HTMLElement | null =>
    element?.querySelector<HTMLElement>('.actions .main') ??
    element?.querySelector<HTMLElement>('.body .main') ??
    null;

  function onkeydown(event: KeyboardEvent): void {
    const target = event.target as Element;
    // Browsers close a dialog at a second Escape, whatever its cancelling says.
    if (must && event.key === 'Escape') event.preventDefault();
    if (event.key !== 'Enter' || event.defaultPrevented || event.isComposing) return;
    // A panel within the dialog, lines of text and plain buttons have an Enter of their own; choices have none.
    if (target.closest('[role="dialog"]')) return;
    if (target.matches('textarea') && !event.ctrlKey && !event.metaKey) return;
    const button = target.closest('button, a, summary');
    if (button && !button.matches('[role="radio"], [aria-pressed], [aria-checked]')) return;
    event.preventDefault();
    main()?.click();
  }
</script>

<dialog
  bind:this={element}
  style:width="{width}px"
  aria-labelledby="dialog-title"
  oncancel={(event) => must && event.preventDefault()}
  {onclose}
  {onkeydown}
>
  <h2 id="dialog-title">{title}</h2>
  <div class="body">{@render children()}</div>
  {#if actions}<div class="actions">{@render actions()}</div>{/if}
</dialog>

<style>
  dialog {
    /* Whatever it stands in says how its own words wrap. */
    white-space: normal;
    max-width: calc(100vw - 32px);
    max-height: calc(100vh - 64px);
    padding: 20px 24px;
    border: 0;
    border-radius: 10px;
    background: var(--card);
    color: var(--ink);
    box-shadow: var(--shadow);
  }
  dialog::backdrop {
    background: rgb(20 33 31 / 35%);
  }
  h2 {
    font-size: 18px;
    line-height: 1.3;
  }
  .body {
    display: grid;
    gap: 12px;
    margin-top: 12px;
  }
  .actions {
    display: flex;
    align-items: flex-end;
    justify-content: flex-end;
    gap: 8px;
    margin-top: 20px;
  }
</style>
