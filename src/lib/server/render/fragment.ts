import { deflateSync } from 'node:zlib';
import { Resvg } from '@resvg/resvg-js';
import { filterRows, pngChunk, pngHead } from '../../core/formats/png';
import { PICTURE_PPI, type DrawPicture } from '../../core/svg/art-pictures';

/** Pixels of one picture, and of all pictures that one file is drawn as. */
const MOST_PIXELS = 16_000_000;
const MOST_IN_ALL = 40_000_000;
const CSS_PPI = 96;

/** Draws parts of files as pictures, as many as one file may have: 300 ppi where they are not too large for that. */
export function picturesWithin(): DrawPicture {
  let spent = 0;
  return (svg, { width, height }) => {
    const most = Math.min(MOST_PIXELS, MOST_IN_ALL - spent);
    const scale = Math.min(PICTURE_PPI / CSS_PPI, Math.sqrt(most / (width * height)));
    if (!(scale * Math.min(width, height) >= 1)) return null;
    const options = { font: { loadSystemFonts: false }, logLevel: 'off' as const };
    const drawn = new Resvg(svg, { ...options, fitTo: { mode: 'zoom', value: scale } }).render();
    const seen = inkBox(drawn);
    if (!seen) return { href: '', box: { x: 0, y: 0, width: 0, height: 0 } };
    spent += seen.width * seen.height;
    const across = width / drawn.width;
    const down = height / drawn.height;
    const box = {
      x: seen.x * across,
      y: seen.y * down,
      width: seen.width * across,
      height: seen.height * down,
    };
    const bytes = cropped(drawn, seen);
    return { href: `data:image/png;base64,${Buffer.from(bytes).toString('base64')}`, box };
  };
}

type Pixels = { width: number; height: number; pixels: Uint8Array };
type Seen = { x: number; y: number; width: number; height: number };

/** The box of all pixels that are not wholly clear, or `null`. */
function inkBox({ width, height, pixels }: Pixels): Seen | null {
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      if (pixels[(y * width + x) * 4 + 3] === 0) continue;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = y;
    }
  return right < 0 ? null : { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

/** A part of a picture as a PNG file. */
function cropped({ width, pixels }: Pixels, seen: Seen): Uint8Array {
  const part = new Uint8Array(seen.width * seen.height * 4);
  for (let y = 0; y < seen.height; y += 1) {
    const from = ((seen.y + y) * width + seen.x) * 4;
    part.set(pixels.subarray(from, from + seen.width * 4), y * seen.width * 4);
  }
  const data = deflateSync(filterRows(part, seen.width, true), { level: 6 });
  return Buffer.concat([
    pngHead({ width: seen.width, height: seen.height, ppi: PICTURE_PPI, alpha: true }),
    pngChunk('IDAT', data),
    pngChunk('IEND', new Uint8Array(0)),
  ]);
}
