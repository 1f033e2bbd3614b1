/** A picture in memory: rows of RGBA, eight bits a channel, premultiplied by alpha. */
export type Raster = { width: number; height: number; data: Uint8Array };

/**
 * Lays `layer` over `base` with its upper left corner at (x, y): source-over of W3C Compositing and Blending Level 1
 * on premultiplied colour. `mask`, of the layer's size, counts by its alpha; `opacity` is 0 to 1. Changes `base`.
 */
export function layOver(
  base: Raster,
  layer: Raster,
  x: number,
  y: number,
  mask: Raster | null,
  opacity: number,
): void {
  const strength = Math.round(opacity * 255);
  const firstColumn = Math.max(0, -x);
  const lastColumn = Math.min(layer.width, base.width - x);
  for (let row = Math.max(0, -y); row < Math.min(layer.height, base.height - y); row += 1) {
    let from = (row * layer.width + firstColumn) * 4;
    let to = ((row + y) * base.width + x + firstColumn) * 4;
    for (let column = firstColumn; column < lastColumn; column += 1, from += 4, to += 4) {
      const alpha = layer.data[from + 3]!;
      if (alpha === 0) continue;
      const cover = mask ? over255(mask.data[from + 3]! * strength) : strength;
      if (cover === 0) continue;
      if (cover === 255 && alpha === 255) {
        base.data[to] = layer.data[from]!;
        base.data[to + 1] = layer.data[from + 1]!;
        base.data[to + 2] = layer.data[from + 2]!;
        base.data[to + 3] = 255;
        continue;
      }
      const rest = 255 - over255(alpha * cover);
      for (let channel = 0; channel < 4; channel += 1) {
        base.data[to + channel] = over255(
          layer.data[from + channel]! * cover + base.data[to + channel]! * rest,
        );
      }
    }
  }
}

/** value / 255, rounded to the nearest whole number; `value` is 0 to 65025. */
const over255 = (value: number): number => ((value + 128) * 257) >> 16;
