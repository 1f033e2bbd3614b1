<script lang="ts">
  import type { Snippet } from 'svelte';
  import { tick } from 'svelte';
  import { closesByBack } from '../state/back';
  import { clearBox, clearest } from '../state/keep-clear';

  /** A button that opens a small panel beside it. It closes on Escape, on a press outside, and through `close`. */
  type Props = {
    label: string;
    title?: string;
    width?: number;
    disabled?: boolean;
    buttonClass?: string;
    /** What it steers lies on a stage: it opens at an edge of the window where it does not cover that, or covers least. */
    aside?: boolean;
    /** Told when it closes, however that came about. */
    onclose?: () => void;
    /** What the button shows; a few words are enough as `text`. */
    button?: Snippet;
    text?: string;
    children: Snippet<[close: () => void]>;
  };
  let {
    label,
    title,
    width = 240,
    disabled = false,
    buttonClass = '',
    aside = false,
    onclose,
    button,
    text = '',
    children,
  }: Props = $props();

  let open = $state(false);
  let place = $state({ left: 0, top: 0, above: false });
  let trigger: HTMLButtonElement | undefined = $state();
  let panel: HTMLDivElement | undefined = $state();

  const kept = clearBox();

  async function toggle(): Promise<void> {
    if (open) return close();
    const box = trigger?.getBoundingClientRect();
    if (!box) return;
    const above = box.bottom > window.innerHeight * 0.6;
    place = {
      left: aside ? 8 : Math.max(8, Math.min(box.left, window.innerWidth - width - 8)),
      top: above ? window.innerHeight - box.top + 6 : box.bottom + 6,
      above,
    };
    open = true;
    if (aside) await stepAside();
  }
  /** Once its height is known: at the left or right edge of the window, beside its button, or at the foot. */
  async function stepAside(): Promise<void> {
    await tick();
    const box = kept();
    if (!box || !panel) return;
    const { top, bottom, height } = panel.getBoundingClientRect();
    const [left, right] = [8, Math.max(8, window.innerWidth - width - 8)];
    const high = Math.max(8, Math.min(top, window.innerHeight - height - 8));
    const places = [
      { left, top, bottom },
      { left: right, top, bottom },
      { left, top: window.innerHeight - height - 8, bottom: window.innerHeight - 8 },
      { left: right, top: window.innerHeight - height - 8, bottom: window.innerHeight - 8 },
    ].map((one) => ({ ...one, right: one.left + width }));
    const best = clearest(places, box);
    if (best)
      place = {
        left: best.left,
        top: best === places[0] || best === places[1] ? high : best.top,
        above: false,
      };
  }
  function close(): void {
    if (!open) return;
    const inside = panel?.contains(document.activeElement);
    open = false;
    onclose?.();
    if (inside) trigger?.focus();
  }
  $effect(() => {
    if (!open) return;
    (panel?.querySelector<HTMLElement>('input, button, [tabindex="0"]') ?? panel)?.focus();
    return closesByBack(close);
  });
</script>

<svelte:window
  onpointerdowncapture={(event) => {
    const target = event.target as Element;
    if (!open || panel?.contains(target) || trigger?.contains(target)) return;
    // What a panel shows elsewhere to be dragged belongs to it.
    if (!target.closest('[data-keeps-open]')) close();
  }}
  onresize={close}
/>
<svelte:document
  onkeydowncapture={(event) => {
    // Where what had the focus is gone, or lies on the stage meanwhile, Escape still belongs to the panel.
    if (!open || event.key !== 'Escape' || !(aside || event.target === document.body)) return;
    if (panel?.contains(event.target as Element)) return;
    event.stopPropagation();
    // A dialog that the panel stands in would close with it.
    event.preventDefault();
    close();
    trigger?.focus();
  }}
/>

<span class="popover">
  <button
    bind:this={trigger}
    type="button"
    class="trigger {buttonClass}"
    aria-haspopup="dialog"
    aria-expanded={open}
    aria-label={label}
    {title}
    {disabled}
    onclick={toggle}
    >{#if button}{@render button()}{:else}<span class="text">{text}</span>{/if}</button
  >
  {#if open}
    <div
      bind:this={panel}
      class="panel"
      role="dialog"
      tabindex="-1"
      aria-label={label}
      style:width="{width}px"
      style:left="{place.left}px"
      style:top={place.above ? undefined : `${place.top}px`}
      style:bottom={place.above ? `${place.top}px` : undefined}
      onkeydown={(event) => {
        if (event.key === 'Escape') {
          close();
          event.stopPropagation();
          event.preventDefault();
        }
      }}
    >
      {@render children(close)}
    </div>
  {/if}
</span>

<style>
  .popover {
    display: inline-flex;
  }
  .trigger {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    padding: 0;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .trigger:disabled {
    cursor: default;
    opacity: 0.6;
  }
  .text {
    color: var(--kelp);
    font-size: var(--small);
    white-space: nowrap;
  }
  .panel {
    position: fixed;
    z-index: 50;
    max-height: min(420px, 60vh);
    overflow: auto;
    padding: 12px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
    font-family: var(--sans);
    font-size: 13px;
    font-weight: 400;
  }
</style>
