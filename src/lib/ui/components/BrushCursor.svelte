<script lang="ts">
  import type { Point } from '$lib/core/geom/point';

  /** A brush as it will cover, within a drawing: its rim, and dashed what it covers wholly. */
  type Props = { at: Point; radius: number; softness: number };
  let { at, radius, softness }: Props = $props();
</script>

<circle class="halo" cx={at.x} cy={at.y} r={radius} />
<circle class="rim" cx={at.x} cy={at.y} r={radius} />
<circle class="core" cx={at.x} cy={at.y} r={radius * (1 - softness)} />

<style>
  circle {
    fill: none;
    pointer-events: none;
  }
  .halo {
    stroke: rgb(255 255 255 / 85%);
    stroke-width: 3px;
  }
  .rim,
  .core {
    stroke: var(--kelp);
    stroke-width: 1.25px;
  }
  .core {
    stroke-dasharray: 3 3;
  }
</style>
