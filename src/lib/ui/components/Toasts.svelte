<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { toasts } from '../state/toasts.svelte';
</script>

<div class="toasts" aria-live="polite">
  {#each toasts.list as toast (toast.id)}
    <div
      class="toast {toast.kind}"
      role={toast.kind === 'problem' ? 'alert' : 'status'}
      onpointerenter={() => toasts.hold(toast.id)}
      onpointerleave={() => toasts.letGo(toast.id)}
      onfocusin={() => toasts.hold(toast.id)}
      onfocusout={() => toasts.letGo(toast.id)}
    >
      <span>{toast.message}</span>
      {#if toast.action}
        {@const { label, run } = toast.action}
        <button
          type="button"
          onclick={() => {
            toasts.dismiss(toast.id);
            run();
          }}>{label}</button
        >
      {/if}
      <button type="button" class="close" aria-label="Dismiss" onclick={() => toasts.dismiss(toast.id)}
        ><X size={14} /></button
      >
    </div>
  {/each}
</div>

<style>
  .toasts {
    position: fixed;
    bottom: 16px;
    left: 50%;
    z-index: 60;
    display: grid;
    gap: 8px;
    transform: translateX(-50%);
  }
  .toast {
    display: flex;
    align-items: center;
    gap: 12px;
    max-width: 560px;
    padding: 8px 8px 8px 14px;
    border-radius: 8px;
    background: var(--ink);
    color: #fff;
    box-shadow: var(--shadow);
  }
  .problem {
    background: var(--amber-tint);
    color: var(--ink);
    outline: 1px solid var(--amber);
  }
  button {
    padding: 2px 6px;
    border: 0;
    border-radius: 4px;
    background: none;
    color: #9fd6cb;
    font-weight: 650;
    cursor: pointer;
  }
  .problem button {
    color: var(--kelp);
  }
  .close {
    display: inline-flex;
    color: inherit;
  }
</style>
