<script lang="ts">
  import Circle from '@lucide/svelte/icons/circle';
  import Hexagon from '@lucide/svelte/icons/hexagon';
  import MousePointer from '@lucide/svelte/icons/mouse-pointer';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Slash from '@lucide/svelte/icons/slash';
  import Spline from '@lucide/svelte/icons/spline';
  import Square from '@lucide/svelte/icons/square';
  import Star from '@lucide/svelte/icons/star';
  import TypeIcon from '@lucide/svelte/icons/type';
  import Waypoints from '@lucide/svelte/icons/waypoints';
  import type { Board, BoardTool } from './board.svelte';
  import { FORM_OF } from './board-drags';

  /** The drawing tools. Taken with the pointer they wait for a drag; pressed with the keyboard a form is set in the middle. */
  type Props = { board: Board; ontext: (at: { x: number; y: number }) => void };
  let { board, ontext }: Props = $props();

  const TOOLS: { tool: BoardTool; label: string; icon: typeof Square }[] = [
    { tool: 'choose', label: 'Choose and move', icon: MousePointer },
    { tool: 'points', label: 'Points of a path', icon: Waypoints },
    { tool: 'rectangle', label: 'Rectangle', icon: Square },
    { tool: 'ellipse', label: 'Ellipse', icon: Circle },
    { tool: 'polygon', label: 'Polygon', icon: Hexagon },
    { tool: 'star', label: 'Star', icon: Star },
    { tool: 'line', label: 'Straight line', icon: Slash },
    { tool: 'path', label: 'Path of lines and curves', icon: Spline },
    { tool: 'freehand', label: 'Freehand stroke', icon: Pencil },
    { tool: 'text', label: 'Text', icon: TypeIcon },
  ];

  function take(event: MouseEvent, tool: BoardTool): void {
    const byKeyboard = event.detail === 0;
    const { grid } = board.editor.composed.aids;
    const form = FORM_OF[tool];
    if (byKeyboard && form) {
      board.addForm(form, { x: -2 * grid, y: -2 * grid, width: 4 * grid, height: 4 * grid });
      board.tool = 'choose';
    } else if (byKeyboard && tool === 'line') {
      board.addLine([
        { op: 'M', to: { x: -2 * grid, y: 0 } },
        { op: 'L', to: { x: 2 * grid, y: 0 } },
      ]);
      board.tool = 'choose';
    } else if (byKeyboard && tool === 'path') {
      board.addLine([
        { op: 'M', to: { x: -2 * grid, y: grid } },
        { op: 'L', to: { x: 0, y: -grid } },
        { op: 'L', to: { x: 2 * grid, y: grid } },
      ]);
      board.tool = 'points';
    } else if (byKeyboard && tool === 'text') ontext({ x: 0, y: 0 });
    else board.tool = tool;
  }
</script>

<div class="tools" role="toolbar" aria-label="Drawing tools">
  {#each TOOLS as { tool, label, icon: Icon } (tool)}
    <button
      type="button"
      title={label}
      aria-label={label}
      aria-pressed={board.tool === tool}
      onclick={(event) => take(event, tool)}><Icon size={17} /></button
    >
  {/each}
</div>

<style>
  .tools {
    position: absolute;
    top: 10px;
    left: 10px;
    display: grid;
    gap: 2px;
    padding: 3px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: 0 1px 4px rgb(20 33 31 / 18%);
  }
  button {
    display: grid;
    place-items: center;
    width: 30px;
    height: 30px;
    border: 0;
    border-radius: 5px;
    background: none;
    cursor: pointer;
  }
  button:hover {
    background: var(--paper);
  }
  button[aria-pressed='true'] {
    background: var(--kelp);
    color: #fff;
  }
</style>
