import { PNG } from 'pngjs';

/** Whether a colour, 0 to 255, is of some sort. */
export type IsColour = (r: number, g: number, b: number) => boolean;

/** Colours in light and shade: much more of one than of the others. */
export const red: IsColour = (r, g, b) => r > 1.7 * g && r > 1.7 * b;
export const green: IsColour = (r, g, b) => g > 1.4 * r && g > 1.4 * b;
export const blue: IsColour = (r, g, b) => b > 1.4 * r && b > 1.4 * g;

/** The share of a picture that is of some sort of colour. */
export function shareOf({ width, height, data }: PNG, is: IsColour): number {
  let count = 0;
  for (let at = 0; at < data.length; at += 4) if (is(data[at]!, data[at + 1]!, data[at + 2]!)) count += 1;
  return count / (width * height);
}

/** The colours along a line across a picture, at a share of its height. */
export function across({ width, height, data }: PNG, share: number): [number, number, number][] {
  const row = Math.floor(height * share) * width * 4;
  return Array.from({ length: width }, (_one, x) => {
    const at = row + x * 4;
    return [data[at]!, data[at + 1]!, data[at + 2]!];
  });
}
