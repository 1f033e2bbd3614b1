import type { Raster } from '../../raster/composite';
import { TEXTURES, type Texture, type TextureKind } from '../../recipe/texture';
import { speckle, terrazzo } from './chips';
import { brushed, cloud, marble, paper, wood, type Greys, type Numbers } from './grains';
import { linen, twill } from './weave';

type Maker = (size: { width: number; height: number }, seed: number, of: Numbers) => Greys;

const MAKERS: Readonly<Record<TextureKind, Maker>> = {
  brushed,
  paper,
  linen,
  twill,
  terrazzo,
  speckle,
  cloud,
  marble,
  wood,
};

/** The picture that numbers make: opaque greys, which repeat by themselves. The same numbers make the same bytes everywhere. */
export function makeTexture({ kind, width, height, seed, numbers }: Texture): Raster {
  const starts = new Map(TEXTURES[kind].numbers.map(({ key, start }) => [key, start]));
  const greys = MAKERS[kind]({ width, height }, seed, (key) => numbers[key] ?? starts.get(key) ?? 0);
  const data = new Uint8Array(width * height * 4);
  for (let at = 0; at < greys.length; at += 1) {
    const to = at * 4;
    data[to] = data[to + 1] = data[to + 2] = greys[at]!;
    data[to + 3] = 255;
  }
  return { width, height, data };
}
