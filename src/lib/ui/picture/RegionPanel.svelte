<script lang="ts">
  import { regionAspect } from '$lib/core/lattice/fold';
  import { shortSymbol } from '$lib/core/lattice/groups';
  import type { Point } from '$lib/core/geom/point';
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { PICTURED_LIMITS } from '$lib/core/recipe/pictured';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { PictureEditor } from './editor.svelte';
  import { fieldsOf } from './fields';
  import type { Maker } from './maker.svelte';

  /** The region in numbers, and where the picture repeats by itself. */
  type Props = { editor: PictureEditor; maker: Maker };
  let { editor, maker }: Props = $props();

  const { region, symmetry, source } = $derived(editor.pictured.pictured);
  const aspect = $derived(symmetry.on ? regionAspect(symmetry.group) : null);
  // svelte-ignore state_referenced_locally
  const { fields, regioned } = fieldsOf(editor);
  const CORNERS = ['Upper left', 'Upper right', 'Lower right', 'Lower left'];
  const corner = (index: number, to: (value: number) => Point) => ({
    least: -2 * source.width,
    most: 3 * source.width,
    ...fields((value, live) => editor.moveCorner(index, to(value), live)),
  });
  function sayPeriod(across: number | null, down: number | null): string {
    const px = (length: number): string => `${Math.round(length * 10) / 10} px`;
    if (across !== null && down !== null) return `${px(across)} across and ${px(down)} down`;
    return across !== null ? `${px(across)} across` : `${px(down ?? 0)} down`;
  }
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
    {#if region.corners}
      {#each region.corners as { x, y }, index (index)}
        <span>{CORNERS[index]}</span>
        <span class="pair">
          <NumberField
            label="{CORNERS[index]} corner, across"
            value={x}
            kind={{ suffix: 'px' }}
            digits={1}
            hideUnit
            {...corner(index, (value) => ({ x: value, y }))}
          /> ·
          <NumberField
            label="{CORNERS[index]} corner, down"
            value={y}
            kind={{ suffix: 'px' }}
            digits={1}
            {...corner(index, (value) => ({ x, y: value }))}
          />
        </span>
      {/each}
    {:else}
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
    {/if}
  </Rows>
  {#if aspect === null}
    <Tick label="Keep its proportion" checked={editor.square} onset={(square) => editor.setSquare(square)} />
  {:else}<p class="muted note">{shortSymbol(symmetry.group)} sets its proportion.</p>{/if}
  <Tick
    label="Straightened by four corners"
    checked={region.corners !== undefined}
    onset={(on) => editor.setCorners(on)}
  />
  <!-- What is straightened is another picture than the one that was looked through. -->
  {#if maker.period && !region.corners}
    {@const { across, down } = maker.period}
    {#if across === null && down === null}
      <p class="muted note">The picture does not repeat by itself.</p>
    {:else}
      <p class="muted note">The picture repeats by itself every {sayPeriod(across, down)}.</p>
      {#if !symmetry.on}
        <Button kind="quiet" onclick={() => maker.period && editor.toPeriods(maker.period)}
          >Whole periods</Button
        >
      {/if}
    {/if}
  {/if}
</Panel>

<style>
  .note {
    font-size: var(--small);
  }
</style>
