import { expect, it } from 'vitest';
import { discMtf } from '../testing/mtf';
import { discTransfer } from './discTransfer';

it('is that of a uniform disc, by another Bessel function', () => {
  for (const b of [0, 0.4, 3, 11, 24])
    for (let nu = 0.01; nu < 0.5; nu += 0.013)
      expect(Math.abs(Math.abs(discTransfer(b, nu)) - discMtf(b, nu))).toBeLessThan(1e-4);
  // Beyond its first zero contrast is turned round.
  expect(discTransfer(10, 0.16)).toBeLessThan(-0.1);
  expect(discTransfer(1000, 0.4)).toBe(0);
  // Between the last entry and nothing there is nothing to go by.
  for (let b = 31.8; b < 31.9; b += 0.001) expect(Math.abs(discTransfer(b, 1))).toBeLessThan(0.01);
});
