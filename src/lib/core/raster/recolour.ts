import { LINEAR } from '../colour/contrast';
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
  const [r, g, b] = [LINEAR[data[at]!]!, LINEAR[data[at + 1]!]!, LINEAR[data[at + 2]!]!];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  into.l = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  into.a = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  into.b = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
}

function write({ l, a, b }: Oklab, data: Uint8Array | Uint8ClampedArray, at: number): void {
  const long = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const middle = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const short = (l - 0.0894841775 * a - 1.291485548 * b) ** 3;
  data[at] = encode(4.0767416621 * long - 3.3077115913 * middle + 0.2309699292 * short);
  data[at + 1] = encode(-1.2684380046 * long + 2.6097574011 * middle - 0.3413193965 * short);
  data[at + 2] = encode(-0.0041960863 * long - 0.7034186147 * middle + 1.707614701 * short);
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
