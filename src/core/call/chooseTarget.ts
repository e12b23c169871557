/** Whose eye: the place that is as likely as the best and most readily focused on. */
import { apertureValue, exactFNumber, fNumberFromApertureValue } from '../optics/stops';
import type { FocusArea } from '../setup/schema';
import { oddsOverLandings } from './oddsOverLandings';
import { noOdds, peakOf, placesOf, triesAt, type FocusPlaces, type TriedTarget, type TryPlane } from './places';
import type { FocusGroup } from './aim';
import type { Situation } from './situation';

/** Odds closer together than this are equal; the preferred place then decides (common practice, no source). */
const oddsTie = 0.03;

/** By so much must the odds be better for a place one would rather not focus on: one more frame of ten (no source). */
const realGain = 0.1;

/** And it must hold the faces this many stops sooner than the place one would rather focus on (no source). */
const soonerStops = { ordinary: 0, reluctant: 1, beside: 1.5 } as const;

/** Steps of the search for the first f-number that holds, within a tenth of a stop. */
const halvings = 6;

/** Blur ratios closer together than this look the same. */
const ratioTie = 0.05;

/**
 * So many places that would do are looked at for one where autofocus can hardly land elsewhere; the wider the area the less it
 * matters whose eye was meant.
 */
const lookedAt: Readonly<Record<FocusArea, number>> = {
  point: 16,
  tap: 4,
  neighbours: 4,
  zone: 2,
  tracking: 1,
  wholeFrame: 1,
  eyeDetection: 1
};

/**
 * The most preferred of some places that is as good as their best: within a tie of it, on the same side of what is wanted, and such
 * that autofocus lands there; or of those looked at the one where it does best. Its odds are over all it may land on.
 */
function mostPreferredOf(
  situation: Situation,
  group: FocusGroup,
  { mostPreferred }: FocusPlaces,
  peak: TriedTarget,
  tryPlane: TryPlane
): TriedTarget {
  const { intent, camera } = situation.setup;
  const { focusArea } = camera;
  const wanted = intent.oddsWanted;
  const asGood = ({ odds, worstRatio }: TriedTarget) => {
    if (peak.odds <= noOdds) return worstRatio <= peak.worstRatio + ratioTie;
    if (odds < peak.odds - oddsTie || (peak.odds >= wanted && odds < wanted)) return false;
    return peak.worstRatio > 1 + 1e-9 || worstRatio <= 1 + 1e-9;
  };
  const looked: TriedTarget[] = [];
  const look = (isGood: (tried: TriedTarget) => boolean, enough: number): void => {
    for (const { candidate, at } of mostPreferred) {
      if (looked.length >= lookedAt[focusArea]) return;
      const tried = tryPlane(at);
      if (!tried || !isGood(tried) || looked.some((item) => item.candidate === candidate)) continue;
      const own = tried.candidate === candidate ? tried : { ...tried, candidate, focus: { ...tried.focus, candidate } };
      const odds = oddsOverLandings(situation, group, own);
      looked.push({ ...own, odds });
      if (odds >= enough) return;
    }
  };
  look(asGood, peak.odds - oddsTie);
  // Where autofocus lands elsewhere from all of those, a lesser one that still does is better.
  if (holds(situation, peak) && !looked.some((tried) => holds(situation, tried))) {
    look((tried) => holds(situation, tried), wanted);
  }
  const most = Math.max(...looked.map(({ odds }) => odds));
  // As good as where focus lands on the best; or, where autofocus comes near that nowhere, as the best it does.
  const enough = Math.min(peak.odds - oddsTie, most >= peak.odds - oddsTie ? Infinity : most - oddsTie);
  return (
    looked.find(({ odds }) => odds >= enough && (odds >= wanted || most < wanted)) ?? {
      ...peak,
      odds: oddsOverLandings(situation, group, peak)
    }
  );
}

interface Choice extends TriedTarget {
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
