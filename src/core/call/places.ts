/** The places focus may be put on, by the planes they come to, and the best of those at one stop. */
import { groups } from 'd3-array';
import { bestFocusBetween } from '../optics/blur';
import type { Candidate, TargetPreference } from './candidates';
import { focusAt, oddsInput, meanPlane, worstRatioOf, type Focus } from './focus';
import type { LightAtStop } from './light';
import { keeperOdds } from './odds';
import type { FocusGroup } from './aim';
import type { Situation } from './situation';

/** Odds closer together than this are equal; the preferred place, or the wider stop, then decides (common practice, no source). */
export const oddsTie = 0.03;

/** Odds too small to choose by; the blur then decides. */
export const noOdds = 0.001;

export interface TriedTarget {
  readonly candidate: Candidate;
  readonly focus: Focus;
  readonly odds: number;
  readonly worstRatio: number;
}

/** What a group gets from one candidate: its odds and its worst blur ratio. */
export function tryCandidate(
  situation: Situation,
  group: FocusGroup,
  N: number,
  light: LightAtStop,
  candidate: Candidate
): TriedTarget {
  const focus = focusAt(situation, N, candidate, light);
  return {
    candidate,
    focus,
    odds: keeperOdds(oddsInput(situation, focus, group.members)),
    worstRatio: worstRatioOf(situation, group, focus)
  };
}

/** Candidates of one standing: as readily as one would focus there, and the different planes they come to. */
export interface FocusPlaces {
  readonly mostPreferred: readonly { readonly candidate: Candidate; readonly at: number }[];
  /** One candidate for each plane, by where it lies: people in one row share a depth, and all that is computed from it. */
  readonly planes: readonly Candidate[];
  /** The plane that shares the blur most evenly, and how far in vergence it is from doing so. */
  readonly evenest: number;
  readonly off: number;
}

/** Planes nearer together than this are one, mm. */
const samePlaneMm = 1e-6;

/** What is alike of two places has the same odds and the same blur. */
const planeKey = ({ biasMm, biasUm, stopShift, focusDistanceMm, behindMm, leanMm }: Candidate): string =>
  JSON.stringify([Math.round(biasMm / samePlaneMm), biasUm, stopShift, focusDistanceMm, behindMm, leanMm]);

/** Those of one standing; undefined where there is none. */
export function placesOf(situation: Situation, group: FocusGroup, standing: TargetPreference): FocusPlaces | undefined {
  const all = standing === 'beside' ? group.beside : group.eyes.filter((candidate) => candidate.standing === standing);
  const planeAt = (candidate: Candidate) => meanPlane(situation, candidate);
  const byPlane = groups(all, planeKey).flatMap(([key, [candidate]]) => (candidate ? [{ key, candidate }] : []));
  byPlane.sort((a, b) => planeAt(a.candidate) - planeAt(b.candidate));
  const even = 1 / bestFocusBetween(group.nearest, group.furthest);
  const off = byPlane.map(({ candidate }) => Math.abs(1 / planeAt(candidate) - even));
  const least = Math.min(...off);
  const at = new Map(byPlane.map(({ key }, index) => [key, index]));
  return all.length === 0
    ? undefined
    : {
        mostPreferred: all.map((candidate) => ({ candidate, at: at.get(planeKey(candidate)) ?? 0 })),
        planes: byPlane.map(({ candidate }) => candidate),
        evenest: off.indexOf(least),
        off: least
      };
}

/** What each plane gives at one stop, tried once. */
export type TryPlane = (at: number) => TriedTarget | undefined;

export function triesAt(situation: Situation, group: FocusGroup, { planes }: FocusPlaces, N: number): TryPlane {
  const light = situation.light(N);
  const tried: (TriedTarget | undefined)[] = [];
  return (at) => {
    const candidate = planes[at];
    return (tried[at] ??= candidate && tryCandidate(situation, group, N, light, candidate));
  };
}

/**
 * The best of some planes: by its odds, or where nobody has any by its blur. Both have one peak over where the plane lies,
 * so it is climbed from the one that shares the blur evenly.
 */
export function peakOf({ evenest }: FocusPlaces, tryPlane: TryPlane): TriedTarget | undefined {
  let best = tryPlane(evenest);
  if (!best || best.odds >= 1 - 1e-9) return best;
  const better = (a: TriedTarget, b: TriedTarget) =>
    a.odds > noOdds || b.odds > noOdds ? a.odds > b.odds : a.worstRatio < b.worstRatio;
  for (const step of [-1, 1]) {
    for (let next = evenest + step; ; next += step) {
      const tried = tryPlane(next);
      if (!tried) break;
      if (better(tried, best)) best = tried;
      // Focused with another point of the same place, the odds may be less and those beyond it more.
      else if (Math.abs(tried.focus.plane - best.focus.plane) >= samePlaneMm) break;
    }
  }
  return best;
}
