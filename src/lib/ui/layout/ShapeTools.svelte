<script lang="ts">
  import ImageIcon from '@lucide/svelte/icons/image';
  import type { ShapeForm } from '$lib/core/geom/shapes';
  import ToolBar from '../components/ToolBar.svelte';
  import ArrangeTools from './ArrangeTools.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import FormNumbers from './FormNumbers.svelte';
  import { PICTURE_TYPES } from './pictures';
  import type { Tool } from './session.svelte';
  import { addFiles, addForm, type BrushNumbers } from './shapes';
  import { TOOLS } from './tools';

  /** What makes shapes, and the numbers of the form that is selected or about to be drawn. */
  type Props = {
    editor: LayoutEditor;
    brush: BrushNumbers;
    onbrush: (brush: BrushNumbers) => void;
    /** Opens the words of a text or the points of an outline. */
    onopen: () => void;
    /** All of the stage's width is theirs. */
    wide: boolean;
  };
  let { editor, brush, onbrush, onopen, wide }: Props = $props();

  const FORMS: ReadonlySet<string> = new Set(['rectangle', 'ellipse', 'polygon', 'star']);
  let pictureFile: HTMLInputElement | undefined = $state();

  /** A tool pressed with the pointer waits for a drag; pressed with the keyboard it puts a shape in the middle at once. */
  function take(event: MouseEvent, tool: Tool): void {
    if (event.detail > 0 || !FORMS.has(tool)) {
      editor.take(tool);
      return;
    }
    const { width, height } = editor.doc;
    const side = Math.min(width, height) / 3;
    const box = { x: (width - side) / 2, y: (height - side) / 2, width: side, height: side };
    addForm(editor, tool as ShapeForm['kind'], box);
  }
  function placeFiles(event: Event & { currentTarget: HTMLInputElement }): void {
    const files = [...(event.currentTarget.files ?? [])];
    event.currentTarget.value = '';
    void addFiles(editor, files, { x: editor.doc.width / 2, y: editor.doc.height / 2 });
  }
</script>

<ToolBar label="Shapes" place={wide ? 'whole' : 'left'}>
  {#each TOOLS as { tool, label, key, icon: Icon } (tool)}
    {@const kept = editor.tool === tool && editor.hand.kept}
    <button
      type="button"
      class:kept
      title="{label} ({key}){tool === 'select'
        ? ''
        : kept
          ? ': kept until it is pressed again'
          : '; twice keeps it'}"
      aria-label={kept ? `${label}: kept` : label}
      aria-keyshortcuts={key === 'Esc' ? 'Escape' : key}
      aria-pressed={editor.tool === tool}
      onclick={(event) => take(event, tool)}
    >
      <Icon size={16} />
    </button>
  {/each}
  <button
    type="button"
    title="Place a picture or drawing"
    aria-label="Place a picture or drawing"
    onclick={() => pictureFile?.click()}><ImageIcon size={16} /></button
  >
  <input
    bind:this={pictureFile}
    type="file"
    multiple
    hidden
    accept="{PICTURE_TYPES},.svg"
    aria-label="Picture or drawing file"
    onchange={placeFiles}
  />
  {#if editor.selected.size > 0}
    <ArrangeTools {editor} />
  {/if}
  <FormNumbers {editor} {brush} {onbrush} {onopen} />
</ToolBar>
