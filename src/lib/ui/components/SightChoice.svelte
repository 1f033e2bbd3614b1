<script lang="ts">
  import Eye from '@lucide/svelte/icons/eye';
  import { SIGHTS, type Sight } from '$lib/core/colour/vision';

  /** With whose eyes the artwork is seen: all three kinds of cone, two of them, or as a greyscale print. */
  type Props = {
    value: Sight;
    onset: (value: Sight) => void;
    /** Only the eye is shown, coloured while it sees with other eyes. */
    compact?: boolean;
  };
  let { value, onset, compact = false }: Props = $props();

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
  class:compact
  title="{compact
    ? `${NAMES[value]}. `
    : ''}Seen with other eyes: without long (protan), middle (deutan) or short cones (tritan), or as a greyscale print"
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
  /* The list lies over the eye, so that a press anywhere on it opens it. */
  .compact {
    position: relative;
    justify-content: center;
    width: 28px;
    height: 28px;
    border-radius: 5px;
  }
  .compact:hover {
    background: var(--paper);
  }
  .compact.changed {
    background: var(--kelp-tint);
  }
  .compact:focus-within {
    outline: 2px solid var(--kelp);
  }
  .compact select {
    position: absolute;
    inset: 0;
    width: 100%;
    min-height: 0;
    opacity: 0;
    cursor: pointer;
  }
</style>
