import { getContext, setContext } from 'svelte';

/** A box of the window, px. */
export type WindowBox = { left: number; top: number; right: number; bottom: number };

const KEY = Symbol('what panels keep clear of');

/** Says what panels that steer something on a stage must not cover: `box` gives it as it lies now. */
export const keepClearOf = (box: () => WindowBox | null): void => {
  setContext(KEY, box);
};

export const clearBox = (): (() => WindowBox | null) =>
  getContext<(() => WindowBox | null) | undefined>(KEY) ?? (() => null);

const overlap = (one: WindowBox, other: WindowBox): number =>
  Math.max(0, Math.min(one.right, other.right) - Math.max(one.left, other.left)) *
  Math.max(0, Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top));

/** The place that covers least of a box; the first of those that cover alike. */
export const clearest = <T extends WindowBox>(places: readonly T[], box: WindowBox): T | undefined =>
  places.reduce<T | undefined>(
    (best, place) => (best && overlap(best, box) <= overlap(place, box) ? best : place),
    undefined,
  );
