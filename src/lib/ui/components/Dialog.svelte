<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A modal dialog on the platform's own <dialog>: it keeps the focus inside and closes on Escape. */
  type Props = { title: string; width?: number; onclose: () => void; children: Snippet; actions?: Snippet };
  let { title, width = 440, onclose, children, actions }: Props = $props();

  let element: HTMLDialogElement | undefined = $state();
  $effect(() => {
    element?.showModal();
  });
</script>

<dialog bind:this={element} style:width="{width}px" aria-labelledby="dialog-title" {onclose}>
  <h2 id="dialog-title">{title}</h2>
  <div class="body">{@render children()}</div>
  {#if actions}<div class="actions">{@render actions()}</div>{/if}
</dialog>

<style>
  dialog {
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
