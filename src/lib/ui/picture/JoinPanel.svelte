<script lang="ts">
  import { shortSymbol } from '$lib/core/lattice/groups';
  import { joins } from '$lib/core/picture/make';
  import { groupOf, PICTURED_LIMITS, type Join, type JoinKind } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PictureEditor } from './editor.svelte';
  import { fieldsOf, percent } from './fields';
  import type { Maker } from './maker.svelte';

  /** How the edges are made to meet: every way with its figure, the lowest in kelp. */
  type Props = { editor: PictureEditor; maker: Maker };
  let { editor, maker }: Props = $props();

  const steps = $derived(editor.pictured.pictured);
  const { region, join, symmetry } = $derived(steps);
  // svelte-ignore state_referenced_locally
  const { stepped } = fieldsOf(editor);
  const setJoin = (change: Partial<Join>): void =>
    editor.steps((from) => ({ ...from, join: { ...from.join, ...change } }));
  /** The figure without a join, where that is no seam and less of one than what is made now. */
  const meets = $derived.by(() => {
    const { before, now } = maker.judged ?? {};
    return before?.word === 'none' && now && before.figure < now.figure ? before.figure : null;
  });
  const JOINS: Record<JoinKind, string> = {
    fade: 'cross-fade, contrast kept',
    cut: 'cheapest cut',
    level: 'levelled',
    grown: 'grown, a larger unit',
  };
</script>

<Panel title="Join">
  {#snippet aside()}
    <Tick label="on" checked={join.on} disabled={symmetry.on} onset={(on) => setJoin({ on })} />
  {/snippet}
  {#if symmetry.on}
    <p class="muted note">
      The images of {shortSymbol(groupOf(steps))} meet by themselves, or at the lines where they turn.
    </p>
  {:else if join.on}
    <div class="ways" role="radiogroup" aria-label="How the edges are made to meet">
      {#each Object.entries(JOINS) as [how, label] (how)}
        {@const figure = maker.ways?.[how as JoinKind]}
        <button
          type="button"
          role="radio"
          aria-checked={join.how === how}
          data-how={how}
          onclick={() => setJoin({ how: how as JoinKind })}
        >
          <span>{label}</span>
          <span
            class="mono"
            class:best={figure !== undefined && figure === Math.min(...Object.values(maker.ways!))}
            >{figure === undefined ? '…' : figure.toFixed(2)}</span
          >
        </button>
      {/each}
    </div>
    {#if meets !== null}
      <p class="muted note" role="status">
        Cut like this the edges meet by themselves ({meets.toFixed(2)}).
        <Button kind="quiet" onclick={() => setJoin({ on: false })}>Leave them alone</Button>
      </p>
    {/if}
    <Rows>
      {#if join.how === 'grown'}
        <span>Larger by</span>
        <NumberField
          label="How many times larger"
          value={join.times}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.times}
          {...stepped((from, times) => ({ ...from, join: { ...from.join, times: Math.round(times) } }))}
        />
        <span>Try number</span>
        <NumberField
          label="Number of the try"
          value={join.seed}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.seed}
          {...stepped((from, seed) => ({ ...from, join: { ...from.join, seed: Math.round(seed) } }))}
        />
      {:else}
        <span>Band{join.how === 'cut' ? ' · feather' : ''}</span>
        <span class="pair">
          <NumberField
            label="Band"
            value={join.band}
            kind={{ suffix: 'px' }}
            digits={0}
            hideUnit={join.how === 'cut'}
            least={PICTURED_LIMITS.band.least}
            most={Math.floor(Math.min(region.width, region.height))}
            {...stepped((from, band) => ({
              ...from,
              join: { ...from.join, band: 2 * Math.round(band / 2) },
            }))}
          />
          {#if join.how === 'cut'}
            ·
            <NumberField
              label="Feather"
              value={join.feather}
              kind={{ suffix: 'px' }}
              digits={1}
              {...PICTURED_LIMITS.feather}
              {...stepped((from, feather) => ({ ...from, join: { ...from.join, feather } }))}
            />
          {/if}
        </span>
      {/if}
      <span>Middle untouched</span>
      <span class="mono">{joins(steps) ? percent(maker.judged?.untouched ?? 1) : '100 %'}</span>
    </Rows>
  {:else}<p class="muted note">The edges stay as they were cut.</p>{/if}
</Panel>

<style>
  .note {
    font-size: var(--small);
  }
  .ways {
    display: grid;
    gap: 2px;
    margin-bottom: 8px;
  }
  .ways button {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    min-height: 26px;
    padding: 2px 8px;
    border: 1px solid transparent;
    border-radius: 4px;
    background: none;
    cursor: pointer;
  }
  .ways button:hover {
    background: var(--kelp-tint);
  }
  .ways [aria-checked='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
    font-weight: 600;
  }
  .ways .mono {
    color: var(--muted);
  }
  .ways .best {
    color: var(--kelp);
    font-weight: 650;
  }
</style>
