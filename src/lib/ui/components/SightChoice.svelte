<script lang="ts">
  import Eye from '@lucide/svelte/icons/eye';
  import { SIGHTS, type Sight } from '$lib/core/colour/vision';

  /** With whose eyes the artwork is seen: all three kinds of cone, two of them, or as a greyscale print. */
  type Props = { value: Sight; onset: (value: Sight) => void };
  let { value, onset }: Props = $props();

  const NAMES: Record<Sight, string> = {
    full: 'Full sight',
    protan: 'Protan sight',
    deutan: 'Deutan sight',
    tritan: 'Tritan sight',
    grey: 'Grey print',
  };
</script>

<label
  class:changed={value !== 'full'}
  title="Seen with other eyes: without long (protan), middle (deutan) or short cones (tritan), or as a greyscale print"
>
  <Eye size={15} />
  <span class="visually-hidden">Seen by</span>
  <select
    {value}
    onchange={(event) => onset(SIGHTS.find((one) => one === event.currentTarget.value) ?? 'full')}
  >
    {#each SIGHTS as sight (sight)}<option value={sight}>{NAMES[sight]}</option>{/each}
  </select>
</label>

<style>
  label {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    color: var(--muted);
  }
  .changed {
    color: var(--kelp);
  }
  select {
    max-width: 112px;
    font-size: 12.5px;
  }
</style>
