/** What a uniform disc lets through of a wave. */
import bessel from 'bessel';

/** Entries for each unit of πbν. */
const perUnit = 50;
/** 2 J1(x)/x up to where nothing is left that shows. */
const table = Float64Array.from({ length: 100 * perUnit }, (_, index) => {
  const x = index / perUnit;
  return x === 0 ? 1 : (2 * bessel.besselj(x, 1)) / x;
});

/** Contrast, 1 to -0.13, of a wave of `nu` cycles a unit through a disc of diameter `b` units (Hopkins 1955); within 1e-4, 0 beyond b ν = 31. */
export function discTransfer(b: number, nu: number): number {
  const at = Math.PI * b * nu * perUnit;
  const index = Math.floor(at);
  const [from, to] = [table[index], table[index + 1]];
  return from === undefined || to === undefined ? 0 : from + (to - from) * (at - index);
}
