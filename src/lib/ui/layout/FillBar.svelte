<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { PaletteData, PatternSummary } from '$lib/contract/data';
  import { tintOf, type Tint } from '$lib/core/colour/tint';
  import type { PatternFill } from '$lib/core/recipe/fill';
  import { assetsOf } from '$lib/core/scene/pictures';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { wrapDegrees } from '$lib/core/num/tolerance';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import Switch from '../components/Switch.svelte';
  import ColourwayPicker from './ColourwayPicker.svelte';
  import GroundPicker from './GroundPicker.svelte';
  import LikeShape from './LikeShape.svelte';
  import LookPicker from './LookPicker.svelte';
  import WholeRepeats from './WholeRepeats.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { swatchUrl } from '../library/say';

  /** The sentence under the stage: what the selected shapes are filled with, each value edited in place. */
  type Props = { editor: LayoutEditor; patterns: PatternSummary[]; palettes: PaletteData[] };
  let { editor, patterns, palettes }: Props = $props();

  const chosen = $derived(editor.chosen);
  const first = $derived(chosen[0] ?? null);
  const fills = $derived(chosen.flatMap((shape) => (shape.fill?.kind === 'pattern' ? [shape.fill] : [])));
  const fill = $derived(fills[0] ?? null);
  /** The shape whose fill's numbers are shown. */
  const holder = $derived(chosen.find((shape) => shape.fill === fill) ?? null);
  const plain = $derived(fill === null && first?.fill?.kind === 'colour' ? first.fill : null);
  const recipe = $derived(editor.recipeOf(fill));
  const tints = $derived(fill ? editor.tintsOf(fill) : {});
  const ways = $derived(fill ? editor.colourwaysOf(fill) : []);
  const hasPictures = $derived.by(() => {
    const pattern = fill && editor.lookup(fill);
    return pattern ? assetsOf(pattern.scene).length > 0 : false;
  });
  const patternName = $derived(
    fill
      ? (editor.patterns.get(fill.pattern)?.name ?? 'a pattern that is gone')
      : plain
        ? 'a plain colour'
        : 'nothing',
  );
  const linked = $derived(fill ? Math.abs(fill.scaleX - fill.scaleY) < 1e-9 : true);
  let splitScale = $state(false);
  const showSplit = $derived(splitScale || !linked);

  const mixed = (read: (one: PatternFill) => number): boolean =>
    fills.some((one) => Math.abs(read(one) - read(fills[0] as PatternFill)) > 1e-9);

  /** Setters for a number of the pattern fills: shown live, then one step. */
  function number(write: (one: PatternFill, value: number) => PatternFill) {
    return {
      onlive: (value: number) => editor.changeFill((one) => write(one, value), true),
      onset: (value: number) => {
        editor.changeFill((one) => write(one, value), true);
        editor.history.commit();
      },
      oncancel: () => editor.history.cancel(),
    };
  }
  const setScale = number((one, value) => ({ ...one, scaleX: value, scaleY: value }));
  const setScaleX = number((one, value) => ({ ...one, scaleX: value }));
  const setScaleY = number((one, value) => ({ ...one, scaleY: value }));
  const setRotation = number((one, value) => ({ ...one, rotation: wrapDegrees(value) }));
  const setSkew = number((one, value) => ({ ...one, skew: value }));
  const setOffsetX = number((one, value) => ({ ...one, offset: { ...one.offset, x: value } }));
  const setOffsetY = number((one, value) => ({ ...one, offset: { ...one.offset, y: value } }));
  const setOpacity = number((one, value) => ({ ...one, opacity: value }));

  function setColour(slot: string, tint: Tint, live: boolean): void {
    editor.changeFill((one) => ({ ...one, colours: { ...one.colours, [slot]: tint } }), true);
    if (!live) editor.history.commit();
  }
  function resetColour(slot: string): void {
    editor.changeFill((one) => ({
      ...one,
      colours: Object.fromEntries(Object.entries(one.colours).filter(([held]) => held !== slot)),
    }));
  }
  const measure = $derived({ unit: editor.doc.measure });
  const subject = $derived(chosen.length === 1 ? (first?.name ?? '') : `${chosen.length} shapes`);
</script>

{#snippet title(
  name: string,
  plain: string,
  changed: (one: PatternFill) => boolean,
  reset: Partial<PatternFill>,
)}
  {#if fills.some(changed)}
    <button
      type="button"
      class="title"
      title="Set back to {plain}"
      aria-label="Set the {name.toLowerCase()} back to {plain}"
      onclick={() => editor.changeFill((one) => ({ ...one, ...reset }))}>{name}</button
    >
  {:else}
    <span>{name}</span>
  {/if}
{/snippet}

<div class="bar" role="group" aria-label="Fill">
  {#if chosen.length === 0}
    <div class="cell hint">
      <span>Nothing is selected.</span>
      <strong>Draw a shape on the stage or press one, then choose a hanger.</strong>
    </div>
  {:else}
    <div class="cell name">
      <div class="lead">
        <span class="what">{subject} {chosen.length === 1 ? 'is' : 'are'} filled with</span>
        <LikeShape {editor} />
      </div>
      <Popover label="Choose what fills it: {patternName}" width={280}>
        {#snippet button()}<strong class="pattern-name">{patternName}</strong><ChevronDown
            size={14}
          />{/snippet}
        {#snippet children(close)}
          <div class="choices">
            <button
              type="button"
              onclick={() => {
                editor.fillPlain(plain?.colour ?? '#2f8fab');
                close();
              }}>A plain colour</button
            >
            <button
              type="button"
              onclick={() => {
                editor.clearFill();
                close();
              }}>Nothing</button
            >
            {#each patterns as pattern (pattern.id)}
              <button
                type="button"
                class:used={pattern.id === fill?.pattern}
                onclick={() => {
                  void editor.fillWith(pattern.id);
                  close();
                }}
              >
                <img
                  src={swatchUrl(pattern, 212, 58, 0.5)}
                  alt=""
                  width="56"
                  height="24"
                  loading="lazy"
                />{pattern.name}
              </button>
            {/each}
          </div>
        {/snippet}
      </Popover>
    </div>
    {#if fill}
      <div class="cell">
        {@render title(
          showSplit ? 'Scale across · down' : 'Scale',
          '100 %',
          (one) => one.scaleX !== 1 || one.scaleY !== 1,
          { scaleX: 1, scaleY: 1 },
        )}
        <div class="values">
          {#if showSplit}
            <NumberField
              label="Scale across"
              value={fill.scaleX}
              kind={{ suffix: '%' }}
              {...LIMITS.scale}
              mixed={mixed((one) => one.scaleX)}
              hideUnit
              {...setScaleX}
            />
            <span class="dot">·</span>
            <NumberField
              label="Scale down"
              value={fill.scaleY}
              kind={{ suffix: '%' }}
              {...LIMITS.scale}
              mixed={mixed((one) => one.scaleY)}
              {...setScaleY}
            />
          {:else}
            <NumberField
              label="Scale"
              value={fill.scaleX}
              kind={{ suffix: '%' }}
              {...LIMITS.scale}
              mixed={mixed((one) => one.scaleX)}
              {...setScale}
            />
          {/if}
          <button
            type="button"
            class="link"
            aria-pressed={!showSplit}
            title={showSplit ? 'Use one scale for both directions' : 'Scale each direction on its own'}
            onclick={() => {
              if (showSplit && !linked) editor.changeFill((one) => ({ ...one, scaleY: one.scaleX }));
              splitScale = !showSplit;
            }}>{showSplit ? 'join' : 'part'}</button
          >
          {#if holder}<WholeRepeats {editor} shape={holder} {fill} />{/if}
        </div>
      </div>
      <div class="cell">
        {@render title('Rotation', '0°', (one) => one.rotation !== 0, { rotation: 0 })}
        <NumberField
          label="Rotation"
          value={fill.rotation}
          kind={{ suffix: '°' }}
          {...LIMITS.angle}
          mixed={mixed((one) => one.rotation)}
          {...setRotation}
        />
      </div>
      {#if fills.some((one) => Math.abs(one.skew) > 1e-6)}
        <div class="cell">
          {@render title('Skew', '0°', (one) => one.skew !== 0, { skew: 0 })}
          <NumberField
            label="Skew"
            value={fill.skew}
            kind={{ suffix: '°' }}
            {...LIMITS.skew}
            mixed={mixed((one) => one.skew)}
            {...setSkew}
          />
        </div>
      {/if}
      <div class="cell">
        {@render title('Offset', '0 · 0', (one) => one.offset.x !== 0 || one.offset.y !== 0, {
          offset: { x: 0, y: 0 },
        })}
        <div class="values">
          <NumberField
            label="Offset across"
            value={fill.offset.x}
            kind={measure}
            {...LIMITS.place}
            mixed={mixed((one) => one.offset.x)}
            hideUnit
            {...setOffsetX}
          />
          <span class="dot">·</span>
          <NumberField
            label="Offset down"
            value={fill.offset.y}
            kind={measure}
            {...LIMITS.place}
            mixed={mixed((one) => one.offset.y)}
            {...setOffsetY}
          />
        </div>
      </div>
      <div class="cell">
        {@render title('Opacity', '100 %', (one) => one.opacity !== 1, { opacity: 1 })}
        <NumberField
          label="Opacity"
          value={fill.opacity}
          kind={{ suffix: '%' }}
          least={0}
          most={1}
          mixed={mixed((one) => one.opacity)}
          {...setOpacity}
        />
      </div>
      <div class="cell">
        <span>Ground</span>
        <GroundPicker {editor} {fill} {recipe} {palettes} />
      </div>
      {#if ways.length > 0}
        <div class="cell">
          <span>Colourway</span>
          <ColourwayPicker {editor} {fill} {ways} />
        </div>
      {/if}
      {#if hasPictures}
        <div class="cell">
          <span>Pictures</span>
          <LookPicker {editor} {fill} {palettes} />
        </div>
      {/if}
      {#if recipe}
        <div class="cell">
          <span>Colours</span>
          <div class="values wells">
            {#each recipe.slots.filter((slot) => recipe.ground.kind !== 'slot' || recipe.ground.slot !== slot.id) as slot (slot.id)}
              <ColourWell
                colour={tints[slot.id]?.colour ?? slot.colour}
                link={tints[slot.id]?.link}
                label={slot.name}
                {palettes}
                size={18}
                reset={fill.colours[slot.id]
                  ? {
                      label: fill.colourway ? 'Use the colourway’s colour' : 'Use the pattern’s own colour',
                      run: () => resetColour(slot.id),
                    }
                  : null}
                onlive={(colour) => setColour(slot.id, { colour }, true)}
                onset={(colour, link) => setColour(slot.id, tintOf(colour, link), false)}
              />
            {/each}
          </div>
        </div>
      {/if}
    {:else if plain}
      <div class="cell">
        <span>Colour</span>
        <ColourWell
          colour={plain.colour}
          label="Colour of the shape"
          {palettes}
          size={18}
          link={plain.link}
          onlive={(colour) => editor.fillPlain(colour, true)}
          onset={(colour, link) => {
            editor.fillPlain(colour, true, link);
            editor.history.commit();
          }}
        />
      </div>
      <div class="cell">
        <span>Opacity</span>
        <NumberField
          label="Opacity"
          value={plain.opacity}
          kind={{ suffix: '%' }}
          least={0}
          most={1}
          onset={(opacity) =>
            editor.change((shape) =>
              shape.fill?.kind === 'colour' ? { ...shape, fill: { ...shape.fill, opacity } } : shape,
            )}
        />
      </div>
    {:else}
      <div class="cell hint">
        <span>Choose a hanger at the left, or</span><Button
          kind="quiet"
          onclick={() => editor.fillPlain('#2f8fab')}>fill it with a plain colour</Button
        >
      </div>
    {/if}
  {/if}
  <div class="cell scope">
    <span>Handles move</span>
    <Switch
      label="Handles move"
      value={editor.scope}
      options={[
        { value: 'shape', label: 'Shape', title: 'S' },
        { value: 'pattern', label: 'Pattern', title: 'P', tone: 'signal' },
        { value: 'both', label: 'Both', title: 'B' },
      ]}
      onset={(scope) => (editor.scope = scope)}
    />
  </div>
</div>

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: stretch;
    border-top: 1px solid var(--rule);
    background: var(--card);
  }
  .cell {
    display: grid;
    align-content: center;
    gap: 3px;
    min-height: 56px;
    padding: 6px 8px;
    border-right: 1px solid var(--rule);
    justify-items: start;
  }
  .cell > span:first-child {
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
  .lead {
    display: flex;
    gap: 8px;
    align-items: baseline;
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
  .title {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-size: var(--small);
    white-space: nowrap;
    cursor: pointer;
  }
  .title:hover {
    text-decoration: underline;
  }
  .what {
    display: block;
    max-width: 180px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .hint {
    border: 0;
  }
  .scope {
    margin-left: auto;
    border-right: 0;
    border-left: 1px solid var(--rule);
  }
  .pattern-name {
    max-width: 180px;
    overflow: hidden;
    font-size: 15px;
    font-weight: 650;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .values {
    display: flex;
    align-items: baseline;
    gap: 5px;
  }
  .wells {
    align-items: center;
    gap: 5px;
  }
  .dot {
    color: var(--muted);
  }
  .link {
    margin-left: 4px;
    padding: 0 2px;
    border: 0;
    background: none;
    color: var(--kelp);
    font-size: var(--small);
    cursor: pointer;
  }
  .choices {
    display: grid;
    gap: 2px;
  }
  .choices button {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 5px 8px;
    border: 0;
    border-radius: 4px;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .choices button:hover,
  .choices .used {
    background: var(--kelp-tint);
  }
  .choices img {
    object-fit: cover;
    object-position: 0 0;
    background: var(--surround);
  }
</style>
