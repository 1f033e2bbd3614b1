<script lang="ts">
  import AlignBottom from '@lucide/svelte/icons/align-end-horizontal';
  import AlignCentre from '@lucide/svelte/icons/align-center-vertical';
  import AlignLeft from '@lucide/svelte/icons/align-start-vertical';
  import AlignMiddle from '@lucide/svelte/icons/align-center-horizontal';
  import AlignRight from '@lucide/svelte/icons/align-end-vertical';
  import AlignTop from '@lucide/svelte/icons/align-start-horizontal';
  import FlipAcross from '@lucide/svelte/icons/flip-horizontal-2';
  import FlipDown from '@lucide/svelte/icons/flip-vertical-2';
  import SpreadAcross from '@lucide/svelte/icons/align-horizontal-distribute-center';
  import SpreadDown from '@lucide/svelte/icons/align-vertical-distribute-center';
  import type { Alignment } from '$lib/core/recipe/align';

  /** Line up, spread, mirror: what can be done to things chosen together. */
  type Props = { count: number; onalign: (how: Alignment) => void; onmirror: (across: boolean) => void };
  let { count, onalign, onmirror }: Props = $props();

  const WAYS: { how: Alignment; label: string; icon: typeof AlignLeft; least: number }[] = [
    { how: 'left', label: 'Line up left edges', icon: AlignLeft, least: 1 },
    { how: 'centre', label: 'Line up middles across', icon: AlignCentre, least: 1 },
    { how: 'right', label: 'Line up right edges', icon: AlignRight, least: 1 },
    { how: 'top', label: 'Line up upper edges', icon: AlignTop, least: 1 },
    { how: 'middle', label: 'Line up middles down', icon: AlignMiddle, least: 1 },
    { how: 'bottom', label: 'Line up lower edges', icon: AlignBottom, least: 1 },
    { how: 'spread-across', label: 'Even spaces across', icon: SpreadAcross, least: 3 },
    { how: 'spread-down', label: 'Even spaces down', icon: SpreadDown, least: 3 },
  ];
</script>

<div class="row" role="toolbar" aria-label="Line up and mirror">
  {#each WAYS as { how, label, icon: Icon, least } (how)}
    <button
      type="button"
      title={label}
      aria-label={label}
      disabled={count < least}
      onclick={() => onalign(how)}><Icon size={15} /></button
    >
  {/each}
  <button
    type="button"
    title="Mirror across"
    aria-label="Mirror across"
    disabled={count < 1}
    onclick={() => onmirror(true)}><FlipAcross size={15} /></button
  >
  <button
    type="button"
    title="Mirror down"
    aria-label="Mirror down"
    disabled={count < 1}
    onclick={() => onmirror(false)}><FlipDown size={15} /></button
  >
</div>

<style>
  .row {
    display: flex;
    justify-content: space-between;
    margin: 8px 0 4px;
  }
  button {
    display: grid;
    place-items: center;
    width: 21px;
    height: 24px;
    padding: 0;
    border: 0;
    border-radius: 4px;
    background: none;
    color: var(--ink);
    cursor: pointer;
  }
  button:hover:not(:disabled) {
    background: var(--kelp-tint);
  }
  button:disabled {
    color: var(--rule-strong);
    cursor: default;
  }
</style>
