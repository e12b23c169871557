declare module 'bessel' {
  const bessel: {
    /** Bessel function of the first kind of a whole order. */
    besselj(x: number, order: number): number;
  };
  export default bessel;
}
