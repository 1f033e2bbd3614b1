import { modulo } from '../num/tolerance';
import type { Raster } from './composite';

/** How a join stands out against the other lines of its direction: shares, 0 to 1, of a line where the colour jumps. */
export type JoinScore = { share: number; usual: number; visible: boolean };

/** Neighbouring pixels that differ by more than this (0 to 255) jump: our own choice. */
const JUMP = 10;
/** A join counts as visible from this share on: shorter jumps are art that happens to end there. */
const LEAST_SHARE = 0.3;

/**
 * Judges the joins of a periodic picture at its left and right edges, and at its upper and lower ones: a join is
 * visible where the colour jumps along much of it, and along much more of it than at nine tenths of all other lines.
 */
export function judgeJoins(picture: Raster): { across: JoinScore; down: JoinScore } {
  return {
    across: judge(picture, picture.width, columnJumps),
    down: judge(picture, picture.height, rowJumps),
  };
}

type Jumps = (picture: Raster, line: number) => number;

function judge(picture: Raster, lines: number, jumps: Jumps): JoinScore {
  const others: number[] = [];
  for (let line = 1; line < lines; line += 1) others.push(jumps(picture, line));
  others.sort((one, other) => one - other);
  const usual = others[Math.floor(others.length * 0.9)] ?? 0;
  const share = jumps(picture, 0);
  return { share, usual, visible: share > LEAST_SHARE && share > usual * 2 };
}

/** The share of a column's left edge along which the colour jumps, with wrap. */
function columnJumps({ width, height, data }: Raster, column: number): number {
  const [before, after] = [modulo(column - 1, width), modulo(column, width)];
  let count = 0;
  for (let row = 0; row < height; row += 1)
    if (differs(data, (row * width + before) * 4, (row * width + after) * 4)) count += 1;
  return count / height;
}

function rowJumps({ width, height, data }: Raster, row: number): number {
  const [before, after] = [modulo(row - 1, height), modulo(row, height)];
  let count = 0;
  for (let column = 0; column < width; column += 1)
    if (differs(data, (before * width + column) * 4, (after * width + column) * 4)) count += 1;
  return count / width;
}

function differs(data: Uint8Array, one: number, other: number): boolean {
  for (let channel = 0; channel < 4; channel += 1)
    if (Math.abs(data[one + channel]! - data[other + channel]!) > JUMP) return true;
  return false;
}
