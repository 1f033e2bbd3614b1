<script lang="ts">
  import type { Base } from './bases';

  /** The bases that fills on a stage draw with, inside the <defs> of an SVG. */
  type Props = { bases: readonly Base[] };
  let { bases }: Props = $props();
</script>

{#each bases as base (base.id)}
  {#if base.kind === 'live'}
    <pattern id={base.id} width={base.width} height={base.height} patternUnits="userSpaceOnUse">
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
      {@html base.markup}
    </pattern>
  {:else}
    <g id={base.id}>
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- as above -->
      {@html base.markup}
    </g>
  {/if}
{/each}
