<script lang="ts">
  import Brush from '@lucide/svelte/icons/brush';
  import Circle from '@lucide/svelte/icons/circle';
  import Hexagon from '@lucide/svelte/icons/hexagon';
  import ImageIcon from '@lucide/svelte/icons/image';
  import MousePointer from '@lucide/svelte/icons/mouse-pointer';
  import PencilLine from '@lucide/svelte/icons/pencil-line';
  import Slash from '@lucide/svelte/icons/slash';
  import Spline from '@lucide/svelte/icons/spline';
  import Square from '@lucide/svelte/icons/square';
  import Star from '@lucide/svelte/icons/star';
  import TypeIcon from '@lucide/svelte/icons/type';
  import type { ShapeForm } from '$lib/core/geom/shapes';
  import ToolBar from '../components/ToolBar.svelte';
  import ArrangeTools from './ArrangeTools.svelte';
  import type { LayoutEditor } from './editor.svelte';
  import FormNumbers from './FormNumbers.svelte';
  import { PICTURE_TYPES } from './pictures';
  import type { Tool } from './session.svelte';
  import { addFiles, addForm, type BrushNumbers } from './shapes';

  /** What makes shapes, and the numbers of the form that is selected or about to be drawn. */
  type Props = {
    editor: LayoutEditor;
    brush: BrushNumbers;
    onbrush: (brush: BrushNumbers) => void;
    /** Opens the words of a text or the points of an outline. */
    onopen: () => void;
  };
  let { editor, brush, onbrush, onopen }: Props = $props();

  const FORMS: ReadonlySet<string> = new Set(['rectangle', 'ellipse', 'polygon', 'star']);
  const TOOLS: { tool: Tool; label: string; icon: typeof Square }[] = [
    { tool: 'select', label: 'Select and move', icon: MousePointer },
    { tool: 'rectangle', label: 'Draw a rectangle', icon: Square },
    { tool: 'ellipse', label: 'Draw an ellipse', icon: Circle },
    { tool: 'polygon', label: 'Draw a polygon', icon: Hexagon },
    { tool: 'star', label: 'Draw a star', icon: Star },
    { tool: 'line', label: 'Draw a line', icon: Slash },
    { tool: 'pen', label: 'Draw a path point by point', icon: Spline },
    { tool: 'freehand', label: 'Draw an outline by hand', icon: PencilLine },
    { tool: 'brush', label: 'Brush a stroke of pattern', icon: Brush },
    { tool: 'text', label: 'Set text', icon: TypeIcon },
  ];
  let pictureFile: HTMLInputElement | undefined = $state();

  /** A tool pressed with the pointer waits for a drag; pressed with the keyboard it puts a shape in the middle at once. */
  function take(event: MouseEvent, tool: Tool): void {
    if (event.detail > 0 || !FORMS.has(tool)) {
      editor.tool = editor.tool === tool ? 'select' : tool;
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

<ToolBar label="Shapes" place="left">
  {#each TOOLS as { tool, label, icon: Icon } (tool)}
    <button
      type="button"
      title={label}
      aria-label={label}
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
