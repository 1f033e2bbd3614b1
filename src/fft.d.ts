declare module 'fft.js' {
  /** The parts of fft.js that are used: transforms of complex numbers, interleaved, of a power of two. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    transform(out: number[], data: number[]): void;
  }
}
