import FFT from 'fft.js';

/** Complex numbers as two rows of the same length. */
export type Complex = { re: Float64Array; im: Float64Array };

/** A Fourier transform of one length. */
export type Transform = { forward(row: Complex): Complex; backward(row: Complex): Complex };

const known = new Map<number, Transform>();

/**
 * The discrete Fourier transform of `size` values, any size: powers of two directly, others as a convolution of one
 * (Bluestein 1970). `backward` divides by the size, so that it is the inverse of `forward`.
 */
export function transformOf(size: number): Transform {
  const held = known.get(size);
  if (held) return held;
  const forward = size > 1 && (size & (size - 1)) === 0 ? direct(size) : size === 1 ? same : chirped(size);
  const made: Transform = {
    forward,
    backward: ({ re, im }) => {
      // The inverse is the transform of the conjugate, conjugated and divided.
      const other = new Float64Array(im.length);
      for (let at = 0; at < other.length; at += 1) other[at] = -im[at]!;
      const turned = forward({ re, im: other });
      for (let at = 0; at < size; at += 1) {
        turned.re[at]! /= size;
        turned.im[at] = -turned.im[at]! / size;
      }
      return turned;
    },
  };
  known.set(size, made);
  return made;
}

const same = ({ re, im }: Complex): Complex => ({ re: re.slice(), im: im.slice() });

function direct(size: number): (row: Complex) => Complex {
  const fft = new FFT(size);
  const input = new Float64Array(2 * size);
  const output = new Float64Array(2 * size);
  return ({ re, im }) => {
    for (let at = 0; at < size; at += 1) {
      input[2 * at] = re[at]!;
      input[2 * at + 1] = im[at]!;
    }
    fft.transform(output, input);
    const out = { re: new Float64Array(size), im: new Float64Array(size) };
    for (let at = 0; at < size; at += 1) {
      out.re[at] = output[2 * at]!;
      out.im[at] = output[2 * at + 1]!;
    }
    return out;
  };
}

function chirped(size: number): (row: Complex) => Complex {
  let long = 1;
  while (long < 2 * size - 1) long *= 2;
  const fft = new FFT(long);
  const cos = new Float64Array(size);
  const sin = new Float64Array(size);
  for (let at = 0; at < size; at += 1) {
    // The square is taken modulo 2·size, so that the angle stays exact.
    const angle = (Math.PI * ((at * at) % (2 * size))) / size;
    cos[at] = Math.cos(angle);
    sin[at] = Math.sin(angle);
  }
  // Real and imaginary parts in turn, as the transform takes them; what lies beyond the row stays nought.
  const row = new Float64Array(2 * long);
  const turned = new Float64Array(2 * long);
  const product = new Float64Array(2 * long);
  const kernel = new Float64Array(2 * long);
  for (let at = 0; at < size; at += 1)
    for (const place of [at, (long - at) % long]) {
      row[2 * place] = cos[at]!;
      row[2 * place + 1] = sin[at]!;
    }
  fft.transform(kernel, row);
  row.fill(0);
  return ({ re, im }) => {
    for (let at = 0; at < size; at += 1) {
      row[2 * at] = re[at]! * cos[at]! + im[at]! * sin[at]!;
      row[2 * at + 1] = im[at]! * cos[at]! - re[at]! * sin[at]!;
    }
    fft.transform(turned, row);
    for (let at = 0; at < 2 * long; at += 2) {
      const a = turned[at]!;
      const b = turned[at + 1]!;
      product[at] = a * kernel[at]! - b * kernel[at + 1]!;
      // The conjugate, for the way back.
      product[at + 1] = -(a * kernel[at + 1]! + b * kernel[at]!);
    }
    fft.transform(turned, product);
    const out = { re: new Float64Array(size), im: new Float64Array(size) };
    for (let at = 0; at < size; at += 1) {
      const x = turned[2 * at]! / long;
      const y = -turned[2 * at + 1]! / long;
      out.re[at] = x * cos[at]! + y * sin[at]!;
      out.im[at] = y * cos[at]! - x * sin[at]!;
    }
    return out;
  };
}

/** One channel of a picture, row by row. */
export type Plane = { width: number; height: number; values: Float64Array };

/**
 * The smooth part of a picture's "periodic plus smooth" decomposition (Moisan 2011, "Periodic plus smooth image
 * decomposition", J. Math. Imaging Vis. 39): the picture less it has no jump at its border but what it has within. The
 * mean of the smooth part is 0.
 */
export function smoothPart({ width, height, values }: Plane): Plane {
  const jump = new Float64Array(width * height);
  for (let y = 0; y < height; y += 1) {
    const step = values[y * width + width - 1]! - values[y * width]!;
    jump[y * width]! += step;
    jump[y * width + width - 1]! -= step;
  }
  for (let x = 0; x < width; x += 1) {
    const step = values[(height - 1) * width + x]! - values[x]!;
    jump[x]! += step;
    jump[(height - 1) * width + x]! -= step;
  }
  const turned = transform2(jump, new Float64Array(width * height), width, height, 'forward');
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      const weight = 2 * Math.cos((2 * Math.PI * x) / width) + 2 * Math.cos((2 * Math.PI * y) / height) - 4;
      turned.re[at] = at === 0 ? 0 : turned.re[at]! / weight;
      turned.im[at] = at === 0 ? 0 : turned.im[at]! / weight;
    }
  return {
    width,
    height,
    values: transform2(turned.re, turned.im, width, height, 'backward').re,
  };
}

/** The transform of a picture, or its inverse: rows first, then columns. */
export function transform2(
  re: Float64Array,
  im: Float64Array,
  width: number,
  height: number,
  way: 'forward' | 'backward',
): Complex {
  const out = { re: re.slice(), im: im.slice() };
  const along = transformOf(width)[way];
  for (let y = 0; y < height; y += 1) {
    const from = y * width;
    const row = along({ re: out.re.subarray(from, from + width), im: out.im.subarray(from, from + width) });
    out.re.set(row.re, from);
    out.im.set(row.im, from);
  }
  const across = transformOf(height)[way];
  const column = { re: new Float64Array(height), im: new Float64Array(height) };
  for (let x = 0; x < width; x += 1) {
    for (let y = 0; y < height; y += 1) {
      column.re[y] = out.re[y * width + x]!;
      column.im[y] = out.im[y * width + x]!;
    }
    const turned = across(column);
    for (let y = 0; y < height; y += 1) {
      out.re[y * width + x] = turned.re[y]!;
      out.im[y * width + x] = turned.im[y]!;
    }
  }
  return out;
}
