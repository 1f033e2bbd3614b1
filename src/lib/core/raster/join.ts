import { modulo } from '../num/tolerance';
import type { Raster } from './composite';

/** How much more a line across the picture stands out than the lines beside it. */
export type JoinScore = {
  /** The mean difference of the pixels on both sides of the join, 0 to 255. */
  across: number;
  /** The same at nine tenths of all other lines of that direction. */
  usual: number;
  visible: boolean;
};

/** Below this mean difference a line is not seen, whatever lies beside it (0 to 255): our own choice. */
const UNSEEN = 4;

/**
 * Judges the joins of a periodic picture at its left and right edges, and at its upper and lower ones: a join is
 * visible where neighbouring pixels differ much more across it than across other lines of the picture.
 */
export function judgeJoins(picture: Raster): { across: JoinScore; down: JoinScore } {
  return { across: judge(picture, picture.width, columnDifference), down: judge(picture, picture.height, rowDifference) };
}

type LineDifference = (picture: Raster, line: number) => number;

function judge(picture: Raster, lines: number, difference: LineDifference): JoinScore {
  const others: number[] = [];
  for (let line = 1; line < lines; line += 1) others.push(difference(picture, line));
  others.sort((one, other) => one - other);
  const usual = others[Math.floor(others.length * 0.9)] ?? 0;
  const across = difference(picture, 0);
  return { across, usual, visible: across > UNSEEN && across > usual * 2.5 };
}

/** The mean difference between the pixels left and right of a column's left edge, with wrap. */
function columnDifference({ width, height, data }: Raster, column: number): number {
  const [before, after] = [modulo(column - 1, width), modulo(column, width)];
  let sum = 0;
  for (let row = 0; row < height; row += 1)
    sum += pixelDifference(data, (row * width + before) * 4, (row * width + after) * 4);
  return sum / height;
}

function rowDifference({ width, height, data }: Raster, row: number): number {
  const [before, after] = [modulo(row - 1, height), modulo(row, height)];
  let sum = 0;
  for (let column = 0; column < width; column += 1)
    sum += pixelDifference(data, (before * width + column) * 4, (after * width + column) * 4);
  return sum / width;
}

function pixelDifference(data: Uint8Array, one: number, other: number): number {
  let most = 0;
  for (let channel = 0; channel < 4; channel += 1)
    most = Math.max(most, Math.abs(data[one + channel]! - data[other + channel]!));
  return most;
}
