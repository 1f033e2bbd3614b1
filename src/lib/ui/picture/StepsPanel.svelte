<script lang="ts">
  import { LENGTH_UNITS, isLengthUnit } from '$lib/core/num/length';
  import { fractionText } from '$lib/core/num/fraction';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { joins } from '$lib/core/picture/make';
  import {
    groupOf,
    madeSize,
    PICTURED_LIMITS,
    PLAIN_TONE,
    type Join,
    type JoinKind,
    type Pictured,
    type Region,
    type Tone,
  } from '$lib/core/recipe/pictured';
  import { sameValue } from '$lib/core/num/same';
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { regionAspect } from '$lib/core/lattice/fold';
  import { PLANE_GROUPS, shortSymbol } from '$lib/core/lattice/groups';
  import Button from '../components/Button.svelte';
  import Choice from '../components/Choice.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import { ppiOf, type PictureEditor } from './editor.svelte';
  import Levels from './Levels.svelte';
  import type { Maker } from './maker.svelte';

  /** The steps from the picture to the repeat, each with its numbers and its switch. */
  type Props = { editor: PictureEditor; maker: Maker };
  let { editor, maker }: Props = $props();

  const recipe = $derived(editor.pictured);
  const steps = $derived(recipe.pictured);
  const { region, tone, join, symmetry } = $derived(steps);
  const { source } = $derived(steps);
  const made = $derived(madeSize(steps));
  const kind = $derived({ unit: recipe.measure });
  const aspect = $derived(symmetry.on ? regionAspect(symmetry.group) : null);
  const ppi = $derived(ppiOf(recipe));
  const percent = (value: number): string => `${Math.round(value * 100)} %`;

  type Fields = { onlive: (value: number) => void; onset: (value: number) => void; oncancel: () => void };
  const fields = (set: (value: number, live: boolean) => void): Fields => ({
    onlive: (value) => set(value, true),
    onset: (value) => set(value, false),
    oncancel: () => editor.history.cancel(),
  });
  const stepped = (change: (from: Pictured, value: number) => Pictured): Fields =>
    fields((value, live) => editor.steps((from) => change(from, value), live));
  const regioned = (change: (from: Region, value: number) => Region): Fields =>
    fields((value, live) => editor.region((from) => change(from, value), live));
  const toned = (key: keyof Tone): Fields =>
    stepped((from, value) => ({ ...from, tone: { ...from.tone, [key]: value } }));
  const setTone = (change: Partial<Tone>, live = false): void =>
    editor.steps((from) => ({ ...from, tone: { ...from.tone, ...change } }), live);
  const setJoin = (change: Partial<Join>): void =>
    editor.steps((from) => ({ ...from, join: { ...from.join, ...change } }));

  const JOINS: Record<JoinKind, string> = {
    fade: 'cross-fade, contrast kept',
    cut: 'cheapest cut',
    level: 'levelled',
  };
  const LAYS = { straight: 'straight', brick: 'in brick', 'half-drop': 'half-drop' } as const;
</script>

<Panel title="Region">
  <Rows>
    <span>Width · height</span>
    <span class="pair">
      <NumberField
        label="Width of the region"
        value={region.width}
        kind={{ suffix: 'px' }}
        digits={0}
        hideUnit
        {...PICTURED_LIMITS.region}
        {...regioned((from, width) => ({
          ...from,
          width,
          height: editor.square && !symmetry.on ? (width * from.height) / from.width : from.height,
        }))}
      /> ·
      {#if aspect === null}
        <NumberField
          label="Height of the region"
          value={region.height}
          kind={{ suffix: 'px' }}
          digits={0}
          {...PICTURED_LIMITS.region}
          {...regioned((from, height) => ({
            ...from,
            height,
            width: editor.square && !symmetry.on ? (height * from.width) / from.height : from.width,
          }))}
        />
      {:else}<span class="mono">{Math.round(region.height)} px</span>{/if}
    </span>
    <span>Middle across · down</span>
    <span class="pair">
      <NumberField
        label="Middle of the region, across"
        value={region.x}
        kind={{ suffix: 'px' }}
        digits={1}
        hideUnit
        least={0}
        most={source.width}
        {...regioned((from, x) => ({ ...from, x }))}
      /> ·
      <NumberField
        label="Middle of the region, down"
        value={region.y}
        kind={{ suffix: 'px' }}
        digits={1}
        least={0}
        most={source.height}
        {...regioned((from, y) => ({ ...from, y }))}
      />
    </span>
    <span>Turn</span>
    <NumberField
      label="Turn of the region"
      value={region.turn}
      kind={{ suffix: '°' }}
      digits={1}
      least={-180}
      most={180}
      {...regioned((from, turn) => ({ ...from, turn: wrapDegrees(turn) }))}
    />
  </Rows>
  {#if aspect === null}
    <Tick label="Keep its proportion" checked={editor.square} onset={(square) => editor.setSquare(square)} />
  {:else}<p class="muted note">{shortSymbol(symmetry.group)} sets its proportion.</p>{/if}
</Panel>

<Panel title="Symmetry">
  {#snippet aside()}
    <Tick label="on" checked={symmetry.on} onset={(on) => editor.setSymmetry(on)} />
  {/snippet}
  {#if symmetry.on}
    <Rows>
      <span>Plane group</span>
      <Choice
        label="Plane group"
        value={symmetry.group}
        options={PLANE_GROUPS.filter((group) => group !== 'p1').map(
          (group) => [group, shortSymbol(group)] as const,
        )}
        onset={(group) => editor.setSymmetry(true, group)}
      />
    </Rows>
  {:else}<p class="muted note">The region is laid as it is.</p>{/if}
</Panel>

<Panel title="Tone">
  {#snippet aside()}
    <Tick label="on" checked={tone.on} onset={(on) => setTone({ on })} />
  {/snippet}
  {#if tone.on}
    <Levels
      {tone}
      histogram={maker.unit?.histogram ?? []}
      onlive={(change) => setTone(change, true)}
      onset={(change) => setTone(change)}
      oncancel={() => editor.history.cancel()}
    />
    <Rows>
      <span>Black · middle · white</span>
      <span class="pair">
        <NumberField
          label="Black"
          value={tone.black}
          kind={{ suffix: '' }}
          digits={0}
          least={0}
          most={254}
          {...toned('black')}
        /> ·
        <NumberField
          label="Middle"
          value={tone.middle}
          kind={{ suffix: '' }}
          digits={2}
          {...PICTURED_LIMITS.middle}
          {...toned('middle')}
        /> ·
        <NumberField
          label="White"
          value={tone.white}
          kind={{ suffix: '' }}
          digits={0}
          least={1}
          most={255}
          {...toned('white')}
        />
      </span>
      <span>Becomes</span>
      <span class="pair">
        <NumberField
          label="Black becomes"
          value={tone.low}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.level}
          {...toned('low')}
        /> ·
        <NumberField
          label="White becomes"
          value={tone.high}
          kind={{ suffix: '' }}
          digits={0}
          {...PICTURED_LIMITS.level}
          {...toned('high')}
        />
      </span>
      <span>Even light</span>
      <NumberField
        label="Even light"
        value={tone.even}
        kind={{ suffix: '%' }}
        digits={0}
        least={0}
        most={1}
        {...toned('even')}
      />
      <span>Exposure</span>
      <NumberField
        label="Exposure"
        value={tone.exposure}
        kind={{ suffix: 'EV' }}
        digits={2}
        {...PICTURED_LIMITS.exposure}
        {...toned('exposure')}
      />
      <span>Contrast · saturation</span>
      <span class="pair">
        <NumberField
          label="Contrast"
          value={tone.contrast}
          kind={{ suffix: '%' }}
          digits={0}
          {...PICTURED_LIMITS.share}
          {...toned('contrast')}
        /> ·
        <NumberField
          label="Saturation"
          value={tone.saturation}
          kind={{ suffix: '%' }}
          digits={0}
          {...PICTURED_LIMITS.share}
          {...toned('saturation')}
        />
      </span>
      <span>Becomes a grey</span>
      {#if tone.neutral === null}
        <Button kind="quiet" onclick={() => setTone({ neutral: '#808080' })}>choose …</Button>
      {:else}
        <span class="pair">
          <ColourWell
            colour={tone.neutral}
            label="The colour that becomes a grey"
            size={18}
            reset={{ label: 'None', run: () => setTone({ neutral: null }) }}
            onlive={(neutral) => setTone({ neutral }, true)}
            onset={(neutral) => setTone({ neutral })}
          />
        </span>
      {/if}
      <span>No colour</span>
      <Tick label="grey" checked={tone.grey} onset={(grey) => setTone({ grey })} />
    </Rows>
    {#if !sameValue(tone, PLAIN_TONE)}
      <Button kind="quiet" onclick={() => setTone(PLAIN_TONE)}>As the picture is</Button>
    {/if}
  {/if}
</Panel>

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
        {@const figure = maker.judged?.ways?.[how as JoinKind]}
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
            class:best={figure !== undefined && figure === Math.min(...Object.values(maker.judged!.ways!))}
            >{figure === undefined ? '…' : figure.toFixed(2)}</span
          >
        </button>
      {/each}
    </div>
    <Rows>
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
          {...stepped((from, band) => ({ ...from, join: { ...from.join, band: 2 * Math.round(band / 2) } }))}
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
      <span>Middle untouched</span>
      <span class="mono">{joins(steps) ? percent(maker.judged?.untouched ?? 1) : '100 %'}</span>
    </Rows>
  {:else}<p class="muted note">The edges stay as they were cut.</p>{/if}
</Panel>

<Panel title="Laid">
  <Rows>
    <span>Units</span>
    <Choice
      label="How the units are laid"
      value={recipe.lay.kind}
      options={symmetry.on
        ? [['straight', LAYS.straight] as const]
        : (Object.entries(LAYS) as [keyof typeof LAYS, string][])}
      onset={(lay) =>
        editor.change((from) => ({
          ...from,
          lay: lay === 'straight' ? { kind: lay } : { kind: lay, step: 0.5 },
        }))}
    />
    {#if recipe.lay.kind !== 'straight'}
      <span>Step</span>
      <NumberField
        label="Step"
        value={recipe.lay.step}
        kind={{ suffix: '' }}
        least={0}
        most={1}
        digits={4}
        show={fractionText}
        {...fields((step, live) =>
          editor.change(
            (from) => (from.lay.kind === 'straight' ? from : { ...from, lay: { ...from.lay, step } }),
            live,
          ),
        )}
      />
    {/if}
  </Rows>
</Panel>

<Panel title="Size">
  <Rows>
    <span>Unit</span>
    <span class="pair">
      <NumberField
        label="Unit width"
        value={recipe.unit.width}
        {kind}
        {...LIMITS.unitSide}
        hideUnit
        {...fields((width, live) => editor.setWidth(width, live))}
      /> ×
      <NumberField
        label="Unit height"
        value={recipe.unit.height}
        {kind}
        {...LIMITS.unitSide}
        {...fields((height, live) => editor.setHeight(height, live))}
      />
    </span>
    <span>Resolution</span>
    <NumberField
      label="Resolution of the repeat"
      value={ppi}
      kind={{ suffix: 'ppi' }}
      digits={0}
      {...LIMITS.ppi}
      {...fields((value, live) => editor.setPpi(value, live))}
    />
    <span>Made of</span>
    <span class="mono">{made.width} × {made.height} px</span>
    <span>Under 300 ppi above</span>
    <span class="mono">{percent(ppi / 300)}</span>
    <span>Under 150 ppi above</span>
    <span class="mono">{percent(ppi / 150)}</span>
    <span>Measured in</span>
    <Choice
      label="Unit of length"
      value={recipe.measure}
      options={LENGTH_UNITS.map((unit) => [unit, unit] as const)}
      onset={(measure) => isLengthUnit(measure) && editor.change((from) => ({ ...from, measure }))}
    />
  </Rows>
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
