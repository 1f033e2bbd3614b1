import { allLayers, type DrawnShape } from '$lib/core/draw/list';

/** How many shapes one drawing of a page holds. */
const RUN = 48;

/**
 * The shapes of a page in drawings of a few that lie over each other: the browser paints anew only the drawing in which
 * something changes. Colours blend within one drawing only, so a page with a blend is a single one. Runs that stay as in
 * `last` stay the same arrays.
 */
export function runsOf(
  scenes: readonly DrawnShape[],
  last: readonly (readonly DrawnShape[])[] = [],
): readonly (readonly DrawnShape[])[] {
  if (scenes.length <= RUN || scenes.some(blends)) return [scenes];
  const count = Math.ceil(scenes.length / RUN);
  return Array.from({ length: count }, (_, index) => {
    const run = scenes.slice(index * RUN, (index + 1) * RUN);
    const before = last[index];
    const same = before?.length === run.length && run.every((scene, at) => scene === before[at]);
    return same ? before : run;
  });
}

const blends = (scene: DrawnShape): boolean => allLayers(scene).some(({ blend }) => blend !== 'normal');
