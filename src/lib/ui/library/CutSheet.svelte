<script lang="ts">
  import { formatPath } from '$lib/core/geom/path';
  import { freshStanding, FRESH_CAMERA } from '$lib/core/mockup/mockup';
  import { cutSheet, OBJECTS, type ObjectSpec } from '$lib/core/mockup/objects';
  import type { Sheet } from '$lib/core/mockup/sheet';
  import SceneView from '../mockup/SceneView.svelte';

  /** An object as it stands, and the sheet that is cut for it, each as large as it fits. */
  let { object }: { object: ObjectSpec } = $props();

  const NONE = new Map<string, never>();
  let camera = $state.raw(FRESH_CAMERA);
  const sheet: Sheet = $derived.by(() => {
    const cut = cutSheet(object);
    return cut.ok ? cut.sheet : { width: 1, height: 1, panels: [], blanks: [] };
  });
  function box(x: number, y: number, width: number, height: number): string {
    const margin = Math.max(width, height) * 0.02;
    return [x - margin, y - margin, width + 2 * margin, height + 2 * margin]
      .map((one) => one.toFixed(3))
      .join(' ');
  }
  const mm = (length: number): string => Number(length.toFixed(1)).toString();
</script>

<div class="both">
  <div class="object">
    <SceneView
      objects={[{ ...freshStanding('own', object.kind), object }]}
      pages={NONE}
      {camera}
      light="even"
      ground={null}
      label="{OBJECTS[object.kind].label}, as it stands"
      oncamera={(next) => (camera = next)}
    />
  </div>
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
  .object {
    height: 130px;
  }
  svg {
    display: block;
    width: 100%;
    height: 130px;
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
