<script lang="ts">
  import type { Layout } from '$lib/core/recipe/layout';
  import type { PatternLookup } from '$lib/core/scene/pattern';
  import { lowerLayout } from '$lib/core/draw/lower';
  import { FRESH_CAMERA, freshStanding, LOOKS } from '$lib/core/mockup/mockup';
  import { OBJECTS, type ObjectSpec } from '$lib/core/mockup/objects';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import { saveFile } from '../state/save-file';
  import type { PageThere } from './draw-sheet';
  import SceneView from './SceneView.svelte';
  import { blobOf, STILL_SIDES } from './still';

  /** A layout on the object that its page is cut for: turned by a drag, by keys and by numbers. */
  type Props = { object: ObjectSpec; name: string; layout: Layout; lookup: PatternLookup; busy: boolean };
  let { object, name, layout, lookup, busy }: Props = $props();

  let camera = $state.raw(FRESH_CAMERA);
  let fault: string | null = $state(null);
  let view: SceneView | undefined = $state();
  const objects = $derived([{ ...freshStanding('own', object.kind), object }]);
  let pages: ReadonlyMap<string, PageThere> = $state.raw(new Map());
  // What is being dragged is drawn once it is let go of.
  $effect(() => {
    if (!busy) pages = new Map([['own', { scene: lowerLayout(layout, lookup), at: { x: 0, y: 0 } }]]);
  });

  let side = $state(2048);
  let saving = $state(false);
  /** Saves what is seen as a square picture on a clear ground, its sheet drawn as finely as that shows. */
  async function savePicture(): Promise<void> {
    if (!view) return;
    saving = true;
    try {
      const made = await view.still({ width: side, height: side }, { ground: null });
      saveFile(await blobOf(made, 'image/png'), `${name} on the ${OBJECTS[object.kind].noun}.png`);
      fault = null;
    } catch {
      fault = 'The picture could not be made; try a smaller one.';
    } finally {
      saving = false;
    }
  }
</script>

<div class="view">
  <SceneView
    bind:this={view}
    {objects}
    {pages}
    {camera}
    light="even"
    ground={null}
    label="The layout on the {OBJECTS[object.kind].noun}"
    oncamera={(next) => (camera = next)}
  />
  {#if fault}<p class="fault" role="alert">{fault}</p>{/if}
  <div class="bar">
    <span class="views">
      {#each LOOKS as { name: called, turn, raised } (called)}
        <Button
          kind="quiet"
          pressed={turn === camera.turn && raised === camera.raised}
          onclick={() => (camera = { ...FRESH_CAMERA, turn, raised })}>{called}</Button
        >
      {/each}
    </span>
    <span class="numbers muted">
      turned
      <NumberField
        label="Turned by"
        value={camera.turn}
        kind={{ suffix: '°' }}
        digits={0}
        least={-360}
        most={360}
        onset={(turn) => (camera = { ...camera, turn })}
      />
      tilted
      <NumberField
        label="Seen from above by"
        value={camera.raised}
        kind={{ suffix: '°' }}
        digits={0}
        least={-30}
        most={90}
        onset={(raised) => (camera = { ...camera, raised })}
      />
    </span>
    <span class="numbers muted">
      <Button disabled={saving || pages.size === 0} onclick={savePicture}
        >{saving ? 'Making it …' : 'Save a picture'}</Button
      >
      of
      <NumberField
        label="Side of the picture"
        value={side}
        kind={{ suffix: 'px' }}
        digits={0}
        {...STILL_SIDES}
        onset={(value) => (side = Math.round(value))}
      />
    </span>
  </div>
</div>

<style>
  .view {
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto auto;
    min-height: 0;
    height: 100%;
  }
  .fault {
    padding: 4px 10px;
    color: var(--signal);
    font-size: var(--small);
  }
  .bar {
    grid-row: 3;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    padding: 6px 8px;
    background: var(--card);
  }
  .numbers {
    display: flex;
    gap: 6px;
    align-items: baseline;
    font-size: var(--small);
  }
</style>
