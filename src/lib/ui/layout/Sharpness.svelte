<script lang="ts">
  import type { LengthUnit } from '$lib/core/num/length';
  import type { PlacedFill } from '$lib/core/recipe/fill';
  import { placedPpi, sharpnessOf } from '$lib/core/recipe/sharpness';

  /** How many pixels a picture has to an inch at its present size; for print, too few are marked. */
  type Props = {
    fill: PlacedFill;
    unit: LengthUnit;
    /** The scale that the picture has in its pattern already. */
    own?: number;
  };
  let { fill, unit, own = 1 }: Props = $props();

  const ppi = $derived(placedPpi(fill, own));
  const sharp = $derived(unit === 'px' ? 'full' : sharpnessOf(ppi));
  const note = $derived(
    sharp === 'coarse' ? ', coarse in print' : sharp === 'fair' ? ', under 300 for print' : '',
  );
</script>

<div class="cell">
  <span>Sharpness</span>
  <span class="ppi" class:coarse={sharp === 'coarse'}>{Number(ppi.toFixed(1))} ppi{note}</span>
</div>

<style>
  .ppi {
    font: 500 13px var(--mono);
    white-space: nowrap;
  }
  .coarse {
    color: var(--amber);
  }
</style>
