declare module "fft.js" {
  /** FFT is a fast Fourier transform of a size that is a power of two. */
  export default class FFT {
    constructor(size: number);
    /** An array for a spectrum: real and imaginary parts in turn. */
    createComplexArray(): number[];
    /** realTransform fills the first half of the spectrum of real samples. */
    realTransform(spectrum: number[], samples: ArrayLike<number>): void;
  }
}
