<script lang="ts">
  import type { Board, BoardTool } from './board.svelte';
  import { FORM_OF } from './board-drags';
  import { BOARD_TOOLS } from './board-tools';

  /** The drawing tools. Taken with the pointer they wait for a drag; pressed with the keyboard a form is set in the middle. */
  type Props = { board: Board; ontext: (at: { x: number; y: number }) => void };
  let { board, ontext }: Props = $props();

  function take(event: MouseEvent, tool: BoardTool): void {
    const byKeyboard = event.detail === 0;
    const { grid } = board.editor.composed.aids;
    const form = FORM_OF[tool];
    if (byKeyboard && form) {
      board.addForm(form, { x: -2 * grid, y: -2 * grid, width: 4 * grid, height: 4 * grid });
      board.hand.letGo();
    } else if (byKeyboard && tool === 'line') {
      board.addLine([
        { op: 'M', to: { x: -2 * grid, y: 0 } },
        { op: 'L', to: { x: 2 * grid, y: 0 } },
      ]);
      board.hand.letGo();
    } else if (byKeyboard && tool === 'path') {
      board.addLine([
        { op: 'M', to: { x: -2 * grid, y: grid } },
        { op: 'L', to: { x: 0, y: -grid } },
        { op: 'L', to: { x: 2 * grid, y: grid } },
      ]);
      board.hand.take('points');
    } else if (byKeyboard && tool === 'text') ontext({ x: 0, y: 0 });
    else board.hand.take(tool);
  }
</script>

<div class="tools" role="toolbar" aria-label="Drawing tools">
  {#each BOARD_TOOLS as { tool, label, key, icon: Icon } (tool)}
    {@const kept = board.tool === tool && board.hand.kept}
    <button
      type="button"
      class:kept
      title="{label} ({key}){kept ? ': kept until it is pressed again' : ''}"
      aria-label={kept ? `${label}: kept` : label}
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
