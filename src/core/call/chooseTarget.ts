/** Whose eye: the place that is as likely as the best and most readily focused on, where focus lands as meant. */
import { apertureValue, exactFNumber, fNumberFromApertureValue } from '../optics/stops';
import type { FocusArea } from '../setup/schema';
import { oddsOverLandings } from './oddsOverLandings';
import { rowStepMm } from './candidates';
import {
  noOdds,
  oddsTie,
  peakOf,
  placesOf,
  triesAt,
  type FocusPlaces,
  type TriedTarget,
  type TryPlane
} from './places';
import type { FocusGroup } from './aim';
import { isByHand } from './scatter';
import type { Situation } from './situation';

/** By so much must the odds be better for a place one would rather not focus on: one more frame of ten (no source). */
const realGain = 0.1;

/** And it must hold the faces this many stops sooner than the place one would rather focus on (no source). */
const soonerStops = { ordinary: 0, reluctant: 1, beside: 1.5 } as const;

/** Steps of the search for the first f-number that holds, within a tenth of a stop. */
const halvings = 6;

/** Blur ratios closer together than this look the same. */
const ratioTie = 0.05;

/** So many places of one row are looked at for one where an aimed point lands. */
const lookedAt = 16;

/** Areas the photographer aims: with the others it matters little whose eye was meant. */
const isAimed: ReadonlySet<FocusArea> = new Set(['point', 'neighbours', 'tap']);

/**
 * The most preferred of some places that is as good as their best: within a tie of it, and on the same side of what is wanted. What
 * autofocus may take instead decides no more than which of one row's eyes a point is laid on: the first with nothing before or
 * beside it, else the one it lands on most often.
 */
function mostPreferredOf(
  situation: Situation,
  group: FocusGroup,
  { mostPreferred }: FocusPlaces,
  peak: TriedTarget,
  tryPlane: TryPlane
): TriedTarget {
  const { intent, camera } = situation.setup;
  const wanted = intent.oddsWanted;
  const asGood = ({ odds, worstRatio }: TriedTarget) => {
    if (peak.odds <= noOdds) return worstRatio <= peak.worstRatio + ratioTie;
    if (odds < peak.odds - oddsTie || (peak.odds >= wanted && odds < wanted)) return false;
    return peak.worstRatio > 1 + 1e-9 || worstRatio <= 1 + 1e-9;
  };
  const aimed = isAimed.has(camera.focusArea) && !isByHand(camera.focusMethod);
  let first: TriedTarget | undefined;
  let best: { readonly own: TriedTarget; readonly landed: number } | undefined;
  let left = lookedAt;
  for (const { candidate, at } of mostPreferred) {
    const tried = tryPlane(at);
    if (!tried || !asGood(tried)) continue;
    const own = tried.candidate === candidate ? tried : { ...tried, candidate, focus: { ...tried.focus, candidate } };
    first ??= own;
    if (Math.abs(candidate.focusDistanceMm - first.candidate.focusDistanceMm) > rowStepMm) continue;
    if (!aimed) return own;
    const landed = oddsOverLandings(situation, group, own);
    if (landed >= own.odds - oddsTie) return own;
    if (!best || landed > best.landed) best = { own, landed };
    if ((left -= 1) === 0) break;
  }
  return best?.own ?? first ?? peak;
}

export interface Choice extends TriedTarget {
  readonly gain: number;
}

const known = new WeakMap<FocusGroup, readonly FocusPlaces[]>();

/**
 * The places that come into question, by standing. A lesser one only where it holds the faces a good deal sooner than those
 * before it: what is gained by closing the lens a little is not worth an odd place to focus on.
 */
function placesFor(situation: Situation, group: FocusGroup): readonly FocusPlaces[] {
  const found = known.get(group) ?? inQuestion(situation, group);
  known.set(group, found);
  return found;
}

function inQuestion(situation: Situation, group: FocusGroup): readonly FocusPlaces[] {
  const [widest, smallest] = [situation.sharpness.widestFNumber, exactFNumber(situation.lens.smallestFNumber)];
  const holdsAt = (N: number, places: FocusPlaces) => {
    const peak = peakOf(places, triesAt(situation, group, places, N));
    return peak !== undefined && holds(situation, peak);
  };
  const firstOf = (places: FocusPlaces): number => {
    if (holdsAt(widest, places)) return widest;
    if (!holdsAt(smallest, places)) return Infinity;
    let [low, high] = [apertureValue(widest), apertureValue(smallest)];
    for (let i = 0; i < halvings; i++) {
      const middle = (low + high) / 2;
      if (holdsAt(fNumberFromApertureValue(middle), places)) high = middle;
      else low = middle;
    }
    return fNumberFromApertureValue(high);
  };
  const half = (1 / group.nearest - 1 / group.furthest) / 2;
  const result: FocusPlaces[] = [];
  let first: number | undefined;
  for (const standing of ['ordinary', 'reluctant', 'beside'] as const) {
    const before = result[result.length - 1];
    // Shared evenly, the blur is at best so many stops less.
    if (before && 2 * Math.log2(1 + before.off / Math.max(half, 1e-12)) < worthLooking * soonerStops[standing])
      continue;
    const places = placesOf(situation, group, standing);
    if (!places || (before && places.off >= before.off)) continue;
    if (before) {
      first ??= firstOf(before);
      const sooner = first * 2 ** (-soonerStops[standing] / 2);
      if (first !== Infinity && (sooner < widest || !holdsAt(sooner, places))) continue;
      first = Math.min(first, firstOf(places));
    }
    result.push(places);
  }
  return result;
}

/** What a lesser place may gain by its blur alone, as a share of what it must gain, before it is looked at. */
const worthLooking = 0.6;

function holds({ setup }: Situation, { odds, worstRatio }: TriedTarget): boolean {
  return odds >= setup.intent.oddsWanted && worstRatio <= 1 + 1e-9;
}

/** Where to focus: places in the order one would rather focus on them, the lesser ones only for a real gain. */
export function chooseTarget(situation: Situation, group: FocusGroup, N: number): Choice | undefined {
  let chosen: Choice | undefined;
  let ordinaryOdds = 0;
  for (const places of placesFor(situation, group)) {
    const tryPlane = triesAt(situation, group, places, N);
    const peak = peakOf(places, tryPlane);
    if (!peak) continue;
    if (chosen && peak.odds < chosen.odds + realGain && (holds(situation, chosen) || !holds(situation, peak))) continue;
    const best = mostPreferredOf(situation, group, places, peak, tryPlane);
    if (!chosen) ordinaryOdds = best.odds;
    chosen = { ...best, gain: Math.max(0, best.odds - ordinaryOdds) };
  }
  return chosen;
}
