<script lang="ts">
  import { zipSync } from 'fflate';
  import type { Hex } from '$lib/core/colour/parse';
  import { animatedWebp } from '$lib/core/formats/webp-frames';
  import type { Size } from '$lib/core/lattice/size';
  import type { Camera } from '$lib/core/mockup/mockup';
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Switch from '../components/Switch.svelte';
  import Tick from '../components/Tick.svelte';
  import { saveFile } from '../state/save-file';
  import { blobOf, PictureTooLarge, STILL_SIDES } from './still';

  type Drawer = {
    still: (
      size: Size,
      of: { ground: Hex | null; camera?: Camera; rounds?: number; told?: (share: number) => void },
    ) => Promise<HTMLCanvasElement>;
  };

  /** Saves a mock-up as a picture of any size, or as pictures all the way round. */
  type Props = {
    view: Drawer;
    name: string;
    camera: Camera;
    ground: Hex | null;
    /** The photograph that it is on: the picture has its form. */
    photo?: Size | null;
    onclose: () => void;
  };
  let { view, name, camera, ground, photo = null, onclose }: Props = $props();

  const ROUND_COUNT = 24;
  const FRAME_MS = 90;
  let what: 'still' | 'round' = $state('still');
  let type: 'image/png' | 'image/webp' = $state('image/png');
  let round: 'zip' | 'webp' = $state('webp');
  let width = $state(2400);
  // svelte-ignore state_referenced_locally
  let height = $state(photo ? Math.round((2400 * photo.height) / photo.width) : 1800);
  // svelte-ignore state_referenced_locally
  let clear = $state(ground === null);
  let working = $state(false);
  let share = $state(0);
  let problem: string | null = $state(null);
  let stopped = false;

  class Stopped extends Error {}
  const told = (part: number): void => {
    share = part;
    if (stopped) throw new Stopped();
  };

  /** A photograph keeps its form. */
  function setWidth(value: number): void {
    width = value;
    if (photo) height = Math.max(STILL_SIDES.least, Math.round((value * photo.height) / photo.width));
  }
  function setHeight(value: number): void {
    height = value;
    if (photo) width = Math.max(STILL_SIDES.least, Math.round((value * photo.width) / photo.height));
  }

  async function start(): Promise<void> {
    [working, problem, share, stopped] = [true, null, 0, false];
    try {
      if (what === 'still') await saveStill();
      else await saveRound();
    } catch (error) {
      if (error instanceof Stopped) return;
      problem =
        error instanceof PictureTooLarge
          ? error.message
          : `A picture of ${width} × ${height} px could not be made here; try a smaller one.`;
    } finally {
      working = false;
    }
  }
  async function saveStill(): Promise<void> {
    const made = await view.still({ width, height }, { ground: clear ? null : ground, told });
    saveFile(await blobOf(made, type), `${name}.${type === 'image/png' ? 'png' : 'webp'}`);
    onclose();
  }
  async function saveRound(): Promise<void> {
    const frames: Uint8Array[] = [];
    for (let at = 0; at < ROUND_COUNT; at += 1) {
      const turn = wrapDegrees(camera.turn + (360 * at) / ROUND_COUNT);
      const made = await view.still(
        { width, height },
        {
          ground: clear ? null : ground,
          camera: { ...camera, turn },
          rounds: 8,
          told: (part) => told((at + part) / ROUND_COUNT),
        },
      );
      const blob = await blobOf(made, round === 'webp' ? 'image/webp' : type);
      frames.push(new Uint8Array(await blob.arrayBuffer()));
    }
    if (round === 'webp') {
      const bytes = animatedWebp(frames, { width, height, ms: FRAME_MS });
      saveFile(new Blob([bytes], { type: 'image/webp' }), `${name}, all round.webp`);
    } else {
      const ending = type === 'image/png' ? 'png' : 'webp';
      const files = Object.fromEntries(
        frames.map((bytes, at) => [
          `${name} ${String(at * (360 / ROUND_COUNT)).padStart(3, '0')}.${ending}`,
          bytes,
        ]),
      );
      const zipped = new Uint8Array(zipSync(files, { level: 0 }));
      saveFile(new Blob([zipped], { type: 'application/zip' }), `${name}, all round.zip`);
    }
    onclose();
  }
  function close(): void {
    stopped = true;
    onclose();
  }
</script>

<Dialog title="Picture of {name}" width={440} onclose={close}>
  <div class="rows">
    {#if !photo}<Switch
        label="What is saved"
        value={what}
        options={[
          { value: 'still', label: 'As it is seen' },
          { value: 'round', label: `All round, ${ROUND_COUNT} pictures` },
        ]}
        onset={(value) => {
          what = value;
          if (value === 'round') [width, height] = [960, 720];
        }}
      />{/if}
    {#if what === 'round'}
      <Switch
        label="All round as"
        value={round}
        options={[
          { value: 'webp', label: 'one moving WebP' },
          { value: 'zip', label: 'a zip of pictures' },
        ]}
        onset={(value) => (round = value)}
      />
    {/if}
    {#if what === 'still' || round === 'zip'}
      <Switch
        label="File format"
        value={type}
        options={[
          { value: 'image/png', label: 'PNG' },
          { value: 'image/webp', label: 'WebP' },
        ]}
        onset={(value) => (type = value)}
      />
    {/if}
    <div class="row">
      <span>Size</span>
      <NumberField
        label="Width of the picture"
        value={width}
        kind={{ suffix: '' }}
        digits={0}
        {...STILL_SIDES}
        onset={(value) => setWidth(Math.round(value))}
      />
      ×
      <NumberField
        label="Height of the picture"
        value={height}
        kind={{ suffix: '' }}
        digits={0}
        {...STILL_SIDES}
        onset={(value) => setHeight(Math.round(value))}
      />
      <span class="muted">px</span>
      {#each what === 'still' ? [1200, 2400, 4096, 8192] : [480, 960, 1600] as usual (usual)}
        <Button
          kind="quiet"
          pressed={Math.max(width, height) === usual}
          onclick={() => {
            const by = usual / Math.max(width, height);
            [width, height] = [width, height].map((side) =>
              Math.max(STILL_SIDES.least, Math.round(side * by)),
            ) as [number, number];
          }}>{usual}</Button
        >
      {/each}
    </div>
    {#if ground !== null}
      <Tick
        label="Clear ground: only the objects and their shadows"
        checked={clear}
        onset={(on) => (clear = on)}
      />
    {/if}
    {#if working}
      <progress value={share} aria-label="How far the picture is"></progress>
    {/if}
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  </div>
  {#snippet actions()}
    <Button onclick={close}>{working ? 'Stop' : 'Close'}</Button>
    <Button kind="main" disabled={working} onclick={() => void start()}
      >{working ? `${Math.round(share * 100)} %` : 'Save'}</Button
    >
  {/snippet}
</Dialog>

<style>
  .rows {
    display: grid;
    gap: 12px;
    justify-items: start;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 6px;
  }
  .row > span:first-child {
    color: var(--muted);
  }
  progress {
    width: 100%;
    accent-color: var(--kelp);
  }
  .problem {
    color: var(--signal);
  }
</style>
