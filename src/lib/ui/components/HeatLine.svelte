<script lang="ts">
  import type { SeamPlace } from '$lib/core/picture/seam';

  /** A join from end to end: pale where it is not seen, amber, and signal where it is plain. */
  type Props = { line: readonly SeamPlace[]; edge: string };
  let { line, edge }: Props = $props();

  function heat(figure: number): string {
    const share = Math.min(1, Math.max(0, (figure - 1) / 2));
    return share < 0.5
      ? `color-mix(in srgb, #e6b84a ${share * 200}%, var(--kelp-tint))`
      : `color-mix(in srgb, var(--signal) ${(share - 0.5) * 200}%, #e6b84a)`;
  }
</script>

<div
  role="img"
  aria-label="Along the join {edge}, from where it is not seen to where it is plain"
  style:background="linear-gradient(90deg, {line
    .map(({ at, figure }) => `${heat(figure)} ${at * 100}%`)
    .join(', ')})"
></div>

<style>
  div {
    height: 8px;
    border-radius: 4px;
  }
</style>
