/** Whose eye: the place that is as likely as the best and most gladly focused on. */
import { bestFocusBetween } from '../optics/blur';
import { apertureValue, exactFNumber, fNumberFromApertureValue } from '../optics/stops';
import type { FocusArea } from '../setup/schema';
import type { Candidate, Standing } from './candidates';
import { focusAt, oddsInput, planeOf, worstRatioOf, type Focus } from './focus';
import type { LightAtStop } from './light';
import { oddsLanded } from './landed';
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

/** Candidates of one standing: as gladly as one would focus there, and the different planes they come to. */
interface Places {
  readonly standing: Standing;
  readonly gladdest: readonly { readonly candidate: Candidate; readonly at: number }[];
  /** One candidate for each plane, by where it lies: people in one row share a depth, and all that is computed from it. */
  readonly planes: readonly Candidate[];
  /** The plane that shares the blur most evenly, and how far in vergence it is from doing so. */
  readonly evenest: number;
  readonly off: number;
}

/** Planes nearer together than this are one, mm. */
const samePlaneMm = 1e-6;

const alike = (a: Candidate, b: Candidate) =>
  Math.abs(a.biasMm - b.biasMm) < samePlaneMm &&
  a.biasUm === b.biasUm &&
  a.focusDistanceMm === b.focusDistanceMm &&
  a.behindMm === b.behindMm &&
  a.leanMm === b.leanMm;

function placesOf(situation: Situation, group: Group, standing: Standing): Places | undefined {
  const all = standing === 'beside' ? group.beside : group.eyes.filter((candidate) => candidate.standing === standing);
  if (all.length === 0) return undefined;
  const planes: Candidate[] = [];
  const byPlane = [...all].sort((a, b) => planeOf(situation, a) - planeOf(situation, b));
  const at = new Map<Candidate, number>();
  for (const candidate of byPlane) {
    const last = planes[planes.length - 1];
    if (!last || !alike(last, candidate)) planes.push(candidate);
    at.set(candidate, planes.length - 1);
  }
  const even = 1 / bestFocusBetween(group.nearest, group.furthest);
  const off = planes.map((candidate) => Math.abs(1 / planeOf(situation, candidate) - even));
  const evenest = off.indexOf(Math.min(...off));
  const gladdest = all.map((candidate) => ({ candidate, at: at.get(candidate) ?? 0 }));
  return { standing, gladdest, planes, evenest, off: off[evenest] ?? Infinity };
}

/** What each plane gives at one stop, tried once. */
type TryPlane = (at: number) => Tried | undefined;

function triesAt(situation: Situation, group: Group, { planes }: Places, N: number): TryPlane {
  const light = situation.light(N);
  const tried: (Tried | undefined)[] = [];
  return (at) => {
    const candidate = planes[at];
    return (tried[at] ??= candidate && tryCandidate(situation, group, N, light, candidate));
  };
}

/**
 * The best of some planes: by its odds, or where nobody has any by its blur. Both have one peak over where the plane lies,
 * so it is climbed from the one that shares the blur evenly.
 */
function peakOf({ evenest }: Places, tryPlane: TryPlane): Tried | undefined {
  let best = tryPlane(evenest);
  if (!best || best.odds >= 1 - 1e-9) return best;
  const better = (a: Tried, b: Tried) =>
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
 * The gladdest of some places that is as good as their best: within a tie of it, on the same side of what is wanted, and such
 * that autofocus lands there; or of those looked at the one where it does best. Its odds are over all it may land on.
 */
function gladdestOf(situation: Situation, group: Group, { gladdest }: Places, peak: Tried, tryPlane: TryPlane): Tried {
  const { intent, camera } = situation.setup;
  const { focusArea } = camera;
  const wanted = intent.oddsWanted;
  const asGood = ({ odds, worstRatio }: Tried) => {
    if (peak.odds <= noOdds) return worstRatio <= peak.worstRatio + ratioTie;
    if (odds < peak.odds - oddsTie || (peak.odds >= wanted && odds < wanted)) return false;
    return peak.worstRatio > 1 + 1e-9 || worstRatio <= 1 + 1e-9;
  };
  const looked: Tried[] = [];
  const look = (isGood: (tried: Tried) => boolean, enough: number): void => {
    for (const { candidate, at } of gladdest) {
      if (looked.length >= lookedAt[focusArea]) return;
      const tried = tryPlane(at);
      if (!tried || !isGood(tried) || looked.some((item) => item.candidate === candidate)) continue;
      const own = tried.candidate === candidate ? tried : { ...tried, candidate, focus: { ...tried.focus, candidate } };
      const odds = oddsLanded(situation, group, own);
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
      odds: oddsLanded(situation, group, peak)
    }
  );
}

interface Choice extends Tried {
  readonly gain: number;
}

const known = new WeakMap<Group, readonly Places[]>();

/**
 * The places that come into question, by standing. A lesser one only where it holds the faces a good deal sooner than those
 * before it: what is gained by closing the lens a little is not worth an odd place to focus on.
 */
function placesFor(situation: Situation, group: Group): readonly Places[] {
  const found = known.get(group) ?? inQuestion(situation, group);
  known.set(group, found);
  return found;
}

function inQuestion(situation: Situation, group: Group): readonly Places[] {
  const [widest, smallest] = [situation.sharpness.widestFNumber, exactFNumber(situation.lens.smallestFNumber)];
  const holdsAt = (N: number, places: Places) => {
    const peak = peakOf(places, triesAt(situation, group, places, N));
    return peak !== undefined && holds(situation, peak);
  };
  const firstOf = (places: Places): number => {
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
  const result: Places[] = [];
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

function holds({ setup }: Situation, { odds, worstRatio }: Tried): boolean {
  return odds >= setup.intent.oddsWanted && worstRatio <= 1 + 1e-9;
}

/** Where to focus: places in the order one would rather focus on them, the lesser ones only for a real gain. */
export function chooseTarget(situation: Situation, group: Group, N: number): Choice | undefined {
  let chosen: Choice | undefined;
  let ordinaryOdds = 0;
  for (const places of placesFor(situation, group)) {
    const tryPlane = triesAt(situation, group, places, N);
    const peak = peakOf(places, tryPlane);
    if (!peak) continue;
    if (chosen && peak.odds < chosen.odds + realGain && (holds(situation, chosen) || !holds(situation, peak))) continue;
    const best = gladdestOf(situation, group, places, peak, tryPlane);
    if (!chosen) ordinaryOdds = best.odds;
    chosen = { ...best, gain: Math.max(0, best.odds - ordinaryOdds) };
  }
  return chosen;
}
