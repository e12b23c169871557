/**
 * Exposure in APEX terms: EV = log2(N²/t), EV100 = log2(N²/t) − log2(S/100).
 * Sources: Exif 2.32 / CIPA DC-008 annex C; ISO 2720 for exposure meters. Times in seconds, S the ISO speed.
 */

/** Exposure value of a setting, at its own speed. */
export function exposureValue(fNumber: number, shutterS: number): number {
  return Math.log2((fNumber * fNumber) / shutterS);
}

/** Scene level a setting is right for: EV at ISO 100. */
export function ev100(fNumber: number, shutterS: number, iso: number): number {
  return exposureValue(fNumber, shutterS) - Math.log2(iso / 100);
}

/** Shutter time that is right for a light level. */
export function shutterFor(levelEv100: number, fNumber: number, iso: number): number {
  return (fNumber * fNumber) / (2 ** levelEv100 * (iso / 100));
}

/** ISO speed that is right for a light level. */
export function isoFor(levelEv100: number, fNumber: number, shutterS: number): number {
  return (100 * fNumber * fNumber) / (2 ** levelEv100 * shutterS);
}

/** Share of full power a flash needs: (N d/GN)² · 100/S, guide number in metres at ISO 100. Above 1 it is too weak. */
export function flashPower(guideNumberM: number, fNumber: number, distanceMm: number, iso: number): number {
  return ((fNumber * distanceMm) / 1000 / guideNumberM) ** 2 * (100 / iso);
}

/**
 * Light lost to the lens being drawn out to focus near, in stops: the exposure goes by the effective f-number N(1 + m/P),
 * so 2 log2(1 + m/P) (Ray, Applied Photographic Optics: bellows factor). `m` ≥ 0.
 */
export function extensionStops(m: number, P = 1): number {
  return 2 * Math.log2(1 + m / P);
}
