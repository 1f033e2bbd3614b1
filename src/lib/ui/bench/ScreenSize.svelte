<script lang="ts">
  import { toPx } from '$lib/core/num/length';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import type { BenchShow } from './show.svelte';

  /**
   * Makes life size true on this screen: a card of the format ID-1 (ISO/IEC 7810: 85.60 × 53.98 mm) is held to the
   * screen and the outline drawn to its size.
   */
  type Props = { show: BenchShow; onclose: () => void };
  let { show, onclose }: Props = $props();
  // svelte-ignore state_referenced_locally
  let scale = $state(show.screenScale);
  const card = { width: toPx(85.6, 'mm'), height: toPx(53.98, 'mm') };
</script>

<Dialog title="Measure this screen" width={Math.max(460, card.width * scale + 90)} {onclose}>
  <p>
    Hold a bank card or any card of that size to the screen and move the slider until the outline is as large
    as the card. Life size on the bench is then true on this screen.
  </p>
  <div class="field">
    <div class="card" style:width="{card.width * scale}px" style:height="{card.height * scale}px">
      <span class="mono">85.6 × 53.98 mm</span>
    </div>
  </div>
  <label
    >Size of the outline
    <input type="range" min="0.5" max="2.5" step="0.005" bind:value={scale} />
    <span class="mono">{(scale * 100).toFixed(1)} %</span>
  </label>
  {#snippet actions()}
    <Button onclick={() => (scale = 1)}>Back to 100 %</Button>
    <Button
      kind="main"
      onclick={() => {
        show.setScreenScale(scale);
        onclose();
      }}>Use this size</Button
    >
  {/snippet}
</Dialog>

<style>
  .field {
    display: grid;
    place-items: center;
    padding: 16px;
    background: var(--surround);
  }
  .card {
    display: grid;
    place-items: center;
    border: 1.5px solid var(--ink);
    border-radius: 12px;
    background: var(--card);
    color: var(--muted);
  }
  label {
    display: grid;
    grid-template-columns: auto 1fr auto;
    gap: 10px;
    align-items: center;
  }
  input {
    accent-color: var(--kelp);
  }
</style>
