<script lang="ts">
  import Trash from '@lucide/svelte/icons/trash-2';
  import { fromPx, toPx, type LengthUnit } from '$lib/core/num/length';
  import type { Standing } from '$lib/core/mockup/mockup';
  import type { SurfaceGrid } from '$lib/core/mockup/photo';
  import {
    cornersOfGrid,
    GRID_SIDES,
    gridFault,
    isPlane,
    planeAspect,
    regrid,
    rowsOf,
    type Photo,
  } from '$lib/core/mockup/photo';
  import { OBJECTS } from '$lib/core/mockup/objects';
  import Button from '../components/Button.svelte';
  import Field from '../components/Field.svelte';
  import NameField from '../components/NameField.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import { call } from '../state/api';
  import { toasts } from '../state/toasts.svelte';
  import type { MockupSession } from './session.svelte';
  import ShownOn from './ShownOn.svelte';

  /** A surface on a photograph: how large it truly is, its handles, and how the photograph's light lies on it. */
  type Props = {
    session: MockupSession;
    one: Standing;
    photo: Photo;
    grid: SurfaceGrid;
    measure: LengthUnit;
  };
  let { session, one, photo, grid, measure }: Props = $props();

  const [across, down] = OBJECTS.board.numbers;
  const width = $derived(one.object.numbers.width ?? 0);
  const height = $derived(one.object.numbers.height ?? 0);
  const aspect = $derived(isPlane(grid) ? planeAspect(cornersOfGrid(grid), photo) : null);
  const change = (next: Partial<Standing>, live = false): void =>
    session.changeOne(one.id, (held) => ({ ...held, ...next }), live);
  const setSize = (numbers: { width: number; height: number }): void =>
    change({ object: { ...one.object, numbers } });
  const setGrid = (next: Partial<SurfaceGrid>, live = false): void =>
    change({ grid: { ...grid, ...next } }, live);
  const rounded = (mm: number): number => Math.round(mm * 10) / 10;
  function setHandles(columns: number, rows: number): void {
    const next = regrid(grid, columns, rows);
    const wrong = gridFault(next);
    if (wrong) toasts.problem(wrong);
    else change({ grid: next });
  }
  /** A known length of the plane tells the other one, by how its corners are seen. */
  function byAspect(): void {
    if (aspect) setSize({ width, height: rounded(width / aspect) });
  }

  let keeping = $state(false);
  // svelte-ignore state_referenced_locally
  let name = $state(session.doc.name);
  let problem: string | null = $state(null);
  async function keep(): Promise<void> {
    const kept = await call('POST /photo-objects', { body: { name: name.trim(), body: session.body } });
    problem = kept.ok ? null : kept.failure.message;
    if (!kept.ok) return;
    keeping = false;
    toasts.show(`“${name.trim()}” is kept for all projects.`);
  }
</script>

<Panel title={one.name}>
  {#snippet aside()}
    {#if session.body.objects.length > 1}
      <Button
        kind="quiet"
        title="Take this surface away"
        label="Take it away"
        onclick={() => session.remove(one.id)}><Trash size={14} /></Button
      >
    {/if}
  {/snippet}
  <Rows>
    <span>Name</span>
    <span class="name">
      <NameField
        label="The name of the surface"
        value={one.name}
        onset={(next) => {
          change({ name: next });
          return null;
        }}
      />
    </span>
    <span>True width</span>
    <NumberField
      label="True width"
      value={toPx(width, 'mm')}
      kind={{ unit: measure }}
      least={toPx(across?.least ?? 5, 'mm')}
      most={toPx(across?.most ?? 10_000, 'mm')}
      onset={(value) => setSize({ width: rounded(fromPx(value, 'mm')), height })}
    />
    <span>True height</span>
    <NumberField
      label="True height"
      value={toPx(height, 'mm')}
      kind={{ unit: measure }}
      least={toPx(down?.least ?? 5, 'mm')}
      most={toPx(down?.most ?? 10_000, 'mm')}
      onset={(value) => setSize({ width, height: rounded(fromPx(value, 'mm')) })}
    />
  </Rows>
  {#if aspect !== null && Math.abs(width / height / aspect - 1) > 0.01}
    <p class="note">
      By its corners it is {rounded(width / aspect)} mm high.
      <Button kind="quiet" onclick={byAspect}>Take that</Button>
    </p>
  {/if}
  <Rows>
    <span>Handles across · down</span>
    <span class="pair">
      <NumberField
        label="Handles across"
        value={grid.columns}
        kind={{ suffix: '' }}
        digits={0}
        {...GRID_SIDES}
        onset={(value) => setHandles(Math.round(value), rowsOf(grid))}
      />
      ·
      <NumberField
        label="Handles down"
        value={rowsOf(grid)}
        kind={{ suffix: '' }}
        digits={0}
        {...GRID_SIDES}
        onset={(value) => setHandles(grid.columns, Math.round(value))}
      />
    </span>
    <span>Light and shade</span>
    <NumberField
      label="Light and shade of the photograph"
      value={grid.light}
      kind={{ suffix: '%' }}
      digits={0}
      least={0}
      most={1}
      onlive={(light) => setGrid({ light }, true)}
      onset={(light) => setGrid({ light })}
      oncancel={() => session.history.cancel()}
    />
    <span>High lights</span>
    <NumberField
      label="High lights of the photograph"
      value={grid.gloss}
      kind={{ suffix: '%' }}
      digits={0}
      least={0}
      most={1}
      onlive={(gloss) => setGrid({ gloss }, true)}
      onset={(gloss) => setGrid({ gloss })}
      oncancel={() => session.history.cancel()}
    />
  </Rows>
  <p class="note">
    {isPlane(grid) ? 'Four corners are a plane.' : 'A curved grid: its handles lie on the thing.'}
  </p>
</Panel>

<ShownOn {session} {one} />

<Panel title="This photograph">
  {#if keeping}
    <Field label="Keep it for all projects as" bind:value={name} {problem} autofocus />
    <div class="actions">
      <Button onclick={() => (keeping = false)}>Cancel</Button>
      <Button kind="main" disabled={name.trim() === ''} onclick={() => void keep()}>Keep</Button>
    </div>
  {:else}
    <p class="note">Kept with its surfaces, it is at hand in every project.</p>
    <Button onclick={() => (keeping = true)}>Keep it for all projects …</Button>
  {/if}
</Panel>

<style>
  .name {
    display: grid;
    width: 158px;
    justify-items: end;
  }
  .note {
    margin: 8px 0;
    color: var(--muted);
    font-size: var(--small);
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    gap: 8px;
    margin-top: 8px;
  }
</style>
