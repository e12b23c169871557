/** Whose eye: the place that is as likely as the best and most gladly focused on. */
import { bestFocusBetween } from '../optics/blur';
import { apertureValue, exactFNumber, fNumberFromApertureValue } from '../optics/stops';
import type { Candidate, Standing } from './candidates';
import { focusAt, lightFor, oddsInput, worstRatioOf, type Focus } from './focus';
import type { LightAtStop } from './light';
import { keeperOdds } from './odds';
import type { Group, Situation } from './situation';

/** Odds closer together than this are equal; the more gladly focused place then decides (common practice, no source). */
const oddsTie = 0.03;

/** By so much must the odds be better for a place one would rather not focus on: one more frame of ten (no source). */
const realGain = 0.1;

/** And it must hold the faces this many stops sooner than the place one would rather focus on (no source). */
const soonerStops = { ordinary: 0, reluctant: 1, beside: 1.5 } as const;

/** Steps of the search for the first f-number that holds, within a tenth of a stop. */
const halvings = 6;

/** Blur ratios closer together than this look the same. */
const ratioTie = 0.05;

/** Odds too small to choose by; the blur then decides. */
const noOdds = 0.001;

interface Tried {
  readonly candidate: Candidate;
  readonly focus: Focus;
  readonly odds: number;
  readonly worstRatio: number;
}

/** What a group gets from one candidate: its odds and its worst blur ratio. */
export function tryCandidate(
  situation: Situation,
  group: Group,
  N: number,
  light: LightAtStop,
  candidate: Candidate
): Tried {
  const focus = focusAt(situation, N, candidate, light);
  return {
    candidate,
    focus,
    odds: keeperOdds(oddsInput(situation, focus, group.members)),
    worstRatio: worstRatioOf(situation, group, focus)
  };
}

/**
 * The best of some candidates: by its odds, or where nobody has any by its blur. Both have one peak over where the plane
 * lies, so it is climbed from the place that shares the blur evenly.
 */
function peakOf(group: Group, among: readonly Candidate[], tryAt: (candidate: Candidate) => Tried): Tried | undefined {
  const plane = (candidate: Candidate) => candidate.focusDistanceMm + candidate.biasMm;
  const sorted = [...among].sort((a, b) => plane(a) - plane(b));
  const even = 1 / bestFocusBetween(group.nearest, group.furthest);
  const off = (candidate: Candidate) => Math.abs(1 / plane(candidate) - even);
  let at = sorted.reduce((best, item, index) => (off(item) < off(sorted[best] ?? item) ? index : best), 0);
  const first = sorted[at];
  if (!first) return undefined;
  let best = tryAt(first);
  if (best.odds >= 1 - 1e-9) return best;
  const better = (a: Tried, b: Tried) =>
    a.odds > noOdds || b.odds > noOdds ? a.odds > b.odds : a.worstRatio < b.worstRatio;
  for (const step of [-1, 1]) {
    for (let next = at + step; ; next += step) {
      const candidate = sorted[next];
      const tried = candidate && tryAt(candidate);
      // Places at one depth are as good as each other.
      if (tried && candidate && Math.abs(plane(candidate) - plane(best.candidate)) < 1e-6 && !better(tried, best))
        continue;
      if (!tried || !better(tried, best)) break;
      best = tried;
      at = next;
    }
  }
  return best;
}

/** The gladdest of some candidates that is as good as their best: within a tie of it, and on the same side of what is wanted. */
function gladdest(
  among: readonly Candidate[],
  peak: Tried,
  wanted: number,
  tryAt: (candidate: Candidate) => Tried
): Tried {
  const asGood = ({ odds, worstRatio }: Tried) => {
    if (peak.odds <= noOdds) return worstRatio <= peak.worstRatio + ratioTie;
    if (odds < peak.odds - oddsTie || (peak.odds >= wanted && odds < wanted)) return false;
    return peak.worstRatio > 1 + 1e-9 || worstRatio <= 1 + 1e-9;
  };
  for (const candidate of among) {
    const tried = tryAt(candidate);
    if (asGood(tried)) return tried;
  }
  return peak;
}

interface Choice extends Tried {
  readonly gain: number;
}

/** Tries places at one stop, each only once: people in one row share a depth, and so everything that is computed from it. */
function triesAt(situation: Situation, group: Group, N: number): (candidate: Candidate) => Tried {
  const light = lightFor(situation, N);
  const byPlane = new Map<string, Tried>();
  return (candidate) => {
    const { focusDistanceMm, biasMm, behindMm, leanMm } = candidate;
    const key = `${focusDistanceMm} ${biasMm} ${behindMm} ${leanMm}`;
    const alike = byPlane.get(key);
    if (alike) return alike.candidate === candidate ? alike : { ...alike, candidate };
    const tried = tryCandidate(situation, group, N, light, candidate);
    byPlane.set(key, tried);
    return tried;
  };
}

const of = (group: Group, standing: Standing) => group.candidates.filter((item) => item.standing === standing);

const known = new WeakMap<Group, readonly Standing[]>();

/**
 * The standings that come into question, in order. A lesser one only where it holds the faces a good deal sooner than those
 * before it: what is gained by closing the lens a little is not worth an odd place to focus on.
 */
function standingsFor(situation: Situation, group: Group): readonly Standing[] {
  const found = known.get(group) ?? inQuestion(situation, group);
  known.set(group, found);
  return found;
}

function inQuestion(situation: Situation, group: Group): readonly Standing[] {
  const [widest, smallest] = [situation.sharpness.widestFNumber, exactFNumber(situation.lens.smallestFNumber)];
  const holdsAt = (N: number, among: readonly Candidate[]) => {
    const peak = peakOf(group, among, triesAt(situation, group, N));
    return peak !== undefined && holds(situation, peak);
  };
  const firstOf = (among: readonly Candidate[]): number => {
    if (holdsAt(widest, among)) return widest;
    if (!holdsAt(smallest, among)) return Infinity;
    let [low, high] = [apertureValue(widest), apertureValue(smallest)];
    for (let i = 0; i < halvings; i++) {
      const middle = (low + high) / 2;
      if (holdsAt(fNumberFromApertureValue(middle), among)) high = middle;
      else low = middle;
    }
    return fNumberFromApertureValue(high);
  };
  const result: Standing[] = [];
  let first = Infinity;
  for (const standing of ['ordinary', 'reluctant', 'beside'] as const) {
    const among = of(group, standing);
    if (among.length === 0) continue;
    const sooner = first * 2 ** (-soonerStops[standing] / 2);
    const worth = result.length === 0 || first === Infinity || (sooner >= widest && holdsAt(sooner, among));
    if (!worth) continue;
    result.push(standing);
    first = Math.min(first, firstOf(among));
  }
  return result;
}

function holds({ setup }: Situation, { odds, worstRatio }: Tried): boolean {
  return odds >= setup.intent.oddsWanted && worstRatio <= 1 + 1e-9;
}

/** Where to focus: places in the order one would rather focus on them, the lesser ones only for a real gain. */
export function chooseTarget(situation: Situation, group: Group, N: number): Choice | undefined {
  const tryAt = triesAt(situation, group, N);
  const wanted = situation.setup.intent.oddsWanted;
  let chosen: Choice | undefined;
  let ordinaryOdds = 0;
  for (const standing of standingsFor(situation, group)) {
    const among = of(group, standing);
    const peak = peakOf(group, among, tryAt);
    if (!peak) continue;
    if (chosen && peak.odds < chosen.odds + realGain && (holds(situation, chosen) || !holds(situation, peak))) continue;
    const best = gladdest(among, peak, wanted, tryAt);
    if (!chosen) ordinaryOdds = best.odds;
    chosen = { ...best, gain: Math.max(0, best.odds - ordinaryOdds) };
  }
  return chosen;
}
