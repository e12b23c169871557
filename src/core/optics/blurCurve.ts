import { blurInObjectSpace } from './blur';

interface BlurPoint {
  /** Behind the plane of focus, mm. */
  readonly behindMm: number;
  /** Detail smaller than this is lost there, mm in the scene. */
  readonly lostDetailMm: number;
}

/**
 * Detail lost behind the plane of focus: `A |z − s| / s` at `points` even steps from 0 to `furthestMm`.
 *
 * @param f focal length, mm
 * @param N f-number
 * @param s focus distance from the pupil, mm; more than f
 * Source: Merklinger, The INs and OUTs of FOCUS, 1990.
 */
export function blurBehind(f: number, N: number, s: number, furthestMm: number, points = 25): BlurPoint[] {
  return Array.from({ length: points }, (_, index) => {
    const behindMm = (furthestMm * index) / (points - 1);
    return { behindMm, lostDetailMm: blurInObjectSpace(f, N, s, s + behindMm) };
  });
}
