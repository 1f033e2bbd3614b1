declare module 'fft.js' {
  /** The parts of fft.js that are used: transforms of complex numbers, interleaved, of a power of two. */
  export default class FFT {
    constructor(size: number);
    transform(out: Float64Array, data: Float64Array): void;
  }
}
