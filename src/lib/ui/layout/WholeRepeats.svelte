<script lang="ts">
  import type { PatternFill } from '$lib/core/recipe/fill';
  import { WHOLE_WAYS, wholeRepeats, type WholeRepeats, type WholeWay } from '$lib/core/recipe/fit';
  import type { Shape } from '$lib/core/recipe/layout';
  import OptionRow from '../components/OptionRow.svelte';
  import Popover from '../components/Popover.svelte';
  import type { LayoutEditor } from './editor.svelte';

  /** The nearest scales and angles at which whole repeats span the shape, each with what it changes. */
  type Props = { editor: LayoutEditor; shape: Shape; fill: PatternFill };
  let { editor, shape, fill }: Props = $props();

  const NAMES: Record<WholeWay, string> = {
    across: 'Across',
    down: 'Down',
    both: 'Across and down',
    'turned across': 'Turned, to close across',
    'turned down': 'Turned, to close down',
  };

  function fitOf(one: Shape, use: PatternFill, way: WholeWay): WholeRepeats | null {
    const pattern = editor.lookup(use);
    return pattern ? wholeRepeats(one, use, pattern.scene.lattice, way) : null;
  }
  const offers = $derived(
    WHOLE_WAYS.flatMap((way) => {
      const fit = fitOf(shape, fill, way);
      return fit ? [{ way, fit }] : [];
    }),
  );

  const percent = (scale: number): string => String(Number((scale * 100).toFixed(2)));
  const degrees = (angle: number): string => String(Number(angle.toFixed(2)));

  function counted({ counts }: WholeRepeats): string {
    if (counts.length === 0) return '';
    const [only] = counts;
    return counts.length > 1 ? `${counts.join(' × ')} repeats` : only === 1 ? '1 repeat' : `${only} repeats`;
  }

  /** "55 → 53.6 %, −2.5 %": what the numbers become and what that costs. */
  function change({ scaleX, scaleY, rotation }: WholeRepeats): string {
    const same = Math.abs(scaleX - scaleY) < 1e-9;
    const cost = (after: number, before: number): string => {
      const by = Number(((after / before - 1) * 100).toFixed(1));
      return by === 0 ? 'no change' : `${by > 0 ? '+' : '−'}${Math.abs(by)} %`;
    };
    const scale = same ? `${percent(scaleX)} %` : `${percent(scaleX)} · ${percent(scaleY)} %`;
    const costs =
      same && Math.abs(fill.scaleX - fill.scaleY) < 1e-9
        ? cost(scaleX, fill.scaleX)
        : `${cost(scaleX, fill.scaleX)} · ${cost(scaleY, fill.scaleY)}`;
    const turn = rotation === fill.rotation ? '' : `, ${degrees(rotation)}°`;
    return `${scale}${turn} (${costs})`;
  }

  function take(way: WholeWay): void {
    editor.changePlaced((use, holder) => {
      const fit = use.kind === 'pattern' ? fitOf(holder, use, way) : null;
      if (!fit) return use;
      const { scaleX, scaleY, rotation } = fit;
      return { ...use, scaleX, scaleY, rotation };
    });
  }
</script>

<Popover label="Fit whole repeats" width={290} text="whole">
  {#snippet children(close)}
    <div class="offers">
      <strong>Whole repeats over the shape</strong>
      {#each offers as { way, fit } (way)}
        <OptionRow
          onclick={() => {
            take(way);
            close();
          }}
        >
          <span class="way">{NAMES[way]}<span class="count">{counted(fit)}</span></span>
          <span class="change">{change(fit)}</span>
        </OptionRow>
      {:else}
        <p>No whole number of repeats spans this shape within the limits of scale.</p>
      {/each}
    </div>
  {/snippet}
</Popover>

<style>
  .offers {
    display: grid;
    gap: 2px;
  }
  strong {
    padding: 2px 8px 4px;
    font-size: 12.5px;
  }
  p {
    margin: 0;
    padding: 0 8px 4px;
    color: var(--muted);
  }
  .way {
    display: flex;
    justify-content: space-between;
    gap: 12px;
  }
  .count {
    color: var(--muted);
  }
  .change {
    color: var(--muted);
    font: 500 12.5px var(--mono);
  }
</style>
