<script lang="ts" module>
  import type { Sight } from '$lib/core/colour/vision';

  /** The CSS filter that shows artwork with other eyes; it needs the filters of this component on the page. */
  export const sightFilter = (sight: Sight): string | undefined =>
    sight === 'full' ? undefined : `url(#sight-${sight})`;
</script>

<script lang="ts">
  import { filterValues, SIGHT_MATRICES } from '$lib/core/colour/vision';

  /** Filters on linear sRGB for {@link sightFilter}, once a page. */
</script>

<svg width="0" height="0" aria-hidden="true">
  {#each Object.entries(SIGHT_MATRICES) as [sight, matrix] (sight)}
    <filter id="sight-{sight}" color-interpolation-filters="linearRGB" x="0" y="0" width="100%" height="100%">
      <feColorMatrix type="matrix" values={filterValues(matrix)} />
    </filter>
  {/each}
</svg>

<style>
  svg {
    position: absolute;
  }
</style>
