import type { Raster } from '../raster/composite';
import type { AtHand } from './look';

/**
 * A picture and what comes of halving it, made where it is asked for: something small is read from the smallest that
 * still has a pixel for each of its own, so that neither every detail flickers in it nor most of a large picture is
 * skipped over.
 */
export class Levels {
  private readonly held: AtHand[];

  constructor(whole: AtHand) {
    this.held = [whole];
  }

  get whole(): AtHand {
    return this.held[0]!;
  }

  /** The level for a unit of which `scale` px are made to one of the picture's own. */
  for(scale: number): AtHand {
    let index = 0;
    for (;;) {
      const here = this.held[index]!;
      const { picture } = here;
      if (here.scale / 2 < scale || Math.min(picture.width, picture.height) < 2 * LEAST_SIDE) return here;
      index += 1;
      this.held[index] ??= { picture: halved(picture), scale: here.scale / 2 };
    }
  }
}

/** A side that is halved no more, px. */
const LEAST_SIDE = 16;

/** A picture of which each pixel is the mean of four; a last odd row or column is left out. */
function halved({ width, height, data }: Raster): Raster {
  const [wide, high] = [width >> 1, height >> 1];
  const out = new Uint8Array(wide * high * 4);
  for (let y = 0; y < high; y += 1) {
    const above = 2 * y * width * 4;
    const below = above + width * 4;
    for (let x = 0; x < wide; x += 1) {
      const [at, under, to] = [above + x * 8, below + x * 8, (y * wide + x) * 4];
      for (let channel = 0; channel < 4; channel += 1)
        out[to + channel] =
          (data[at + channel]! +
            data[at + 4 + channel]! +
            data[under + channel]! +
            data[under + 4 + channel]! +
            2) >>
          2;
    }
  }
  return { width: wide, height: high, data: out };
}
