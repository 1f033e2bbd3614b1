import type { Hex } from './parse';
import { NO_SHIFT, type ColourShift } from './scheme';
import { follow, mapSame, type Links, type Tint } from './tint';

/**
 * How a picture is recoloured, kept beside the picture: a gradient map from dark to light onto two to five colours
 * (none for an empty list), then a shift in OKLCH, then a tint that gives it one hue by `amount` (0 to 1). Before all of
 * it the numbers of a numbered picture become `colours`, which no fill chooses: they are those of its pattern.
 */
export type PictureLook = {
  colours?: readonly Hex[];
  map: Tint[];
  shift: ColourShift;
  tint: (Tint & { amount: number }) | null;
};

export const PLAIN_LOOK: PictureLook = { map: [], shift: NO_SHIFT, tint: null };

/** True where a look leaves a picture as it is. */
export function isPlainLook({ colours, map, shift, tint }: PictureLook): boolean {
  const { hue, lightness, chroma } = shift;
  return (
    !colours &&
    map.length === 0 &&
    hue === 0 &&
    lightness === 0 &&
    chroma === 1 &&
    (tint === null || tint.amount === 0)
  );
}

/** A look with the present colours of its links; the same object where nothing changes. */
export function followLook(look: PictureLook, links: Links): PictureLook {
  const map = mapSame(look.map, (tint) => follow(tint, links));
  const tint = look.tint && follow(look.tint, links);
  return map === look.map && tint === look.tint ? look : { ...look, map, tint };
}

/** The look of a use with the colours that the numbers of a picture stand for; `null` where the picture stays as it is. */
export function withColours(look: PictureLook | null, colours: readonly Hex[] | null): PictureLook | null {
  if (colours) return { ...(look ?? PLAIN_LOOK), colours };
  return look && !isPlainLook(look) ? look : null;
}

/** A look in one line, the same for the same picture: links left out, their colours are in it. */
export function lookKey({ colours, map, shift, tint }: PictureLook): string {
  const numbers = [shift.hue, shift.lightness, shift.chroma].map((value) => String(+value.toFixed(4)));
  const tinted = tint ? `${tint.colour.slice(1)}:${+tint.amount.toFixed(4)}` : '';
  const own = colours ? `${colours.map((colour) => colour.slice(1)).join('.')}~` : '';
  return own + [map.map(({ colour }) => colour.slice(1)).join('.'), numbers.join(','), tinted].join('_');
}

/** A look from its key; `null` where it cannot be one. Inverse of {@link lookKey}, without links. */
export function readLookKey(key: string): PictureLook | null {
  const match =
    /^(?:([0-9a-f]{6}(?:\.[0-9a-f]{6}){0,7})~)?((?:[0-9a-f]{6}(?:\.[0-9a-f]{6})*)?)_(-?[\d.]+),(-?[\d.]+),([\d.]+)_(?:([0-9a-f]{6}):([\d.]+))?$/.exec(
      key,
    );
  if (!match) return null;
  const [, own, map = '', hue, lightness, chroma, tint, amount] = match;
  const numbers = [hue, lightness, chroma, amount ?? 0].map(Number);
  if (numbers.some((value) => !Number.isFinite(value))) return null;
  const hexes = (text: string): Hex[] => text.split('.').map((hex) => `#${hex}`);
  const stops = map === '' ? [] : hexes(map).map((colour) => ({ colour }));
  if (stops.length === 1 || stops.length > 5) return null;
  return {
    ...(own === undefined ? {} : { colours: hexes(own) }),
    map: stops,
    shift: { hue: numbers[0]!, lightness: numbers[1]!, chroma: numbers[2]! },
    tint: tint === undefined ? null : { colour: `#${tint}`, amount: numbers[3]! },
  };
}
