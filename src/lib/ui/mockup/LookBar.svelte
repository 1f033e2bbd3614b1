<script lang="ts">
  import { nanoid } from 'nanoid';
  import X from '@lucide/svelte/icons/x';
  import { FRESH_CAMERA, LOOKS, MOCKUP_LIMITS, type Camera, type KeptView } from '$lib/core/mockup/mockup';
  import { freeName } from '$lib/core/recipe/edit';
  import Button from '../components/Button.svelte';
  import NameField from '../components/NameField.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';

  /** Where one looks from: by names, by numbers, and views that are kept. */
  type Props = {
    camera: Camera;
    views: readonly KeptView[];
    /** No more views can be kept. */
    full: boolean;
    onlook: (camera: Camera) => void;
    onviews: (views: KeptView[]) => void;
  };
  let { camera, views, full, onlook, onviews }: Props = $props();

  const keep = (): void =>
    onviews([
      ...views,
      {
        id: nanoid(12),
        name: freeName(
          'View',
          views.map(({ name }) => name),
        ),
        camera,
      },
    ]);
  const rename = (id: string, name: string): null => {
    onviews(views.map((view) => (view.id === id ? { ...view, name } : view)));
    return null;
  };
</script>

<div class="looks">
  {#each LOOKS as { name, turn, raised, key } (name)}
    <Button
      kind="quiet"
      title="{name} ({key})"
      pressed={turn === camera.turn && raised === camera.raised}
      onclick={() => onlook({ ...FRESH_CAMERA, turn, raised })}>{name}</Button
    >
  {/each}
  <span class="numbers">
    <NumberField
      label="Turned by"
      value={camera.turn}
      kind={{ suffix: '°' }}
      digits={0}
      {...MOCKUP_LIMITS.turn}
      onset={(turn) => onlook({ ...camera, turn })}
    />
    <NumberField
      label="Seen from above by"
      value={camera.raised}
      kind={{ suffix: '°' }}
      digits={0}
      {...MOCKUP_LIMITS.raised}
      onset={(raised) => onlook({ ...camera, raised })}
    />
    <NumberField
      label="How close"
      value={camera.zoom}
      kind={{ suffix: '%' }}
      digits={0}
      {...MOCKUP_LIMITS.zoom}
      onset={(zoom) => onlook({ ...camera, zoom })}
    />
  </span>
  <Popover label="Kept views" width={240} text="Views">
    {#snippet children(close)}
      <div class="views">
        {#each views as view (view.id)}
          <span class="view">
            <NameField
              label="The name of the view"
              value={view.name}
              onset={(name) => rename(view.id, name)}
            />
            <Button
              kind="quiet"
              onclick={() => {
                onlook(view.camera);
                close();
              }}>Look</Button
            >
            <Button
              kind="quiet"
              label="Forget {view.name}"
              onclick={() => onviews(views.filter(({ id }) => id !== view.id))}><X size={14} /></Button
            >
          </span>
        {:else}
          <p class="muted">A view that is kept brings you back to where you look from now.</p>
        {/each}
        <Button disabled={full} onclick={keep}>Keep this view</Button>
      </div>
    {/snippet}
  </Popover>
</div>

<style>
  .looks {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 2px;
    padding: 4px 8px;
  }
  .numbers {
    display: inline-flex;
    gap: 8px;
    padding: 0 8px;
  }
  .views {
    display: grid;
    gap: 6px;
  }
  .view {
    display: grid;
    grid-template-columns: 1fr auto auto;
    align-items: baseline;
  }
</style>
