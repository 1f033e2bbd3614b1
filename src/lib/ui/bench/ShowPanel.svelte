<script lang="ts" module>
  import { toPx } from '$lib/core/num/length';
</script>

<script lang="ts">
  import { readQuantity } from '$lib/core/num/quantity';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Aids, Guide } from '$lib/core/recipe/recipe';
  import type { PaletteData } from '$lib/contract/data';
  import { elementsBox } from '$lib/core/scene/drawing';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import LayOn from '../components/LayOn.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Panel from '../components/Panel.svelte';
  import Rows from '../components/Rows.svelte';
  import Tick from '../components/Tick.svelte';
  import type { Board } from './board/board.svelte';
  import type { BenchEditor } from './editor.svelte';
  import type { BenchShow } from './show.svelte';

  /** How the work is shown: veil, grid, guides, surface, size on this screen. */
  type Props = {
    editor: BenchEditor;
    show: BenchShow;
    /** The drawing board while it is open: guides are then its own. */
    board: Board | null;
    palettes: PaletteData[];
    oncalibrate: () => void;
  };
  let { editor, show, board, palettes, oncalibrate }: Props = $props();

  const recipe = $derived(editor.still);
  const drawn = $derived(editor.kind === 'composed');
  let typed = $state('');
  let problem: string | null = $state(null);

  const setAids = (aids: Partial<Aids>): void =>
    editor.commit({ ...recipe, aids: { ...recipe.aids, ...aids } });
  const guides = $derived(board ? board.guides : recipe.aids.guides);
  /** What percentages are of: the unit, or on the board the box of the drawing. */
  const frame = $derived(
    (board && elementsBox(board.elements)) ?? {
      x: 0,
      y: 0,
      width: recipe.unit.width,
      height: recipe.unit.height,
    },
  );
  const setGuides = (next: Guide[]): void => (board ? board.setGuides(next) : setAids({ guides: next }));
  const addGuides = (...more: Guide[]): void => setGuides([...guides, ...more].slice(-LIMITS.guides));

  /** "x 25 %" or "y 12": a guide at a share or a length from the left or the top. */
  function addTyped(): void {
    const match = /^\s*([xy])\s*(.+?)\s*$/i.exec(typed);
    const axis = match?.[1]?.toLowerCase() === 'y' ? 'y' : 'x';
    const text = match?.[2] ?? '';
    const size = axis === 'x' ? frame.width : frame.height;
    const percent = /^([-+\d.,]+)\s*%$/.exec(text);
    const at = percent ? frame[axis] + (Number(percent[1]?.replace(',', '.')) / 100) * size : lengthOf(text);
    if (!match || at === null || !Number.isFinite(at)) {
      problem = 'Write x or y and a place, such as “x 25 %” or “y 12 mm”.';
      return;
    }
    problem = null;
    typed = '';
    addGuides({ axis, at });
  }
  function lengthOf(text: string): number | null {
    const read = readQuantity(text, { unit: recipe.measure });
    return read.ok ? toPx(read.value, recipe.measure) : null;
  }
</script>

<Panel title="Show">
  <Rows>
    <span>Veil over the neighbours</span>
    <NumberField
      label="Veil over the neighbours"
      value={show.veil}
      kind={{ suffix: '%' }}
      least={0}
      most={1}
      digits={0}
      onlive={(value) => (show.veil = value)}
      onset={(value) => (show.veil = value)}
    />
    {#if drawn}
      <Tick
        label="Grid"
        checked={recipe.aids.showGrid}
        onset={(showGrid) => setAids({ showGrid, snap: showGrid || recipe.aids.snap })}
      />
      <NumberField
        label="Pitch of the grid"
        value={recipe.aids.grid}
        kind={{ unit: recipe.measure }}
        {...LIMITS.grid}
        onset={(grid) => setAids({ grid })}
      />
      <Tick label="Snap" checked={recipe.aids.snap} onset={(snap) => setAids({ snap })} />
      <span class="muted">Alt lets go</span>
    {/if}
  </Rows>
  {#if drawn}
    <div class="guides">
      <span class="muted">Guides</span>
      <Button
        kind="quiet"
        onclick={() =>
          addGuides(
            { axis: 'x', at: frame.x + frame.width / 2 },
            { axis: 'y', at: frame.y + frame.height / 2 },
          )}>Centre</Button
      >
      <input
        type="text"
        aria-label="A guide: x or y and its place"
        placeholder="x 25 %"
        bind:value={typed}
        aria-invalid={problem !== null}
        onkeydown={(event) => event.key === 'Enter' && addTyped()}
      />
      <Button kind="quiet" disabled={guides.length === 0} onclick={() => setGuides([])}>Clear</Button>
    </div>
    {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {/if}
  <div class="lay">
    <LayOn value={show.surface} onset={(value) => show.layOn(value)} />
    <ColourWell
      colour={show.surfaceColour ?? '#ffffff'}
      label="Another surface"
      {palettes}
      onlive={(colour) => (show.surfaceColour = colour)}
      onset={(colour) => show.layOn({ colour })}
    />
  </div>
  {#if show.forPale}
    <p class="muted pale" role="status">The art is pale: it lies on dark until you choose.</p>
  {/if}
  <div class="size">
    <Button kind="quiet" onclick={oncalibrate}>Measure this screen …</Button>
  </div>
</Panel>

<style>
  .guides {
    display: flex;
    align-items: baseline;
    gap: 2px;
    margin: 4px 0 8px;
  }
  .guides :global(.button) {
    padding: 2px 5px;
  }
  input[type='text'] {
    width: 72px;
    padding: 1px 5px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    font: 500 12px var(--mono);
  }
  .pale {
    margin-top: 6px;
    font-size: var(--small);
  }
  .problem {
    margin: 0 0 8px;
    color: var(--amber);
    font-size: 12px;
  }
  .lay {
    display: flex;
    align-items: center;
    gap: 6px;
  }
  .size {
    margin: 6px 0 -4px -8px;
  }
</style>
