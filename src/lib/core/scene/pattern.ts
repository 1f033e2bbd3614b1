import type { Colourway } from '../colour/colourway';
import type { Hex } from '../colour/parse';
import { resolveSlots, type ColourSlot } from '../colour/slots';
import { plainColours } from '../colour/tint';
import type { Point } from '../geom/point';
import type { PatternFill } from '../recipe/fill';
import type { Layout } from '../recipe/layout';
import { withoutGround, type UnitScene } from './unit';

/**
 * A pattern at one revision, compiled, with its slots. `key` is the same for the same drawing (pattern and revision).
 * `bare` is the drawing for uses with another ground: the same, unless its own ground draws in the unit.
 */
export type CompiledPattern = {
  key: string;
  name: string;
  scene: UnitScene;
  slots: ColourSlot[];
  colourways: readonly Colourway[];
  bare: CompiledPattern;
};

/** Makes a compiled pattern of a scene. */
export function compiledPattern(
  key: string,
  name: string,
  scene: UnitScene,
  slots: ColourSlot[],
  colourways: readonly Colourway[] = [],
): CompiledPattern {
  const whole: Omit<CompiledPattern, 'bare'> & { bare?: CompiledPattern } = {
    key,
    name,
    scene,
    slots,
    colourways,
  };
  const bare = scene.ground?.art
    ? compiledPattern(`${key}~`, name, withoutGround(scene), slots, colourways)
    : null;
  whole.bare = bare ?? (whole as CompiledPattern);
  return whole as CompiledPattern;
}

/** A ground in colours: flat, or a gradient with the period `to` in pattern px. */
export type FlatGround = {
  colour: Hex;
  gradient: { to: Point; stops: { at: number; colour: Hex }[] } | null;
};

/** Finds the compiled pattern of a fill, `null` where it is gone; `pages` are the layouts that fills show, by their ids. */
export type PatternLookup = {
  (fill: PatternFill): CompiledPattern | null;
  readonly pages?: ReadonlyMap<string, Layout>;
};

/** The colours of a use: the pattern's own, those of its colourway over them, its own over all. */
export function coloursOf(
  fill: Pick<PatternFill, 'colourway' | 'colours'>,
  { slots, colourways }: Pick<CompiledPattern, 'slots' | 'colourways'>,
): Record<string, Hex> {
  const way = colourways.find((one) => one.id === fill.colourway);
  return resolveSlots(slots, { ...(way ? plainColours(way.colours) : {}), ...plainColours(fill.colours) });
}

/** A pattern's own ground in colours; `null` where it is clear. */
export function resolveGround(
  { ground }: UnitScene,
  colours: Readonly<Record<string, Hex>>,
): FlatGround | null {
  const colour = ground ? colours[ground.slot] : undefined;
  if (!ground || colour === undefined) return null;
  const gradient = ground.gradient && {
    to: ground.gradient.to,
    stops: ground.gradient.stops.map(({ at, slot }) => ({ at, colour: colours[slot] ?? colour })),
  };
  return { colour, gradient };
}
