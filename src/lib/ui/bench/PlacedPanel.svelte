<script lang="ts">
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { motifSize, type Placing } from '$lib/core/recipe/recipe';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import AlignRow from './AlignRow.svelte';
  import type { BenchEditor } from './editor.svelte';

  /** The numbers of the selected placing (or of several at once): place, rotation, size, stack. */
  type Props = { editor: BenchEditor };
  let { editor }: Props = $props();

  const recipe = $derived(editor.composed);
  const first = $derived(editor.chosen[0] ?? null);
  const several = $derived(editor.chosen.length > 1);
  const motif = $derived(recipe.motifs.find((held) => held.id === first?.motif));
  const size = $derived(motif ? motifSize(motif.content) : { width: 1, height: 1 });
  const kind = $derived({ unit: editor.still.measure });
  const listed = $derived([...editor.still.placings].reverse());
  const place = $derived(recipe.placings.findIndex((placing) => placing.id === first?.id) + 1);

  function set(write: (placing: Placing, value: number) => Placing) {
    return {
      onlive: (value: number) => editor.change((placing) => write(placing, value), true),
      onset: (value: number) => {
        editor.change((placing) => write(placing, value), true);
        editor.settle();
      },
      oncancel: () => editor.history.cancel(),
    };
  }
  /** True where other placings follow the same motif. */
  const linked = $derived(
    recipe.placings.some(
      (placing) =>
        !editor.selected.has(placing.id) && editor.chosen.some((chosen) => chosen.motif === placing.motif),
    ),
  );
  const mixed = (read: (placing: Placing) => number): boolean =>
    editor.chosen.some((placing) => first && Math.abs(read(placing) - read(first)) > 1e-9);
  const scaled = (scale: number, value: number, side: number): number =>
    Math.sign(scale) * Math.min(LIMITS.placingScale.most, Math.max(LIMITS.placingScale.least, value / side));
</script>

<Panel title="Placed">
  {#if first && motif}
    <Rows>
      <span>{several ? `${editor.chosen.length} pieces` : motif.name}</span>
      <span class="pair">
        <NumberField
          label="Place across"
          value={first.x}
          {kind}
          {...LIMITS.place}
          hideUnit
          mixed={mixed((one) => one.x)}
          {...set((one, x) => ({ ...one, x }))}
        /> ·
        <NumberField
          label="Place down"
          value={first.y}
          {kind}
          {...LIMITS.place}
          mixed={mixed((one) => one.y)}
          {...set((one, y) => ({ ...one, y }))}
        />
      </span>
      <span>Rotation</span>
      <NumberField
        label="Rotation of the piece"
        value={first.rotation}
        kind={{ suffix: '°' }}
        {...LIMITS.angle}
        mixed={mixed((one) => one.rotation)}
        {...set((one, value) => ({ ...one, rotation: wrapDegrees(value) }))}
      />
      {#if !several}
        <span>Size</span>
        <span class="pair">
          <NumberField
            label="Width of the piece"
            value={Math.abs(first.scaleX) * size.width}
            {kind}
            least={0.001}
            most={1e6}
            hideUnit
            {...set((one, value) => ({
              ...one,
              scaleX: scaled(one.scaleX, value, size.width),
              scaleY: one.scaleY * Math.abs(scaled(one.scaleX, value, size.width) / one.scaleX),
            }))}
          /> ×
          <NumberField
            label="Height of the piece"
            value={Math.abs(first.scaleY) * size.height}
            {kind}
            least={0.001}
            most={1e6}
            {...set((one, value) => ({ ...one, scaleY: scaled(one.scaleY, value, size.height) }))}
          />
        </span>
        <span>Stack</span><span class="mono">{place} of {recipe.placings.length}</span>
      {/if}
      <span>Opacity</span>
      <NumberField
        label="Opacity of the piece"
        value={first.opacity}
        kind={{ suffix: '%' }}
        least={0}
        most={1}
        mixed={mixed((one) => one.opacity)}
        {...set((one, opacity) => ({ ...one, opacity }))}
      />
    </Rows>
    <AlignRow
      count={editor.chosen.length}
      onalign={(how) => editor.align(how)}
      onmirror={(across) => editor.mirror(across)}
    />
    <div class="buttons">
      <Button kind="quiet" title="]" onclick={() => editor.restack('front')}>Forward</Button>
      <Button kind="quiet" title="[" onclick={() => editor.restack('back')}>Back</Button>
      <Button kind="quiet" title="Ctrl/Cmd+D" onclick={() => editor.double()}>Double</Button>
      <Button kind="quiet" title="Delete" onclick={() => editor.remove()}>Remove</Button>
    </div>
    {#if linked}
      <div class="buttons">
        <Button
          kind="quiet"
          title="Give these pieces a motif of their own, which no longer follows"
          onclick={() => editor.cutLoose()}>Make independent</Button
        >
      </div>
    {/if}
  {:else}
    <p class="muted">Press a piece on the unit to see its numbers.</p>
  {/if}
  {#if editor.still.placings.length > 0}
    <label class="list"
      ><span class="visually-hidden">Choose a placed piece</span>
      <select
        value={editor.single?.id ?? ''}
        onchange={(event) => editor.select(event.currentTarget.value ? [event.currentTarget.value] : [])}
      >
        <option value="">All pieces, front first …</option>
        {#each listed as placing, index (placing.id)}
          <option value={placing.id}
            >{listed.length - index}. {editor.still.motifs.find((held) => held.id === placing.motif)
              ?.name}</option
          >
        {/each}
      </select></label
    >
  {/if}
</Panel>

<style>
  .buttons {
    display: flex;
    margin: 8px 0 0 -6px;
  }
  .buttons :global(.button) {
    padding: 2px 5px;
    font-size: 12px;
  }
  .list select {
    width: 100%;
    margin-top: 8px;
    padding: 3px 4px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    background: var(--card);
  }
</style>
