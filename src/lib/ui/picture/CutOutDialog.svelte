<script lang="ts">
  import { onMount } from 'svelte';
  import type { Pixels, SeenChannel, SeenPiece } from '$lib/contract/picture-work';
  import { bestOf } from '$lib/core/picture/matte';
  import {
    FRESH_CUT,
    type CutChannel,
    type CutFrom,
    type CutOut,
    type CutStroke,
  } from '$lib/core/recipe/cut-out';
  import { PictureWorker, Stopped } from '$lib/workers/client';
  import Button from '../components/Button.svelte';
  import Dialog from '../components/Dialog.svelte';
  import DrawnPixels from '../components/DrawnPixels.svelte';
  import Switch from '../components/Switch.svelte';
  import { readPixels } from './read-pixels';
  import { call } from '../state/api';
  import CutNumbers from './CutNumbers.svelte';
  import CutView from './CutView.svelte';

  /** Cuts a subject out of a picture: by the channel that parts it best, its matte seen while it is set. */
  type Held = { asset: string; width: number; height: number };
  type Props = {
    /** What the picture is called. */
    name: string;
    picture: Held & { cut?: CutFrom };
    /** Told what is left of the picture, and what it was cut out of. */
    ontake: (made: Held, from: CutFrom) => void;
    onclose: () => void;
  };
  let { name, picture, ontake, onclose }: Props = $props();

  /** The picture that is cut: one that was cut out before is cut anew from what it came from. */
  // svelte-ignore state_referenced_locally
  const { cut } = picture;
  // svelte-ignore state_referenced_locally
  const source = cut ?? picture;

  const LABELS: Record<CutChannel, string> = {
    red: 'Red',
    green: 'Green',
    blue: 'Blue',
    light: 'Lightness',
    colour: 'A colour',
  };
  /** The picture is seen with so many px a side at most; what is kept is cut from all of it. */
  const SEEN = 720;
  const SAMPLE = 72;
  const worker = new PictureWorker();
  let ready = $state(false);
  let by: CutOut = $state(FRESH_CUT);
  let channels: SeenChannel[] = $state.raw([]);
  let show: 'cut' | 'matte' | 'picture' = $state('cut');
  let seen: (Pixels & { histogram: number[] }) | null = $state.raw(null);
  let whole: Pixels | null = $state.raw(null);
  let pieces: SeenPiece[] = $state.raw([]);
  let live: CutStroke | null = $state.raw(null);
  let problem: string | null = $state(null);
  let busy = $state(false);
  const best = $derived(channels.length > 0 ? bestOf(channels) : null);

  onMount(() => {
    void open();
    return () => worker.stop();
  });
  async function open(): Promise<void> {
    try {
      const read = await readPixels(source.asset, SEEN);
      whole = read;
      await worker.ask('take', { ...read, data: read.data.slice() });
      const found = await worker.ask('channels', { side: SAMPLE, colour: cut?.by.colour ?? null });
      channels = found.channels;
      by = cut?.by ?? found.suggested;
      ready = true;
    } catch (error) {
      if (!(error instanceof Stopped)) problem = 'The picture cannot be read any more; bring it in again.';
    }
  }
  /** What is asked for with the stroke that is just painted. */
  const painted: CutOut = $derived(live ? { ...by, strokes: [...(by.strokes ?? []), live] } : by);
  $effect(() => {
    const wanted = $state.snapshot(painted) as CutOut;
    const matte = show === 'matte';
    if (!ready || show === 'picture') return;
    worker.ask('cut', { by: wanted, matte }).then(
      (made) => (seen = made),
      (error: unknown) => {
        if (!(error instanceof Stopped)) problem = 'This could not be shown; change the last number back.';
      },
    );
  });
  $effect(() => {
    const wanted = $state.snapshot(by) as CutOut;
    if (!ready) return;
    const wait = setTimeout(() => {
      worker.ask('pieces', wanted).then(
        (found) => (pieces = found),
        () => undefined,
      );
    }, 250);
    return () => clearTimeout(wait);
  });
  async function setColour(colour: string): Promise<void> {
    by = { ...by, colour };
    try {
      ({ channels } = await worker.ask('channels', { side: SAMPLE, colour }));
    } catch (error) {
      // A later colour was asked for meanwhile.
      if (!(error instanceof Stopped)) throw error;
    }
  }

  async function take(): Promise<void> {
    busy = true;
    const wanted = $state.snapshot(by) as CutOut;
    const made = await call('POST /motifs/{hash}/cut-outs', { hash: source.asset, body: wanted });
    busy = false;
    if (!made.ok) return void (problem = made.failure.message);
    const { asset, x, y, width, height } = made.value;
    const { asset: of, width: wide, height: high } = source;
    ontake({ asset, width, height }, { asset: of, width: wide, height: high, by: wanted, x, y });
    onclose();
  }
</script>

<Dialog title="Cut {name} out" width={760} {onclose}>
  <div class="columns">
    <CutView
      {source}
      {by}
      pixels={show === 'picture' ? whole : seen}
      {pieces}
      checked={show === 'cut'}
      onlive={(stroke) => (live = stroke)}
      onset={(next) => (by = next)}
    >
      <Switch
        label="What is shown"
        value={show}
        options={[
          { value: 'cut', label: 'Cut out' },
          { value: 'matte', label: 'Matte' },
          { value: 'picture', label: 'Picture' },
        ]}
        onset={(value) => (show = value)}
      />
    </CutView>
    <div class="numbers">
      <div class="channels" role="radiogroup" aria-label="Parted by">
        {#each channels as one (one.channel)}
          <button
            type="button"
            role="radio"
            aria-checked={one.channel === by.channel}
            title="Parts {Math.round(one.share * 100)} % of what differs"
            onclick={() => (by = { ...by, channel: one.channel })}
          >
            <DrawnPixels pixels={one.picture} label="" />
            {LABELS[one.channel]}{#if one === best}<span class="best">parts best</span>{/if}
          </button>
        {:else}<p class="muted">Reading the picture …</p>{/each}
      </div>
      <CutNumbers
        {by}
        histogram={seen?.histogram ?? []}
        onset={(next) => (by = next)}
        oncolour={(colour) => void setColour(colour)}
      />
    </div>
  </div>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#snippet actions()}
    <Button onclick={onclose}>Cancel</Button>
    <Button kind="main" disabled={!ready || busy} onclick={() => void take()}
      >{busy ? 'Cutting it out …' : 'Take what is left'}</Button
    >
  {/snippet}
</Dialog>

<style>
  .columns {
    display: grid;
    grid-template-columns: 400px minmax(0, 1fr);
    gap: 20px;
  }
  .channels {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 6px;
    margin-bottom: 10px;
  }
  .channels button {
    display: grid;
    gap: 2px;
    padding: 4px;
    border: 1px solid var(--rule);
    border-radius: 6px;
    background: none;
    cursor: pointer;
    font: inherit;
    font-size: var(--small);
    justify-items: center;
    align-content: start;
  }
  .channels button[aria-checked='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    font-weight: 600;
  }
  .channels :global(canvas) {
    width: auto;
    max-width: 72px;
    height: 48px;
  }
  .best {
    color: var(--kelp);
    font-weight: 600;
  }
  .problem {
    color: var(--amber);
    font-weight: 600;
  }
</style>
