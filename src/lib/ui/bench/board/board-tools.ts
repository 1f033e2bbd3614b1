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
import type { BoardTool } from './board.svelte';

/** The tools of the drawing board in the order of their buttons; `key` takes one. */
export const BOARD_TOOLS: readonly { tool: BoardTool; label: string; key: string; icon: typeof Square }[] = [
  { tool: 'choose', label: 'Choose and move', key: 'Esc', icon: MousePointer },
  { tool: 'points', label: 'Points of a path', key: 'N', icon: Waypoints },
  { tool: 'rectangle', label: 'Rectangle', key: 'R', icon: Square },
  { tool: 'ellipse', label: 'Ellipse', key: 'E', icon: Circle },
  { tool: 'polygon', label: 'Polygon', key: 'G', icon: Hexagon },
  { tool: 'star', label: 'Star', key: 'A', icon: Star },
  { tool: 'line', label: 'Straight line', key: 'L', icon: Slash },
  { tool: 'path', label: 'Path of lines and curves', key: 'O', icon: Spline },
  { tool: 'freehand', label: 'Freehand stroke', key: 'H', icon: Pencil },
  { tool: 'text', label: 'Text', key: 'T', icon: TypeIcon },
];
