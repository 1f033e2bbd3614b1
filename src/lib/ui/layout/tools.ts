import Brush from '@lucide/svelte/icons/brush';
import Circle from '@lucide/svelte/icons/circle';
import Hexagon from '@lucide/svelte/icons/hexagon';
import MousePointer from '@lucide/svelte/icons/mouse-pointer';
import PencilLine from '@lucide/svelte/icons/pencil-line';
import Slash from '@lucide/svelte/icons/slash';
import Spline from '@lucide/svelte/icons/spline';
import Square from '@lucide/svelte/icons/square';
import Star from '@lucide/svelte/icons/star';
import TypeIcon from '@lucide/svelte/icons/type';
import type { Tool } from './session.svelte';

/** The tools of the stage in the order of their buttons; `key` takes one, pressed again it keeps it. */
export const TOOLS: readonly { tool: Tool; label: string; key: string; icon: typeof Square }[] = [
  { tool: 'select', label: 'Select and move', key: 'Esc', icon: MousePointer },
  { tool: 'rectangle', label: 'Draw a rectangle', key: 'R', icon: Square },
  { tool: 'ellipse', label: 'Draw an ellipse', key: 'E', icon: Circle },
  { tool: 'polygon', label: 'Draw a polygon', key: 'G', icon: Hexagon },
  { tool: 'star', label: 'Draw a star', key: 'A', icon: Star },
  { tool: 'line', label: 'Draw a line', key: 'L', icon: Slash },
  { tool: 'pen', label: 'Draw a path point by point', key: 'O', icon: Spline },
  { tool: 'freehand', label: 'Draw an outline by hand', key: 'H', icon: PencilLine },
  { tool: 'brush', label: 'Brush a stroke of pattern', key: 'U', icon: Brush },
  { tool: 'text', label: 'Set text', key: 'T', icon: TypeIcon },
];

/** The tool that a key takes. */
export const toolOfKey = (key: string): Tool | null =>
  TOOLS.find((one) => one.key.toLowerCase() === key)?.tool ?? null;
