<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down';
  import ArrowUp from '@lucide/svelte/icons/arrow-up';
  import Eye from '@lucide/svelte/icons/eye';
  import EyeOff from '@lucide/svelte/icons/eye-off';
  import Plus from '@lucide/svelte/icons/plus';
  import Trash from '@lucide/svelte/icons/trash-2';
  import type { LayoutSummary, PaletteData, PatternSummary } from '$lib/contract/data';
  import type { Fill } from '$lib/core/recipe/fill';
  import type { Shape } from '$lib/core/recipe/layout';
  import Popover from '../components/Popover.svelte';
  import Tick from '../components/Tick.svelte';
  import Switch from '../components/Switch.svelte';
  import BlendPicker from './BlendPicker.svelte';
  import FillChooser from './FillChooser.svelte';
  import LikeShape from './LikeShape.svelte';
  import MaskPicker from './MaskPicker.svelte';
  import StrikeOffs from './StrikeOffs.svelte';
  import WashPicker from './WashPicker.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import { inkCss, sayFill } from './fills';
  import { takePicture } from './pictures';

  /** All fills of the selected shape, top first, and how the one that is worked on lies over the others. */
  type Props = {
    editor: LayoutEditor;
    shape: Shape;
    fill: Fill | null;
    patterns: PatternSummary[];
    palettes: PaletteData[];
    /** The layouts that can lie in this one. */
    layouts: readonly LayoutSummary[];
  };
  let { editor, shape, fill, patterns, palettes, layouts }: Props = $props();

  const stack = $derived([...editor.stackOf(shape)].reverse());
  let trying = $state(false);
  let watermark = $state(false);
</script>

<div class="stack" role="group" aria-label="Fills of {shape.name}, top first">
  <Switch
    label="What is filled"
    value={editor.part}
    options={[
      { value: 'fill', label: 'Fills' },
      {
        value: 'stroke',
        label: 'Stroke',
        title: shape.stroke ? 'The line along the outline' : 'Give it a stroke',
      },
    ]}
    onset={(part) => {
      if (part === 'stroke' && !shape.stroke) editor.setStroke({});
      editor.part = part;
      editor.layer = null;
    }}
  />
  {#each stack as one, index (one.id)}
    <button
      type="button"
      class="chip"
      class:off={!one.shown}
      aria-pressed={one.id === fill?.id}
      aria-label="Fill {index + 1} of {stack.length}: {sayFill(one, editor)}"
      onclick={() => (editor.layer = index)}
      ><span class="ink" style:background={inkCss(one, editor)}></span><span class="name"
        >{sayFill(one, editor)}</span
      ></button
    >
  {/each}
  <Popover label="Lay another fill over it" title="Lay another fill over it" width={280}>
    {#snippet button()}<span class="add"><Plus size={14} /></span>{/snippet}
    {#snippet children(close)}
      <div class="as">
        <Tick
          label="As a watermark: a pattern at 20 %, without its ground"
          checked={watermark}
          onset={(on) => (watermark = on)}
        />
      </div>
      <FillChooser
        {patterns}
        {layouts}
        used={null}
        onlayout={(id) => {
          close();
          void editor.layOverLayout(id);
        }}
        onpattern={(pattern) => {
          close();
          void editor.addFill({ kind: 'pattern', pattern, watermark });
        }}
        oncolour={() => {
          close();
          void editor.addFill({ kind: 'colour' });
        }}
        ongradient={() => {
          close();
          void editor.addFill({ kind: 'gradient' });
        }}
        onpicture={async (file) => {
          const picture = await takePicture(editor, file);
          close();
          if (picture) await editor.addFill({ ...picture, kind: 'picture' });
        }}
      />
    {/snippet}
  </Popover>
  {#if fill}
    <span class="tools">
      <button
        type="button"
        aria-label={fill.shown ? 'Hide this fill' : 'Show this fill'}
        title={fill.shown ? 'Hide this fill' : 'Show this fill'}
        onclick={() => editor.changeActive((one) => ({ ...one, shown: !fill.shown }))}
        >{#if fill.shown}<Eye size={14} />{:else}<EyeOff size={14} />{/if}</button
      >
      {#if stack.length > 1}
        <button
          type="button"
          aria-label="Move this fill up"
          title="Move this fill up"
          disabled={fill.id === stack[0]?.id}
          onclick={() => editor.restackFill('front')}><ArrowUp size={14} /></button
        >
        <button
          type="button"
          aria-label="Move this fill down"
          title="Move this fill down"
          disabled={fill.id === stack.at(-1)?.id}
          onclick={() => editor.restackFill('back')}><ArrowDown size={14} /></button
        >
      {/if}
      <button
        type="button"
        aria-label="Take this fill away"
        title="Take this fill away"
        onclick={() => editor.removeFill()}><Trash size={14} /></button
      >
    </span>
    <span class="part"
      >Blend <BlendPicker
        value={fill.blend}
        onset={(blend) => editor.changeActive((one) => ({ ...one, blend }))}
      /></span
    >
    {#if fill.kind === 'pattern'}<WashPicker {editor} {shape} {fill} {palettes} />{/if}
    <MaskPicker {editor} {shape} {fill} />
  {/if}
  <LikeShape {editor} />
  {#if fill && editor.single}
    <button type="button" class="try" onclick={() => (trying = true)}>try out …</button>
  {/if}
</div>

{#if trying && fill}
  <StrikeOffs {editor} {shape} {fill} {patterns} {palettes} onclose={() => (trying = false)} />
{/if}

<style>
  .as {
    margin-bottom: 6px;
    padding: 0 8px 8px;
    border-bottom: 1px solid var(--rule);
  }
  .try {
    padding: 0;
    border: 0;
    background: none;
    color: var(--kelp);
    font-size: var(--small);
    cursor: pointer;
  }
  .stack {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 6px;
    min-height: 32px;
    padding: 3px 8px;
    border-top: 1px solid var(--rule);
    background: var(--card);
    font-size: var(--small);
  }
  .part {
    color: var(--muted);
  }
  .part {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    margin-left: 6px;
  }
  .chip {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    max-width: 150px;
    padding: 2px 8px 2px 3px;
    border: 1px solid var(--rule);
    border-radius: 11px;
    background: var(--card);
    color: var(--ink);
    cursor: pointer;
  }
  .chip:hover {
    border-color: var(--rule-strong);
  }
  .chip[aria-pressed='true'] {
    border-color: var(--kelp);
    background: var(--kelp-tint);
  }
  .chip.off .name {
    color: var(--muted);
    text-decoration: line-through;
  }
  .ink {
    flex: none;
    width: 16px;
    height: 16px;
    border-radius: 50%;
    background-size: cover;
    box-shadow: inset 0 0 0 1px rgb(20 33 31 / 25%);
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .add,
  .tools button {
    display: inline-flex;
    padding: 3px;
    border: 1px solid var(--rule);
    border-radius: 50%;
    background: none;
    color: var(--ink);
    cursor: pointer;
  }
  .tools {
    display: inline-flex;
    gap: 2px;
  }
  .tools button {
    border-color: transparent;
    border-radius: 4px;
  }
  .tools button:hover:not(:disabled) {
    border-color: var(--rule);
  }
  .tools button:disabled {
    opacity: 0.35;
    cursor: default;
  }
</style>
