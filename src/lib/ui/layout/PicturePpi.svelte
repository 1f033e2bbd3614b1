<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import NumberField from '../components/NumberField.svelte';

  /** How fine the pictures of a file are at most. */
  type Props = { ppi: number; onset: (ppi: number) => void };
  let { ppi, onset }: Props = $props();
</script>

<div class="row">
  <span class="label">Pictures</span>
  <NumberField
    label="Resolution of pictures"
    value={ppi}
    kind={{ suffix: '' }}
    {...LIMITS.ppi}
    digits={1}
    {onset}
  />
  <span class="muted">ppi at most</span>
</div>

<style>
  .row {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .label {
    width: 80px;
    color: var(--muted);
    font-size: var(--small);
  }
</style>
