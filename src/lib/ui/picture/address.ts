import { LIMITS } from '$lib/core/recipe/limits';
import type { PicturedRecipe } from '$lib/core/recipe/recipe';
import { BACK } from '../state/last-layout';
import { freshRecipe } from './pictured-recipes';

type Shown = { asset: string; width: number; height: number; scaleX: number };

/** Where a picture that a shape shows becomes a repeat: at the size at which it lies there. */
export function repeatAddress({ asset, width, height, scaleX }: Shown, name: string): string {
  const query = new URLSearchParams({
    start: 'picture',
    asset,
    width: String(width),
    height: String(height),
    density: String(scaleX),
    name: name.slice(0, LIMITS.nameLength).trim() || 'Picture',
  });
  return `/library/new?${query}&${BACK}`;
}

/** The pattern that such an address begins with; `null` for an address that names no picture. */
export function freshFrom(query: URLSearchParams): PicturedRecipe | null {
  const asset = query.get('asset') ?? '';
  const [width, height] = [Number(query.get('width')), Number(query.get('height'))];
  const density = Number(query.get('density')) || 1;
  const name = query.get('name') || 'Picture';
  const sound =
    /^[0-9a-f]{64}$/.test(asset) &&
    [width, height].every((side) => Number.isInteger(side) && side > 0 && side <= LIMITS.pictureSide);
  return sound ? freshRecipe({ asset, width, height, name }, Math.abs(density)) : null;
}
