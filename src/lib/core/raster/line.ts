import type { StraightPicture } from './recolour';

/**
 * What a line at the middle of a picture is. `real`: the pattern has it, `depth` of 255 deep. `screen`: only this drawing
 * of it shows it, its definition does not. `edge`: two areas meet there, which no line divides. `none`: nothing there.
 */
export type LineVerdict =
  { kind: 'real' | 'screen'; depth: number; shown: number } | { kind: 'edge' | 'none' };

/** Less than this (of 255) is no line: the rounding of two drawings. */
const LEAST = 3;
/** How far from the pressed place a line is looked for, px: as exactly as one presses. */
const REACH = 4;
/** What lies to both sides of a line at this distance, px, must be alike; the line itself is thinner. */
const SIDE = 3;

type Ridge = { depth: number; edge: number };

/**
 * Tells whether a line that `shown` (as the screen draws a place) has near its middle is there in `exact`: the same place
 * from its definition, sampled many times a pixel. Both have the same size, and both are opaque.
 */
export function judgeLine(shown: StraightPicture, exact: StraightPicture): LineVerdict {
  const seen = ridgeOf(shown);
  const defined = ridgeOf(exact);
  const deepest = Math.max(seen.depth, defined.depth);
  if (deepest < LEAST) return { kind: Math.max(seen.edge, defined.edge) < 2 * LEAST ? 'none' : 'edge' };
  const isReal = defined.depth >= LEAST && defined.depth * 2 >= seen.depth;
  return { kind: isReal ? 'real' : 'screen', depth: defined.depth, shown: seen.depth };
}

/** The deepest ridge or furrow near the middle, by the channel that shows it most, and the largest step. */
function ridgeOf({ width, height, data }: StraightPicture): Ridge {
  const [middleX, middleY] = [Math.floor(width / 2), Math.floor(height / 2)];
  const value = (x: number, y: number, channel: number): number => data[(y * width + x) * 4 + channel] ?? 0;
  const found: Ridge = { depth: 0, edge: 0 };
  const ways = [
    [1, 0],
    [0, 1],
    [1, 1],
    [1, -1],
  ] as const;
  for (let y = middleY - REACH; y <= middleY + REACH; y += 1)
    for (let x = middleX - REACH; x <= middleX + REACH; x += 1)
      for (const [across, down] of ways) {
        const [one, other] = [
          { x: x - across * SIDE, y: y - down * SIDE },
          { x: x + across * SIDE, y: y + down * SIDE },
        ];
        if (![one, other].every((at) => at.x >= 0 && at.y >= 0 && at.x < width && at.y < height)) continue;
        for (let channel = 0; channel < 3; channel += 1) {
          const sides = [value(one.x, one.y, channel), value(other.x, other.y, channel)] as const;
          const step = Math.abs(sides[0] - sides[1]);
          const here = value(x, y, channel);
          // What stands out beyond both sides is a line, also between two colours.
          const out = Math.max(here - Math.max(...sides), Math.min(...sides) - here);
          found.depth = Math.max(found.depth, out);
          found.edge = Math.max(found.edge, step);
        }
      }
  return found;
}

/** A picture in which each pixel is the mean of `factor` × `factor` of another one. */
export function meanPicture({ width, height, data }: StraightPicture, factor: number): StraightPicture {
  const [across, down] = [Math.floor(width / factor), Math.floor(height / factor)];
  const mean = new Uint8Array(across * down * 4);
  for (let y = 0; y < down; y += 1)
    for (let x = 0; x < across; x += 1)
      for (let channel = 0; channel < 4; channel += 1) {
        let sum = 0;
        for (let row = 0; row < factor; row += 1)
          for (let column = 0; column < factor; column += 1)
            sum += data[((y * factor + row) * width + x * factor + column) * 4 + channel]!;
        mean[(y * across + x) * 4 + channel] = Math.round(sum / (factor * factor));
      }
  return { width: across, height: down, data: mean };
}
