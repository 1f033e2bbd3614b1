/** Whether this machine keeps the first byte of a word in its lowest bits. */
const LOW_FIRST = new Uint8Array(Uint32Array.of(1).buffer)[0] === 1;

/** RGBA bytes as one word a pixel, to be compared or copied at once; the same memory where it is aligned. */
export function wordsOf(data: Uint8Array): Uint32Array {
  const aligned = data.byteOffset % 4 === 0 ? data : data.slice();
  return new Uint32Array(aligned.buffer, aligned.byteOffset, aligned.length >> 2);
}

/** One channel of a pixel's word, 0 for red to 3 for alpha. */
export const byteOf = (word: number, channel: 0 | 1 | 2 | 3): number =>
  (word >>> (8 * (LOW_FIRST ? channel : 3 - channel))) & 255;
