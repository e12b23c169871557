declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    /** Both as real and imaginary parts in turn. */
    transform(out: number[], data: readonly number[]): void;
  }
}
