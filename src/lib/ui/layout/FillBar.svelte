<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import Scissors from '@lucide/svelte/icons/scissors';
  import LayoutGrid from '@lucide/svelte/icons/layout-grid';
  import Pencil from '@lucide/svelte/icons/pencil';
  import type { LayoutSummary, PaletteData, PatternSummary } from '$lib/contract/data';
  import { isPlaced, withCut } from '$lib/core/recipe/fill';
  import Button from '../components/Button.svelte';
  import ColourWell from '../components/ColourWell.svelte';
  import NumberField from '../components/NumberField.svelte';
  import Popover from '../components/Popover.svelte';
  import FillChooser from './FillChooser.svelte';
  import FillReset from './FillReset.svelte';
  import FillStack from './FillStack.svelte';
  import HandleScope from './HandleScope.svelte';
  import GradientPicker from './GradientPicker.svelte';
  import PatternCells from './PatternCells.svelte';
  import PlaceCells from './PlaceCells.svelte';
  import StrokeCells from './StrokeCells.svelte';
  import Sharpness from './Sharpness.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { BACK } from '../state/last-layout';
  import { FRESH_COLOUR } from './fresh-fills';
  import { sayFill } from './fills';
  import { gestureOf } from './numbers';
  import CutOutDialog from '../picture/CutOutDialog.svelte';
  import { repeatAddress } from '../picture/address';
  import { putGradient } from './steer';
  import { takePicture } from './pictures';

  /** The sentence under the stage: what the selected shapes are filled or stroked with, each value edited in place. */
  type Props = {
    editor: LayoutEditor;
    patterns: PatternSummary[];
    palettes: PaletteData[];
    /** The layouts of the project: all but this one can lie in it. */
    layouts: readonly LayoutSummary[];
    /** Little room: what the handles move is chosen beside the stage's tools instead. */
    narrow: boolean;
  };
  let { editor, patterns, palettes, layouts, narrow }: Props = $props();

  let cutting = $state(false);
  const others = $derived(layouts.filter(({ id }) => id !== editor.id));
  const chosen = $derived(editor.chosen);
  /** The shape whose fill is shown: the first that has one like it. */
  const holder = $derived(chosen.find((shape) => editor.activeOf(shape)) ?? chosen[0] ?? null);
  const fill = $derived(holder ? editor.activeOf(holder) : null);
  const active = $derived(chosen.flatMap((shape) => editor.activeOf(shape) ?? []));
  const what = $derived(
    fill === null ? 'nothing' : fill.kind === 'colour' ? 'a plain colour' : sayFill(fill, editor),
  );
  const setOpacity = $derived(
    gestureOf(editor, (opacity) => editor.changeActive((one) => ({ ...one, opacity }), true)),
  );
  const subject = $derived(chosen.length === 1 ? (holder?.name ?? '') : `${chosen.length} shapes`);
</script>

{#if holder}
  <FillStack {editor} shape={holder} {fill} {patterns} {palettes} layouts={others} />
{:else}
  <div class="no-stack"></div>
{/if}
<div class="bar" class:narrow role="group" aria-label="Fill">
  {#if !holder}
    {#if editor.inHand}
      <div class="cell hint">
        <span>“{editor.inHand.name}” is in your hand.</span>
        <strong>Draw a shape on the page; it is filled with it.</strong>
      </div>
      <div class="cell hint">
        <Button kind="quiet" onclick={() => (editor.inHand = null)}>Put it down</Button>
      </div>
    {:else}
      <div class="cell hint">
        <span>Nothing is selected.</span>
        <strong>Draw a shape on the stage or press one, then choose a hanger.</strong>
      </div>
    {/if}
  {:else}
    <div class="cell name">
      <span class="what"
        >{subject}
        {chosen.length === 1 ? 'is' : 'are'}
        {editor.part === 'stroke' ? 'stroked' : 'filled'} with</span
      >
      <span class="chosen">
        <Popover label="Choose what fills it: {what}" width={280}>
          {#snippet button()}<strong class="pattern-name">{what}</strong><ChevronDown size={14} />{/snippet}
          {#snippet children(close)}
            <FillChooser
              {patterns}
              layouts={others}
              used={fill?.kind === 'pattern' ? fill.pattern : fill?.kind === 'layout' ? fill.layout : null}
              onlayout={(id) => {
                close();
                void editor.fillLayout(id);
              }}
              onpattern={(id) => {
                close();
                void editor.fillWith(id);
              }}
              oncolour={() => {
                close();
                editor.fillPlain(fill?.kind === 'colour' ? fill.colour : FRESH_COLOUR);
              }}
              ongradient={() => {
                close();
                editor.fillGradient();
              }}
              onpicture={async (file) => {
                const picture = await takePicture(editor, file);
                close();
                if (picture) editor.fillPicture(picture);
              }}
              onnothing={() => {
                close();
                editor.clearFill();
              }}
            />
          {/snippet}
        </Popover>
        {#if fill?.kind === 'pattern'}
          <a
            class="edit"
            href="/library/{fill.pattern}/bench?{BACK}"
            aria-label="Edit this pattern"
            title="Edit this pattern on the bench; after publishing you are back here"><Pencil size={14} /></a
          >
        {:else if fill?.kind === 'layout'}
          <a
            class="edit"
            href="/projects/{editor.projectId}/layouts/{fill.layout}"
            aria-label="Open this layout"
            title="Open this layout; what is changed there shows here"><Pencil size={14} /></a
          >
        {:else if fill?.kind === 'picture'}
          <a
            class="edit"
            href={repeatAddress(fill, subject)}
            aria-label="Make a repeat of this picture"
            title="Make a repeat of this picture; after publishing you are back here"
            ><LayoutGrid size={14} /></a
          >
          <button
            type="button"
            class="edit"
            aria-label="Cut a subject out of this picture"
            title="Cut a subject out of this picture"
            onclick={() => (cutting = true)}><Scissors size={14} /></button
          >
        {/if}
      </span>
    </div>
    {#if fill === null}
      <div class="cell hint">
        <span>Choose a hanger at the left, or</span><Button
          kind="quiet"
          onclick={() => editor.fillPlain(FRESH_COLOUR)}>fill it with a plain colour</Button
        >
      </div>
    {:else}
      {#if editor.part === 'stroke' && holder.stroke}
        <StrokeCells {editor} stroke={holder.stroke} />
      {/if}
      {#if isPlaced(fill)}<PlaceCells {editor} {fill} shape={holder} />{/if}
      {#if fill.kind === 'colour'}
        <div class="cell">
          <span>Colour</span>
          <ColourWell
            colour={fill.colour}
            label="Colour of the shape"
            {palettes}
            size={18}
            link={fill.link}
            onlive={(colour) => editor.fillPlain(colour, true)}
            onset={(colour, link) => {
              editor.fillPlain(colour, true, link);
              editor.history.commit();
            }}
          />
        </div>
      {:else if fill.kind === 'gradient'}
        <div class="cell">
          <span>Gradient</span>
          <Popover label="Edit the gradient" width={296} aside text="edit …">
            <GradientPicker
              gradient={fill.gradient}
              shape={holder}
              {palettes}
              onset={(gradient, live) => putGradient(editor, 'fill', gradient, live)}
              oncancel={() => editor.history.cancel()}
            />
          </Popover>
        </div>
      {/if}
      <div class="cell">
        <FillReset
          name="Opacity"
          plain="100 %"
          changed={active.some((one) => one.opacity !== 1)}
          onreset={() => editor.changeActive((one) => ({ ...one, opacity: 1 }))}
        />
        <NumberField
          label="Opacity"
          value={fill.opacity}
          kind={{ suffix: '%' }}
          least={0}
          most={1}
          mixed={active.some((one) => Math.abs(one.opacity - fill.opacity) > 1e-9)}
          {...setOpacity}
        />
      </div>
      {#if fill.kind === 'pattern'}<PatternCells {editor} {fill} {palettes} />{/if}
      {#if fill.kind === 'picture'}
        <Sharpness {fill} unit={editor.doc.measure} />
      {/if}
    {/if}
  {/if}
  {#if !narrow}
    <div class="cell scope">
      <span>Handles move</span>
      <HandleScope {editor} />
    </div>
  {/if}
</div>

{#if cutting && fill?.kind === 'picture'}
  <CutOutDialog
    name={subject}
    picture={fill}
    ontake={(made, from) =>
      editor.changeActive((one) => (one.kind === 'picture' ? withCut(one, made, from) : one))}
    onclose={() => (cutting = false)}
  />
{/if}

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: stretch;
    border-top: 1px solid var(--rule);
    background: var(--card);
  }
  /* The row of fills keeps its place, so that the stage does not jump when something is selected. */
  .no-stack {
    height: 33px;
    border-top: 1px solid var(--rule);
    background: var(--card);
  }
  /* The cells of all parts of the bar look alike. */
  .bar :global(.cell) {
    display: grid;
    align-content: center;
    /* The label of a cell can be pressed too: it keeps its distance from the number below (WCAG 2.2, 2.5.8). */
    gap: 6px;
    min-height: 58px;
    padding: 6px 7px;
    border-right: 1px solid var(--rule);
    justify-items: start;
  }
  .bar :global(.cell > span:first-child) {
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
  .bar :global(.cell .values) {
    display: flex;
    align-items: baseline;
    gap: 5px;
  }
  .bar :global(.cell .dot) {
    color: var(--muted);
  }
  .what {
    display: block;
    max-width: 150px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .chosen {
    display: inline-flex;
    align-items: center;
    gap: 4px;
  }
  .bar .hint {
    border: 0;
  }
  .bar .scope {
    margin-left: auto;
    border-right: 0;
    border-left: 1px solid var(--rule);
  }
  .edit {
    display: grid;
    place-items: center;
    width: 24px;
    height: 24px;
    padding: 0;
    border: 0;
    border-radius: 4px;
    background: none;
    color: var(--kelp);
    cursor: pointer;
  }
  .edit:hover {
    background: var(--kelp-tint);
  }
  /* One row, whatever is in it: the stage keeps its room, and what does not fit is scrolled to. */
  .bar.narrow {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: thin;
  }
  .narrow > :global(.cell) {
    flex: none;
  }
  .narrow .pattern-name {
    max-width: 118px;
  }
  .pattern-name {
    max-width: 150px;
    overflow: hidden;
    font-size: 15px;
    font-weight: 650;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
</style>
