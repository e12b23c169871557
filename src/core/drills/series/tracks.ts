/** The track that shake leaves of a mark: how long, and in which direction, against the frame in which it is sharpest. */
import { median } from 'd3-array';
import { fitDisc } from '../../measure/fit';
import { likeliestMovement, movementEvidence } from '../../measure/motion';
import { expectedAt, markScales, markPatchSide, sharpestOf, type MarkedFrame, type MarkSeen } from './fiducials';

export interface Track {
  /** Length, pixels; 0 where none is to be seen. */
  readonly px: number;
  /** Its direction, radians, 0 to π: 0 across; null where it is too short to have one. */
  readonly angle: number | null;
}

/** Shorter tracks look like none, pixels (chosen on simulated marks). */
export const leastTrackPx = 1.5;
/** A movement must explain a patch so much better than a disc, as a logarithm of chances (chosen on simulated marks). */
const leastGain = 4;
/** A track blurs an edge across it as a disc of so much of its length (fitted: short tracks of 1 to 3 pixels in all directions). */
const discPerTrack = 0.9;
/** A longer one is looked for at half the size, pixels: the longest that are told lie a little beyond. */
const longPx = 16;
/** Only where the patch still has so many times the longest track, pixels (chosen: in smaller ones a track of 20 reads as 28 to 40). */
const leastSide = 64;

/** By frame: the median of its marks; null where none could be measured. */
export function tracksOf(frames: readonly MarkedFrame[]): (Track | null)[] {
  const { references, sharpest } = sharpestOf(frames);
  return frames.map(({ marks }, frame) => {
    const tracks = marks.flatMap((mark): Track[] => {
      const reference = references.get(mark.index);
      if (!reference) return [];
      if (sharpest.get(mark.index) === frame) return [{ px: 0, angle: null }];
      const track = trackOf(mark, reference);
      return track ? [track] : [];
    });
    const px = median(tracks, (track) => track.px);
    if (px === undefined) return null;
    const angles = tracks.flatMap(({ angle }) => angle ?? []);
    // Axes, not arrows: the mean of doubled angles.
    const [x, y] = [
      angles.reduce((sum, a) => sum + Math.cos(2 * a), 0),
      angles.reduce((sum, a) => sum + Math.sin(2 * a), 0)
    ];
    const angle = 2 * angles.length > tracks.length ? (Math.atan2(y, x) / 2 + Math.PI) % Math.PI : null;
    return { px: px < leastTrackPx ? 0 : px, angle };
  });
}

function trackOf(mark: MarkSeen, reference: MarkSeen): Track | null {
  let found: Track | null = null;
  for (const [at, times] of markScales.entries()) {
    const [own, sharp] = [mark.spectra[at], reference.spectra[at]];
    if (!own || !sharp || (at > 0 && markPatchSide(reference.sidePx) < leastSide * times)) break;
    const expected = expectedAt(mark, reference, sharp, times);
    const evidence = movementEvidence(own, expected, 0);
    const smear = evidence && likeliestMovement([evidence]);
    if (smear && Math.max(...evidence) > leastGain) {
      found = { px: smear.px * times, angle: smear.angle };
      if (smear.px <= longPx) return found;
      continue;
    }
    if (found) break;
    const disc = fitDisc(own, expected);
    return disc ? { px: disc.discPx / discPerTrack, angle: null } : null;
  }
  return found;
}
