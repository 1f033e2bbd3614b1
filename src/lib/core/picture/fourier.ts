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
      const turned = forward({ re, im: im.map((value) => -value) });
      return { re: turned.re.map((value) => value / size), im: turned.im.map((value) => -value / size) };
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
  const inner = direct(long);
  const cos = new Float64Array(size);
  const sin = new Float64Array(size);
  for (let at = 0; at < size; at += 1) {
    // The square is taken modulo 2·size, so that the angle stays exact.
    const angle = (Math.PI * ((at * at) % (2 * size))) / size;
    cos[at] = Math.cos(angle);
    sin[at] = Math.sin(angle);
  }
  const chirp = { re: new Float64Array(long), im: new Float64Array(long) };
  for (let at = 0; at < size; at += 1)
    for (const place of [at, (long - at) % long]) {
      chirp.re[place] = cos[at]!;
      chirp.im[place] = sin[at]!;
    }
  const kernel = inner(chirp);
  return ({ re, im }) => {
    const row = { re: new Float64Array(long), im: new Float64Array(long) };
    for (let at = 0; at < size; at += 1) {
      row.re[at] = re[at]! * cos[at]! + im[at]! * sin[at]!;
      row.im[at] = im[at]! * cos[at]! - re[at]! * sin[at]!;
    }
    const turned = inner(row);
    const product = { re: new Float64Array(long), im: new Float64Array(long) };
    for (let at = 0; at < long; at += 1) {
      product.re[at] = turned.re[at]! * kernel.re[at]! - turned.im[at]! * kernel.im[at]!;
      // The conjugate, for the way back.
      product.im[at] = -(turned.re[at]! * kernel.im[at]! + turned.im[at]! * kernel.re[at]!);
    }
    const back = inner(product);
    const out = { re: new Float64Array(size), im: new Float64Array(size) };
    for (let at = 0; at < size; at += 1) {
      const [x, y] = [back.re[at]! / long, -back.im[at]! / long];
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
