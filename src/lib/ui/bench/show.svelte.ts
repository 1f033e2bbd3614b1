import type { Point } from '$lib/core/geom/point';
import { clamp } from '$lib/core/num/tolerance';
import { surfaceBackground, type Surface } from '../components/surfaces';

/** What a check points out on the unit view: places with a reach, or pieces. */
export type Pointed = {
  what: string;
  circles: { at: Point; radius: number }[];
  lines: { from: Point; to: Point }[];
};

const SCREEN_KEY = 'isle.screen-scale';

/** How the bench shows its pattern: nothing here changes the pattern. */
export class BenchShow {
  surface: Surface = $state('light');
  /** Any colour as the surface, in place of the usual ones. */
  surfaceColour: string | null = $state(null);
  readonly background = $derived(this.surfaceColour ?? surfaceBackground(this.surface));
  /** 0 to 1: how strongly the neighbours are veiled. */
  veil = $state(0.55);
  symmetry = $state(false);
  /** The flat view: ten by ten repeats without edges or veil, to judge the rhythm. */
  flat = $state(false);
  /** While true the last published revision is shown in place of the work. */
  published = $state(false);
  pointed: Pointed | null = $state.raw(null);
  /** Screen px for one CSS px, so that 1 mm on this screen is 1 mm: 1 until someone measures it with a card. */
  screenScale = $state(readScale());

  setScreenScale(scale: number): void {
    this.screenScale = clamp(scale, 0.25, 4);
    localStorage.setItem(SCREEN_KEY, String(this.screenScale));
  }
}

function readScale(): number {
  const held = typeof localStorage === 'undefined' ? Number.NaN : Number(localStorage.getItem(SCREEN_KEY));
  return held >= 0.25 && held <= 4 ? held : 1;
}
