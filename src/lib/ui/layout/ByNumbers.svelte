<script lang="ts">
  import { LIMITS } from '$lib/core/recipe/limits';
  import {
    mapBy,
    NO_TRANSFORM,
    transformMap,
    withinLimits,
    type TransformNumbers,
  } from '$lib/core/recipe/transform';
  import Button from '../components/Button.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Rows from '../components/Rows.svelte';
  import Switch from '../components/Switch.svelte';
  import Tick from '../components/Tick.svelte';
  import { selectionBox } from './arrange';
  import type { LayoutEditor } from './editor.svelte';

  /** A transformation by exact numbers about a chosen point; what it does shows at once, and nothing is kept until it is applied. */
  type Props = { editor: LayoutEditor; onclose: () => void };
  let { editor, onclose }: Props = $props();

  // svelte-ignore state_referenced_locally
  const box = selectionBox(editor) ?? { x: 0, y: 0, width: 0, height: 0 };
  let numbers: TransformNumbers = $state.raw(NO_TRANSFORM);
  let joined = $state(true);
  let centre = $state.raw({ x: box.x + box.width / 2, y: box.y + box.height / 2 });
  let problem: string | null = $state(null);
  const kind = $derived({ unit: editor.doc.measure });
  // Where undo has given up what is shown, the numbers are plain again.
  $effect(() => {
    if (!editor.history.inGesture) numbers = NO_TRANSFORM;
  });
  const PLACES = [0, 0.5, 1] as const;

  function show(change: Partial<TransformNumbers>, about = centre): void {
    numbers = { ...numbers, ...change };
    centre = about;
    const map = transformMap(numbers, about);
    const { scope } = editor;
    const start = editor.history.settled.shapes.filter((shape) => editor.selected.has(shape.id));
    const done = new Map(
      start.map((shape) => [shape.id, mapBy(shape, scope, map, editor.activeOf(shape)?.id)]),
    );
    if ([...done.values()].some((shape) => !withinLimits(shape))) {
      problem = 'That would leave the limits of size, place or skew; take a smaller number.';
      return;
    }
    problem = null;
    editor.change((shape) => done.get(shape.id) ?? shape, { live: true });
  }
  function apply(): void {
    editor.history.commit();
    onclose();
  }
  export function cancel(): void {
    editor.history.cancel();
  }
  const field = (key: 'moveX' | 'moveY' | 'rotation' | 'skew') => ({
    onlive: (value: number) => show({ [key]: value }),
    onset: (value: number) => show({ [key]: value }),
  });
  const scaleField = (key: 'scaleX' | 'scaleY') => {
    const set = (value: number): void => show(joined ? { scaleX: value, scaleY: value } : { [key]: value });
    return { onlive: set, onset: set };
  };
</script>

<div class="panel">
  <Switch
    label="What is transformed"
    value={editor.scope}
    options={[
      { value: 'shape', label: 'Shape' },
      { value: 'pattern', label: 'Pattern', tone: 'signal' },
      { value: 'both', label: 'Both' },
    ]}
    onset={(scope) => {
      editor.scope = scope;
      show({});
    }}
  />
  <Rows>
    <span>Move</span>
    <span
      ><NumberField
        label="Move across"
        value={numbers.moveX}
        {kind}
        {...LIMITS.place}
        hideUnit
        {...field('moveX')}
      /> ·
      <NumberField
        label="Move down"
        value={numbers.moveY}
        {kind}
        {...LIMITS.place}
        {...field('moveY')}
      /></span
    >
    <span>Scale</span>
    <span
      ><NumberField
        label="Scale by across"
        value={numbers.scaleX}
        kind={{ suffix: '%' }}
        {...LIMITS.scale}
        hideUnit
        {...scaleField('scaleX')}
      /> ·
      <NumberField
        label="Scale by down"
        value={numbers.scaleY}
        kind={{ suffix: '%' }}
        {...LIMITS.scale}
        {...scaleField('scaleY')}
      />
      <Tick label="joined" checked={joined} onset={(on) => (joined = on)} /></span
    >
    <span>Turn</span>
    <NumberField
      label="Turn by"
      value={numbers.rotation}
      kind={{ suffix: '°' }}
      {...LIMITS.angle}
      {...field('rotation')}
    />
    <span>Skew</span>
    <NumberField
      label="Skew by"
      value={numbers.skew}
      kind={{ suffix: '°' }}
      {...LIMITS.skew}
      {...field('skew')}
    />
    <span>Reflect</span>
    <span class="ticks"
      ><Tick label="across" checked={numbers.reflectX} onset={(reflectX) => show({ reflectX })} />
      <Tick label="down" checked={numbers.reflectY} onset={(reflectY) => show({ reflectY })} /></span
    >
    <span>About</span>
    <span class="about">
      <span class="grid" role="group" aria-label="Point that stays">
        {#each PLACES as down (down)}
          {#each PLACES as across (across)}
            {@const at = { x: box.x + box.width * across, y: box.y + box.height * down }}
            <button
              type="button"
              aria-label="{['Upper', 'Middle', 'Lower'][down * 2]} {['left', 'middle', 'right'][across * 2]}"
              aria-pressed={Math.hypot(centre.x - at.x, centre.y - at.y) < 1e-6}
              onclick={() => show({}, at)}
            ></button>
          {/each}
        {/each}
      </span>
      <span
        ><NumberField
          label="Point across"
          value={centre.x}
          {kind}
          {...LIMITS.place}
          hideUnit
          onset={(x) => show({}, { ...centre, x })}
        /> ·
        <NumberField
          label="Point down"
          value={centre.y}
          {kind}
          {...LIMITS.place}
          onset={(y) => show({}, { ...centre, y })}
        /></span
      >
    </span>
  </Rows>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  <div class="actions">
    <Button
      onclick={() => {
        cancel();
        onclose();
      }}>Cancel</Button
    >
    <Button kind="main" onclick={apply}>Apply</Button>
  </div>
</div>

<style>
  .panel {
    display: grid;
    justify-items: start;
    gap: 10px;
  }
  .ticks,
  .about {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(3, 12px);
    gap: 3px;
  }
  .grid button {
    width: 12px;
    height: 12px;
    padding: 0;
    border: 1px solid var(--rule-strong);
    border-radius: 2px;
    background: var(--card);
    cursor: pointer;
  }
  .grid [aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp);
  }
  .actions {
    display: flex;
    justify-content: flex-end;
    gap: 6px;
    width: 100%;
  }
</style>
