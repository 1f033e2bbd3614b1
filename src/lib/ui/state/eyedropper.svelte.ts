import { getContext, setContext } from 'svelte';
import type { Hex } from '$lib/core/colour/parse';

/** Squares over which a colour is read: one pixel, or the mean of an area; sides in px of the screen. */
export const PICK_SIDES = [1, 5, 15, 41] as const;

/** Takes a colour off what a view shows: a well asks, the view answers with the colour under the next press. */
export class Eyedropper {
  private asked: ((hex: Hex) => void) | null = $state.raw(null);
  side: (typeof PICK_SIDES)[number] = $state(1);

  get active(): boolean {
    return this.asked !== null;
  }

  ask(answer: (hex: Hex) => void): void {
    this.asked = answer;
  }

  answer(hex: Hex | null): void {
    const { asked } = this;
    this.asked = null;
    if (hex) asked?.(hex);
  }
}

const KEY = Symbol('eyedropper');

/** Makes an eyedropper for everything inside the component. */
export const provideEyedropper = (): Eyedropper => setContext(KEY, new Eyedropper());

/** The eyedropper of the view around, or `null` where it has none. */
export const useEyedropper = (): Eyedropper | null => getContext<Eyedropper | undefined>(KEY) ?? null;
