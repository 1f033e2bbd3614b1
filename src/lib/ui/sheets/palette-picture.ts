import type { Hex } from '$lib/core/colour/parse';
import { contrastRatio } from '$lib/core/colour/contrast';

/** Colours in equal rows of at most eight. */
export function paletteRows(count: number): { columns: number; rows: number } {
  const rows = Math.max(1, Math.ceil(count / 8));
  return { columns: Math.max(1, Math.ceil(count / rows)), rows };
}

/** A palette as a picture: each colour with its name and hex value in it, three wide to two high. */
export function drawPalette(
  colours: readonly { name: string; hex: Hex }[],
  width: number,
): HTMLCanvasElement {
  const { columns, rows } = paletteRows(colours.length);
  const made = document.createElement('canvas');
  const cell = { width: width / columns, height: (width / columns) * (2 / 3) };
  [made.width, made.height] = [Math.round(width), Math.round(cell.height * rows)];
  const context = made.getContext('2d')!;
  const size = cell.width * 0.085;
  colours.forEach(({ name, hex }, at) => {
    const [x, y] = [(at % columns) * cell.width, Math.floor(at / columns) * cell.height];
    context.fillStyle = hex;
    context.fillRect(Math.floor(x), Math.floor(y), Math.ceil(cell.width) + 1, Math.ceil(cell.height) + 1);
    context.fillStyle = contrastRatio(hex, '#ffffff') > contrastRatio(hex, '#14211f') ? '#ffffff' : '#14211f';
    context.font = `650 ${size}px "Schibsted Grotesk Variable", sans-serif`;
    context.fillText(name, x + size, y + cell.height - size * 2.3, cell.width - 2 * size);
    context.font = `500 ${size * 0.92}px "Spline Sans Mono Variable", monospace`;
    context.fillText(hex, x + size, y + cell.height - size, cell.width - 2 * size);
  });
  return made;
}
