import { LOOKS, MOCKUP_LIMITS, type Camera } from '$lib/core/mockup/mockup';
import { clamp, wrapDegrees } from '$lib/core/num/tolerance';

/** A camera within its limits, in whole degrees. */
export function boundedLook(camera: Camera): Camera {
  const { raised, zoom, moved } = MOCKUP_LIMITS;
  const fine = (value: number, { least, most }: { least: number; most: number }): number =>
    clamp(Math.round(value * 1000) / 1000, least, most);
  return {
    turn: wrapDegrees(Math.round(camera.turn)),
    raised: clamp(Math.round(camera.raised), raised.least, raised.most),
    zoom: fine(camera.zoom, zoom),
    x: fine(camera.x, moved),
    y: fine(camera.y, moved),
  };
}

/** Where a key has one look from; what is seen goes where an arrow points, as under a hand. `null` for other keys. */
export function lookByKey(event: KeyboardEvent, camera: Camera): Partial<Camera> | null {
  if (event.ctrlKey || event.metaKey || event.altKey) return null;
  const step = event.shiftKey ? 15 : 3;
  const named = LOOKS.find(({ key }) => key === event.key);
  if (named) return { turn: named.turn, raised: named.raised, zoom: 1, x: 0, y: 0 };
  const ways: Record<string, Partial<Camera>> = {
    ArrowLeft: { turn: camera.turn + step },
    ArrowRight: { turn: camera.turn - step },
    ArrowUp: { raised: camera.raised - step },
    ArrowDown: { raised: camera.raised + step },
    '+': { zoom: camera.zoom * 1.15 },
    '-': { zoom: camera.zoom / 1.15 },
    '0': { zoom: 1, x: 0, y: 0 },
  };
  return ways[event.key] ?? null;
}
