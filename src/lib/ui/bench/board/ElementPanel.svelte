<script lang="ts">
  import { about, scaling, translation } from '$lib/core/geom/affine';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { DrawingElement, ElementSource, Stroke } from '$lib/core/recipe/recipe';
  import { plainStroke } from '$lib/core/scene/motif';
  import Button from '../../components/Button.svelte';
  import Choice from '../../components/Choice.svelte';
  import NumberField from '../../components/NumberField.svelte';
  import Panel from '../../components/Panel.svelte';
  import Rows from '../../components/Rows.svelte';
  import AlignRow from '../AlignRow.svelte';
  import type { Board } from './board.svelte';
  import FormRows from './FormRows.svelte';

  /** Place, size, paint and stroke of the chosen elements, and what can be made of several. */
  type Props = { board: Board };
  let { board }: Props = $props();

  const recipe = $derived(board.editor.composed);
  const kind = $derived({ unit: recipe.measure });
  const box = $derived(board.box);
  const first = $derived(board.chosen[0] ?? null);
  const source = $derived(board.single?.source ?? null);
  const slots = $derived(recipe.slots.map((slot) => [slot.id, slot.name] as const));
  const fill = $derived(
    first && typeof first.fill === 'string' ? first.fill : first?.fill === null ? '' : 'gradient',
  );
  const stroke = $derived(first?.stroke ?? null);

  function handlers(change: (element: DrawingElement, value: number) => DrawingElement) {
    return {
      onlive: (value: number) => board.change((element) => change(element, value), true),
      onset: (value: number) => board.change((element) => change(element, value)),
      oncancel: () => board.editor.history.cancel(),
    };
  }
  /** Moves or stretches all that is chosen so that its box has the number. */
  function setBox(side: 'x' | 'y' | 'width' | 'height', value: number): void {
    if (!box) return;
    if (side === 'x') board.transform(translation(value - box.x, 0));
    else if (side === 'y') board.transform(translation(0, value - box.y));
    else {
      const factor = value / Math.max(box[side], 1e-6);
      board.transform(about(box, side === 'width' ? scaling(factor, 1) : scaling(1, factor)));
    }
  }
  const setStroke = (change: Partial<Stroke> | null): void => {
    board.change((element) => {
      if (change === null) return { ...element, stroke: null };
      const slot = typeof element.fill === 'string' ? element.fill : (recipe.slots[0]?.id ?? '');
      const held = element.stroke ?? plainStroke(slot, Math.max(0.5, recipe.aids.grid / 10));
      return { ...element, stroke: { ...held, ...change } };
    });
    const now = board.chosen[0];
    if (now) board.remember(now.fill, now.stroke);
  };
  function setFill(slot: string): void {
    if (slot === 'gradient') return;
    board.change((element) => ({ ...element, fill: slot === '' ? null : slot }));
    const now = board.chosen[0];
    if (now) board.remember(now.fill, now.stroke);
  }
  const turnSource = (next: ElementSource, live: boolean): void => void board.setSource(next, live);
  let turnBy = $state(0);
</script>

{#if first && box}
  <Panel title={board.chosen.length > 1 ? `${board.chosen.length} elements` : 'Element'}>
    <Rows>
      <span>Left · top</span>
      <span class="pair">
        <NumberField
          label="Left"
          value={box.x}
          {kind}
          {...LIMITS.place}
          digits={3}
          hideUnit
          onset={(v) => setBox('x', v)}
        /> ·
        <NumberField
          label="Top"
          value={box.y}
          {kind}
          {...LIMITS.place}
          digits={3}
          onset={(v) => setBox('y', v)}
        />
      </span>
      {#if source}
        <FormRows
          {source}
          measure={recipe.measure}
          onset={turnSource}
          oncancel={() => board.editor.history.cancel()}
        />
      {:else}
        <span>Width · height</span>
        <span class="pair">
          <NumberField
            label="Width of the element"
            value={box.width}
            {kind}
            {...LIMITS.shapeSide}
            digits={3}
            hideUnit
            onset={(v) => setBox('width', v)}
          /> ·
          <NumberField
            label="Height of the element"
            value={box.height}
            {kind}
            {...LIMITS.shapeSide}
            digits={3}
            onset={(v) => setBox('height', v)}
          />
        </span>
      {/if}
      <span>Turn by</span>
      <span class="pair">
        <NumberField
          label="Turn by"
          value={turnBy}
          kind={{ suffix: '°' }}
          {...LIMITS.angle}
          onset={(value) => {
            board.turn(value);
            turnBy = 0;
          }}
        />
        <button
          type="button"
          class="quarter"
          title="Turn by 90°"
          aria-label="Turn by 90°"
          onclick={() => board.turn(90)}>90°</button
        >
      </span>
      {#if !first.picture}
        <span>Fill</span>
        <Choice
          label="Fill"
          value={fill}
          options={[
            ...slots,
            ['', 'none'] as const,
            ...(fill === 'gradient' ? [['gradient', 'gradient'] as const] : []),
          ]}
          onset={setFill}
        />
        <span>Stroke</span>
        <Choice
          label="Stroke"
          value={stroke?.slot ?? ''}
          options={[...slots, ['', 'none'] as const]}
          onset={(slot) => setStroke(slot === '' ? null : { slot })}
        />
        {#if stroke}
          <span>Stroke width</span>
          <NumberField
            label="Stroke width"
            value={stroke.width}
            {kind}
            least={0.001}
            most={1e4}
            digits={3}
            {...handlers((element, width) =>
              element.stroke ? { ...element, stroke: { ...element.stroke, width } } : element,
            )}
          />
          <span>Ends</span>
          <Choice
            label="Ends of strokes"
            value={stroke.cap}
            options={[
              ['butt', 'flat'],
              ['round', 'round'],
              ['square', 'square'],
            ]}
            onset={(cap) => setStroke({ cap })}
          />
          <span>Corners</span>
          <Choice
            label="Corners of strokes"
            value={stroke.join}
            options={[
              ['miter', 'pointed'],
              ['round', 'round'],
              ['bevel', 'cut'],
            ]}
            onset={(join) => setStroke({ join })}
          />
          <span>Dashes</span>
          <input
            class="dashes"
            type="text"
            aria-label="Dashes: lengths of dash and space"
            placeholder="none"
            value={stroke.dashes.map((dash) => Number(dash.toFixed(3))).join(' ')}
            onchange={(event) => {
              const dashes = event.currentTarget.value
                .split(/[\s,;]+/)
                .map(Number)
                .filter((value) => Number.isFinite(value) && value >= 0)
                .slice(0, 32);
              setStroke({ dashes: dashes.some((dash) => dash > 0) ? dashes : [] });
            }}
          />
        {/if}
      {/if}
      <span>Opacity</span>
      <NumberField
        label="Opacity of the element"
        value={first.opacity}
        kind={{ suffix: '%' }}
        least={0}
        most={1}
        {...handlers((element, opacity) => ({ ...element, opacity }))}
      />
    </Rows>
    <AlignRow
      count={board.chosen.length}
      onalign={(how) => board.align(how)}
      onmirror={(across) => board.mirror(across)}
    />
    <div class="buttons">
      <Button kind="quiet" onclick={() => board.restack('front')}>Forward</Button>
      <Button kind="quiet" onclick={() => board.restack('back')}>Back</Button>
      <Button kind="quiet" onclick={() => board.double()}>Double</Button>
      <Button kind="quiet" onclick={() => board.remove()}>Remove</Button>
    </div>
    <div class="buttons">
      <Button
        kind="quiet"
        disabled={board.busy || board.chosen.length < 2}
        onclick={() => board.combine('unite')}>Unite</Button
      >
      <Button
        kind="quiet"
        disabled={board.busy || board.chosen.length < 2}
        onclick={() => board.combine('subtract')}>Subtract</Button
      >
      <Button
        kind="quiet"
        disabled={board.busy || board.chosen.length < 2}
        onclick={() => board.combine('intersect')}>Intersect</Button
      >
      <Button
        kind="quiet"
        disabled={board.busy || board.chosen.length < 2}
        onclick={() => board.combine('exclude')}>Exclude</Button
      >
    </div>
    <div class="buttons">
      <Button
        kind="quiet"
        disabled={board.busy || !board.chosen.some((one) => one.stroke)}
        onclick={() => board.strokeOutlines()}>Turn strokes into shapes</Button
      >
    </div>
  </Panel>
{:else}
  <Panel title="Element">
    <p class="muted">Take a tool and draw, or press an element to see its numbers.</p>
  </Panel>
{/if}

<style>
  .buttons {
    display: flex;
    flex-wrap: wrap;
    margin-left: -6px;
  }
  .buttons :global(.button) {
    padding: 2px 4px;
    font-size: 12px;
    letter-spacing: -0.01em;
  }
  .dashes {
    width: 92px;
    padding: 1px 5px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    font: 500 12px var(--mono);
    text-align: right;
  }
  .quarter {
    padding: 0 4px;
    border: 1px solid var(--rule);
    border-radius: 4px;
    background: none;
    font: 500 12px var(--mono);
    cursor: pointer;
  }
</style>
