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

/** Shutter time that is right for a scene level. */
export function shutterFor(sceneEv100: number, fNumber: number, iso: number): number {
  return (fNumber * fNumber) / (2 ** sceneEv100 * (iso / 100));
}

/** ISO speed that is right for a scene level. */
export function isoFor(sceneEv100: number, fNumber: number, shutterS: number): number {
  return (100 * fNumber * fNumber) / (2 ** sceneEv100 * shutterS);
}

/** Stops of flash power one aperture needs more than another: 2 log2(N2/N1). */
export function flashStopsBetween(fromFNumber: number, toFNumber: number): number {
  return 2 * Math.log2(toFNumber / fromFNumber);
}

/** Stops of flash lost from one distance to another by the inverse square: 2 log2(d2/d1). */
export function flashFallOff(fromDistance: number, toDistance: number): number {
  return 2 * Math.log2(toDistance / fromDistance);
}

/** Share of full power a flash needs: (N d/GN)² · 100/S, guide number in metres at ISO 100. Above 1 it is too weak. */
export function flashPower(guideNumberM: number, fNumber: number, distanceMm: number, iso: number): number {
  return ((fNumber * distanceMm) / 1000 / guideNumberM) ** 2 * (100 / iso);
}

/** Shutter marks in third stops, as cameras engrave them, from 1/8000 s to 30 s. */
const shutterMarks = (
  '1/8000 1/6400 1/5000 1/4000 1/3200 1/2500 1/2000 1/1600 1/1250 1/1000 1/800 1/640 1/500 1/400 1/320 1/250 1/200 ' +
  '1/160 1/125 1/100 1/80 1/60 1/50 1/40 1/30 1/25 1/20 1/15 1/13 1/10 1/8 1/6 1/5 1/4 0.3 0.4 0.5 0.6 0.8 1 1.3 1.6 2 ' +
  '2.5 3.2 4 5 6 8 10 13 15 20 25 30'
).split(' ');

/** The mark nearest to a time, "1/250", and for longer ones with its unit, "0.5 s". */
export function shutterLabel(shutterS: number): string {
  const steps = Math.round(3 * Math.log2(shutterS) + 39);
  const mark = shutterMarks[steps];
  if (mark === undefined) return shutterS < 1 ? `1/${Math.round(1 / shutterS)}` : `${Math.round(shutterS)} s`;
  return mark.includes('/') ? mark : `${mark} s`;
}

/** ISO marks in third stops from 50: 50, 64, 80, 100 … */
export function isoLabel(iso: number): string {
  const thirds = Math.round(3 * Math.log2(iso / 100));
  const series = [100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250];
  const within = ((thirds % 12) + 12) % 12;
  const decades = 16 ** Math.floor(thirds / 12);
  const value = (series[within] ?? 100) * decades;
  return String(value >= 100 ? Math.round(value / 10) * 10 : Math.round(value));
}
