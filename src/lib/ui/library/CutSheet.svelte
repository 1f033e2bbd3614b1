<script lang="ts">
  import { formatPath } from '$lib/core/geom/path';
  import { seenFrom } from '$lib/core/mockup/seen';
  import type { Sheet } from '$lib/core/mockup/sheet';

  /** An object as it stands, and the sheet that is cut for it, each as large as it fits. */
  let { sheet, label }: { sheet: Sheet; label: string } = $props();

  const cells = $derived(seenFrom(sheet, { turn: 32, raised: 22 }));
  const frame = $derived.by(() => {
    const points = cells.flatMap(({ corners }) => corners);
    const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
    const [left, top] = [Math.min(...xs), Math.min(...ys)];
    return box(left, top, Math.max(...xs) - left, Math.max(...ys) - top);
  });
  function box(x: number, y: number, width: number, height: number): string {
    const margin = Math.max(width, height) * 0.02;
    return [x - margin, y - margin, width + 2 * margin, height + 2 * margin]
      .map((one) => one.toFixed(3))
      .join(' ');
  }
  /** From the shade of kelp to nearly white. */
  const shade = (light: number, inside: boolean): string =>
    `color-mix(in srgb, var(--kelp-tint) ${Math.round(30 + 70 * light)}%, ${inside ? 'var(--kelp)' : '#7aa39b'})`;
  const mm = (length: number): string => Number(length.toFixed(1)).toString();
</script>

<div class="both">
  <svg viewBox={frame} role="img" aria-label="{label}, as it stands">
    {#each cells as { corners, light, inside }, index (index)}
      <polygon
        points={corners.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(' ')}
        fill={shade(light, inside)}
        stroke={shade(light, inside)}
      />
    {/each}
  </svg>
  <figure>
    <svg viewBox={box(0, 0, sheet.width, sheet.height)} role="img" aria-label="What is cut for it">
      {#each sheet.panels as { name, outline, at } (name)}
        <path d={formatPath(outline)} class:inner={at === null}><title>{name}</title></path>
      {/each}
    </svg>
    <figcaption class="muted">
      Cut sheet, <span class="mono">{mm(sheet.width)} × {mm(sheet.height)} mm</span>
    </figcaption>
  </figure>
</div>

<style>
  .both {
    display: grid;
    grid-template-columns: 140px 1fr;
    gap: 16px;
    align-items: center;
    padding: 10px;
    border: 1px solid var(--rule);
    border-radius: var(--radius);
    background: var(--mist, #f4f4f1);
  }
  svg {
    display: block;
    width: 100%;
    height: 130px;
  }
  polygon {
    stroke-width: 0.75px;
    vector-effect: non-scaling-stroke;
    stroke-linejoin: round;
  }
  path {
    fill: var(--kelp-tint);
    stroke: var(--kelp);
    stroke-width: 1.25px;
    vector-effect: non-scaling-stroke;
  }
  .inner {
    fill: none;
    stroke: var(--rule-strong);
  }
  figure {
    margin: 0;
  }
  figcaption {
    margin-top: 4px;
    font-size: var(--small);
    text-align: center;
  }
</style>
