import { LINEAR } from '../colour/contrast';
import { labOfLinear, linearOfLab } from '../colour/oklab';
import { isPlainLook, type PictureLook } from '../colour/look';
import { toOklab, toOklch, type Oklab } from '../colour/space';
import { colourNumbered } from './numbered';

/** Pixels with straight alpha, eight bits a channel, RGBA. */
export type StraightPicture = { width: number; height: number; data: Uint8Array | Uint8ClampedArray };

/**
 * Recolours a picture in place: first its gradient map (by OKLab lightness, between its colours in OKLab), then the
 * shift in OKLCH, then the tint. Alpha stays. What leaves sRGB is clipped channel by channel.
 * The conversions are Ottosson's OKLab (2020) as CSS Color 4 gives it.
 */
export function recolourPicture(picture: StraightPicture, look: PictureLook): void {
  const { data } = picture;
  if (look.colours) colourNumbered(picture, look.colours);
  if (isPlainLook({ ...look, colours: undefined })) return;
  const change = changeOf(look);
  const lab: Oklab = { l: 0, a: 0, b: 0 };
  for (let at = 0; at < data.length; at += 4) {
    if (data[at + 3] === 0) continue;
    labOf(data, at, lab);
    change(lab);
    write(lab, data, at);
  }
}

/** Changes a colour in OKLab. */
type Change = (lab: Oklab) => void;

function changeOf({ map, shift, tint }: PictureLook): Change {
  const steps: Change[] = [];
  if (map.length > 1) steps.push(mapOnto(map.map(({ colour }) => toOklab(colour))));
  const { hue, lightness, chroma } = shift;
  if (hue !== 0 || lightness !== 0 || chroma !== 1) {
    const turn = (hue * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn) * chroma, Math.sin(turn) * chroma];
    steps.push((lab) => {
      const { a, b } = lab;
      lab.l += lightness;
      lab.a = a * cos - b * sin;
      lab.b = a * sin + b * cos;
    });
  }
  if (tint && tint.amount > 0) {
    const { c, h } = toOklch(tint.colour);
    const [a, b] = [c * Math.cos((h * Math.PI) / 180), c * Math.sin((h * Math.PI) / 180)];
    const { amount } = tint;
    steps.push((lab) => {
      lab.a += (a - lab.a) * amount;
      lab.b += (b - lab.b) * amount;
    });
  }
  return (lab) => {
    for (const step of steps) step(lab);
  };
}

function mapOnto(stops: readonly Oklab[]): Change {
  const last = stops.length - 1;
  return (lab) => {
    const place = Math.min(1, Math.max(0, lab.l)) * last;
    const index = Math.min(last - 1, Math.floor(place));
    const part = place - index;
    const [from, to] = [stops[index]!, stops[index + 1]!];
    lab.l = from.l + (to.l - from.l) * part;
    lab.a = from.a + (to.a - from.a) * part;
    lab.b = from.b + (to.b - from.b) * part;
  };
}

/** The colour of the pixel at `at` in OKLab; alpha does not count. */
export function labOf(data: Uint8Array | Uint8ClampedArray, at: number, into: Oklab): void {
  labOfLinear(LINEAR[data[at]!]!, LINEAR[data[at + 1]!]!, LINEAR[data[at + 2]!]!, into);
}

const linear = new Float64Array(3);

function write(lab: Oklab, data: Uint8Array | Uint8ClampedArray, at: number): void {
  linearOfLab(lab, linear);
  for (let channel = 0; channel < 3; channel += 1) data[at + channel] = encode(linear[channel]!);
}

/** Linear → encoded byte (inverse of {@link LINEAR}). */
function encode(linear: number): number {
  if (!(linear > 0)) return 0;
  if (linear >= 1) return 255;
  return Math.round(255 * (linear <= 0.0031308 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055));
}

/** The mean colour of a square of pixels, alpha counted: what an eyedropper reads over an area. `null` where all is clear. */
export function averageColour(
  picture: StraightPicture,
  x: number,
  y: number,
  side: number,
): [number, number, number] | null {
  const reach = Math.floor(side / 2);
  const sum = [0, 0, 0];
  let weight = 0;
  for (let row = Math.max(0, y - reach); row <= Math.min(picture.height - 1, y + reach); row += 1)
    for (let column = Math.max(0, x - reach); column <= Math.min(picture.width - 1, x + reach); column += 1) {
      const at = (row * picture.width + column) * 4;
      const alpha = picture.data[at + 3]!;
      weight += alpha;
      for (let channel = 0; channel < 3; channel += 1)
        sum[channel]! += LINEAR[picture.data[at + channel]!]! * alpha;
    }
  if (weight === 0) return null;
  return sum.map((value) => encode(value / weight)) as [number, number, number];
}

/** Points of a picture in OKLab on an even grid of at most `most` points; pixels that are mostly clear are left out. */
export function samplePoints(picture: StraightPicture, most = 6000): Oklab[] {
  const { width, height, data } = picture;
  const step = Math.max(1, Math.ceil(Math.sqrt((width * height) / most)));
  const points: Oklab[] = [];
  for (let y = Math.floor(step / 2); y < height; y += step)
    for (let x = Math.floor(step / 2); x < width; x += step) {
      const at = (y * width + x) * 4;
      if (data[at + 3]! < 128) continue;
      const lab: Oklab = { l: 0, a: 0, b: 0 };
      labOf(data, at, lab);
      points.push(lab);
    }
  return points;
}
