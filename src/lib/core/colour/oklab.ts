import type { Oklab } from './space';

/** Linear sRGB (0 to 1 a channel) in OKLab, after Ottosson 2020, “A perceptual color space for image processing”. */
export function labOfLinear(r: number, g: number, b: number, into: Oklab): void {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  into.l = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  into.a = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  into.b = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
}

/** OKLab as linear sRGB; what lies outside sRGB is below 0 or above 1. */
export function linearOfLab({ l, a, b }: Oklab, into: { [channel: number]: number }): void {
  const long = (l + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const middle = (l - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const short = (l - 0.0894841775 * a - 1.291485548 * b) ** 3;
  into[0] = 4.0767416621 * long - 3.3077115913 * middle + 0.2309699292 * short;
  into[1] = -1.2684380046 * long + 2.6097574011 * middle - 0.3413193965 * short;
  into[2] = -0.0041960863 * long - 0.7034186147 * middle + 1.707614701 * short;
}
