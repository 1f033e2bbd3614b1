import type { Point } from '$lib/core/geom/point';
import { clamp } from '$lib/core/num/tolerance';
import { isHex } from '$lib/core/colour/parse';
import { contrasts } from '$lib/core/recipe/contrast';
import { showsPicture, type Recipe } from '$lib/core/recipe/recipe';
import { isSurface, surfaceBackground, SURFACES, type Surface } from '../components/surfaces';

/** What a check points out on the unit view: places with a reach, or pieces. */
export type Pointed = {
  what: string;
  circles: { at: Point; radius: number }[];
  lines: { from: Point; to: Point }[];
};

const SCREEN_KEY = 'isle.screen-scale';
const SURFACE_KEY = 'isle.surfaces';
/** Patterns whose surface is remembered; beyond them the oldest is forgotten. */
const MOST_REMEMBERED = 300;
/** Art none of whose colours has this contrast (WCAG 2.2) with the surface can hardly be seen on it: our own choice. */
const PALE = 1.3;

/** The sizes at which a pattern is shown beside the unit, one of them life size. */
export const SIZES = [0.25, 0.5, 1, 2] as const;

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

  /** True while the surface is the dark one because the art is pale. */
  forPale = $state(false);
  /** True once a person has chosen what this pattern lies on. */
  private chosen = false;
  private pattern: string | null = null;

  /** Takes up what a pattern was laid on last, on this computer. */
  recallSurface(pattern: string | null): void {
    this.pattern = pattern;
    const held = pattern === null ? undefined : surfaces().get(pattern);
    if (held === undefined) return;
    this.chosen = true;
    this.forPale = false;
    if (isSurface(held)) this.surface = held;
    else if (isHex(held)) this.surfaceColour = held;
  }

  /** Lays the pattern on a surface, or on any colour, and remembers it. */
  layOn(surface: Surface | { colour: string }): void {
    if (typeof surface === 'string') this.surface = surface;
    this.surfaceColour = typeof surface === 'string' ? null : surface.colour;
    this.chosen = true;
    this.forPale = false;
    this.remember();
  }

  /** Remembers the surface under the id that a new pattern got. */
  named(pattern: string): void {
    if (this.pattern === pattern) return;
    this.pattern = pattern;
    if (this.chosen) this.remember();
  }

  private remember(): void {
    if (this.pattern === null) return;
    const all = surfaces();
    all.delete(this.pattern);
    all.set(this.pattern, this.surfaceColour ?? this.surface);
    localStorage.setItem(SURFACE_KEY, JSON.stringify([...all].slice(-MOST_REMEMBERED)));
  }

  /** Lays art that can hardly be seen on the light surface on the dark one, until a person has chosen; and back. */
  noticePale(recipe: Recipe): void {
    if (this.chosen) return;
    this.forPale = isPale(recipe);
    this.surface = this.forPale ? 'dark' : 'light';
  }

  setScreenScale(scale: number): void {
    this.screenScale = clamp(scale, 0.25, 4);
    localStorage.setItem(SCREEN_KEY, String(this.screenScale));
  }
}

function isPale(recipe: Recipe): boolean {
  if (recipe.ground.kind !== 'clear') return false;
  if (recipe.kind === 'composed' && recipe.motifs.some(({ content }) => showsPicture(content))) return false;
  const light = SURFACES.find(({ id }) => id === 'light')?.colour ?? '#ffffff';
  const standing = contrasts(recipe, { name: 'the surface', colour: light });
  return standing.length > 0 && standing.every(({ ratio }) => ratio < PALE);
}

function surfaces(): Map<string, string> {
  try {
    return new Map(JSON.parse(localStorage.getItem(SURFACE_KEY) ?? '[]') as [string, string][]);
  } catch {
    return new Map();
  }
}

function readScale(): number {
  const held = typeof localStorage === 'undefined' ? Number.NaN : Number(localStorage.getItem(SCREEN_KEY));
  return held >= 0.25 && held <= 4 ? held : 1;
}
