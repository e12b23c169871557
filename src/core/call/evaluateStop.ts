/** One f-number: where to focus, how sharp everything is, the odds, the backgrounds, the light. */
import { blurDiscDiameter } from '../optics/blur';
import { depthOfField } from '../optics/depthOfField';
import { defocusAllowance, diffractionDisc, lensDisc, totalDisc } from '../optics/sharpness';
import type { Stop } from '../optics/stops';
import { effectiveFNumber, magnification } from '../optics/thinLens';
import type { Subject } from '../setup/scene';
import { backgroundAtStop } from './background';
import type { Candidate } from './candidates';
import { lightAtStop, type LightAtStop } from './light';
import { frozenByFlash, shakeDisc, stabiliserStops, subjectMotionDisc } from './motion';
import { framesFor, framesForBlinks, keeperOdds, type OddsInput } from './odds';
import type { FramesNeeded, StopPlan, Target } from './plan';
import type { Group, Member, Situation } from './situation';
import { autofocusSpread, holdSpread } from './spread';

/** Odds closer together than this are equal; the smaller blur then decides. */
const oddsTie = 0.015;

/** Blur ratios closer together than this look the same; the more important person's nearer eye then decides. */
const ratioTie = 0.05;

/** At these odds no other target can be better by more than a tie. */
const certain = 1 - oddsTie;

/** One focus at one stop: everything that follows from it before anybody is looked at. */
interface Focus {
  readonly N: number;
  readonly s: number;
  readonly m: number;
  readonly light: LightAtStop;
  /** Discs that blur everything alike, mm. */
  readonly causes: StopPlan['causes'];
  /** All of them together, mm. */
  readonly common: number;
}

function focusAt(situation: Situation, N: number, s: number, light: LightAtStop): Focus {
  const m = magnification(situation.f, s);
  const shake = frozenByFlash(light)
    ? 0
    : shakeDisc(
        situation.habits,
        situation.setup.camera,
        stabiliserStops(situation.body, situation.lens),
        light.shutterS
      );
  const causes = {
    lens: lensDisc(situation.sharpness, N),
    diffraction: diffractionDisc(effectiveFNumber(N, m)),
    pixels: situation.pixel,
    shake
  };
  return { N, s, m, light, causes, common: totalDisc(causes.lens, causes.diffraction, causes.pixels, shake) };
}

/** All causes but defocus for somebody moving across, mm. */
function otherDisc({ common, light, m }: Focus, across: number): number {
  if (across === 0 || frozenByFlash(light)) return common;
  return totalDisc(common, subjectMotionDisc(across, light.shutterS, m));
}

/** Where the plane lands about its target, mm. */
function spreadOf({ setup, habits, body, widestN, lowLight }: Situation, focus: Focus): StopPlan['spread'] {
  const { focusMethod, focusMode, stance, secondsToShutter } = setup.camera;
  return {
    focusMm: autofocusSpread(habits, focusMethod, widestN, body, focus.m) * (lowLight ? habits.lowLightFactor : 1),
    // Continuous focusing follows the photographer's own sway too.
    holdMm: focusMode === 'continuous' ? 0 : holdSpread(habits, stance, secondsToShutter)
  };
}

function oddsInput(situation: Situation, focus: Focus, bias: number, members: readonly Member[]): OddsInput {
  const { f, C } = situation;
  const { focusMm, holdMm } = spreadOf(situation, focus);
  const spread = Math.hypot(focusMm, holdMm);
  const moving = members.some((member) => member.across !== 0);
  return {
    f,
    N: focus.N,
    s: focus.s,
    bias,
    spread,
    allowance: defocusAllowance(C, focus.common),
    members: moving
      ? members.map((member) => ({ ...member, allowance: defocusAllowance(C, otherDisc(focus, member.across)) }))
      : members
  };
}

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
  const focus = focusAt(situation, N, candidate.focusDistanceMm, light);
  return {
    candidate,
    focus,
    odds: keeperOdds(oddsInput(situation, focus, candidate.biasMm, group.members)),
    worstRatio: worstRatioOf(situation, group, focus)
  };
}

/** Worst total blur over the permissible disc. Without movement the two extreme depths decide. */
function worstRatioOf({ f, C }: Situation, group: Group, focus: Focus): number {
  const { N, s } = focus;
  const moving = group.members.some((member) => member.across !== 0);
  if (!moving) {
    const defocus = Math.max(blurDiscDiameter(f, N, s, group.nearest), blurDiscDiameter(f, N, s, group.furthest));
    return totalDisc(defocus, focus.common) / C;
  }
  return Math.max(
    ...group.members.map(({ subject, across }) => {
      const { nearest, furthest } = subject;
      const defocus = Math.max(blurDiscDiameter(f, N, s, nearest), blurDiscDiameter(f, N, s, furthest));
      return totalDisc(defocus, otherDisc(focus, across)) / C;
    })
  );
}

/** Best odds; then the smaller worst blur; then the more important person; then the nearer eye. */
function best(tried: readonly Tried[]): Tried | undefined {
  const mostOdds = Math.max(...tried.map((item) => item.odds));
  const likely = tried.filter((item) => item.odds >= mostOdds - oddsTie);
  const leastRatio = Math.min(...likely.map((item) => item.worstRatio));
  return likely
    .filter((item) => item.worstRatio <= leastRatio + ratioTie)
    .sort(
      ({ candidate: a }, { candidate: b }) => a.importance - b.importance || a.focusDistanceMm - b.focusDistanceMm
    )[0];
}

function chooseTarget(situation: Situation, group: Group, N: number, light: LightAtStop): Tried | undefined {
  const tried: Tried[] = [];
  for (const candidate of group.shortlist) {
    // The shortlist comes in order of preference: after one whose odds cannot be beaten, only a smaller blur counts.
    const ratio = worstRatioOf(situation, group, focusAt(situation, N, candidate.focusDistanceMm, light));
    const beaten = tried.some((item) => item.odds >= certain && item.worstRatio <= ratio);
    if (!beaten) tried.push(tryCandidate(situation, group, N, light, candidate));
  }
  return best(tried);
}

export function lightFor(situation: Situation, N: number): LightAtStop {
  return lightAtStop(situation.setup, situation.body, situation.level, situation.floor, N);
}

function targetOf({ subjectId, feature, role, focusDistanceMm }: Candidate): Target {
  return { subjectId, feature, role, focusDistanceMm };
}

/** Everything about one stop. Undefined when there is nothing to focus on. */
export function evaluateStop(situation: Situation, stop: Stop): StopPlan | undefined {
  const { f, C, subjects, groups } = situation;
  const N = stop.fNumber;
  const light = lightFor(situation, N);
  const chosen = groups.map((group) => chooseTarget(situation, group, N, light));
  const first = chosen[0];
  const second = chosen[1];
  if (!first || (groups.length > 1 && !second)) return undefined;

  const allowance = defocusAllowance(C, first.focus.common);
  const limits =
    allowance > 0 ? depthOfField(f, N, allowance, first.focus.s) : { near: first.focus.s, far: first.focus.s };
  const across = new Map(situation.setup.people.map((person) => [person.id, person.acrossMmPerS]));
  const inSecond = new Set(groups[1]?.members.map((member) => member.subject.id));
  const focusOf = (subject: Subject) => (second && inSecond.has(subject.id) ? second.focus : first.focus);
  const sharpness = subjects.map((subject) => {
    const focus = focusOf(subject);
    const other = otherDisc(focus, across.get(subject.id) ?? 0);
    return subject.points.map((point) => ({
      ratio: totalDisc(blurDiscDiameter(f, N, focus.s, point.depth), other) / C
    }));
  });
  const worst = worstPoint(situation, sharpness);
  const odds = first.odds * (second?.odds ?? 1);
  return {
    stop,
    target: targetOf(first.candidate),
    secondTarget: second ? targetOf(second.candidate) : null,
    light,
    frames: framesNeeded(situation, odds),
    allowanceMm: allowance,
    lensRatio: first.focus.common / C,
    causes: {
      lens: first.focus.causes.lens / C,
      diffraction: first.focus.causes.diffraction / C,
      pixels: first.focus.causes.pixels / C,
      shake: first.focus.causes.shake / C
    },
    spread: spreadOf(situation, first.focus),
    nearMm: limits.near,
    farMm: limits.far === Infinity ? null : limits.far,
    odds,
    worst,
    facesHold: worst.ratio <= 1 + 1e-9 && odds >= situation.setup.intent.oddsWanted,
    sharpness,
    backgrounds: backgroundsAt(situation, first.focus)
  };
}

function worstPoint({ subjects, decisive }: Situation, sharpness: StopPlan['sharpness']): StopPlan['worst'] {
  let worst: StopPlan['worst'] = { subjectId: subjects[0]?.id ?? '', role: 'nearEye', ratio: 0 };
  for (const index of decisive) {
    const subject = subjects[index];
    subject?.points.forEach((point, pointIndex) => {
      const ratio = sharpness[index]?.[pointIndex]?.ratio ?? 0;
      if (point.required && ratio > worst.ratio) worst = { subjectId: subject.id, role: point.role, ratio };
    });
  }
  return worst;
}

function backgroundsAt(situation: Situation, focus: Focus): StopPlan['backgrounds'] {
  return situation.backgrounds.map((background) =>
    backgroundAtStop({
      f: situation.f,
      N: focus.N,
      s: focus.s,
      depth: background.depthMm,
      detailMm: background.detailMm,
      wish: background.wish,
      otherDisc: focus.common,
      permissibleDisc: situation.C,
      frameHeightMm: situation.picture.height
    })
  );
}

function framesNeeded({ setup, lowLight }: Situation, odds: number): FramesNeeded {
  const finite = (frames: number) => (Number.isFinite(frames) ? frames : null);
  const for95 = finite(framesFor(odds, 0.95));
  const people = setup.people.filter((person) => person.being !== 'pet' && person.importance !== 'maySoft').length;
  const forBlinks = framesForBlinks(people, lowLight);
  return {
    for95,
    for99: finite(framesFor(odds, 0.99)),
    forBlinks,
    toShoot: for95 === null ? null : Math.max(for95, forBlinks)
  };
}

/** Whether some stop grants everything: what `planSetup` would find, for the price of the stops that come into question. */
export function opensWindow(situation: Situation, stops: readonly Stop[]): boolean {
  const inQuestion: { readonly stop: Stop; readonly ratio: number }[] = [];
  for (const stop of stops) {
    const ratio = leastRatio(situation, stop.fNumber);
    if (ratio <= 1 + 1e-9) inQuestion.push({ stop, ratio });
  }
  return inQuestion
    .sort((a, b) => a.ratio - b.ratio)
    .some(({ stop }) => {
      const entry = evaluateStop(situation, stop);
      return entry !== undefined && entry.facesHold && entry.backgrounds.every((item) => item.met);
    });
}

/** The least worst ratio any allowed focus gives at a stop; Infinity when a group or the backgrounds refuse them all. */
function leastRatio(situation: Situation, N: number): number {
  const light = lightFor(situation, N);
  let result = 0;
  for (const [index, group] of situation.groups.entries()) {
    let least = Infinity;
    for (const candidate of group.shortlist) {
      const focus = focusAt(situation, N, candidate.focusDistanceMm, light);
      const ratio = worstRatioOf(situation, group, focus);
      if (ratio > 1 + 1e-9 || ratio >= least) continue;
      // The backgrounds are judged in the first frame.
      if (index === 0 && !backgroundsAt(situation, focus).every((item) => item.met)) continue;
      least = ratio;
    }
    result = Math.max(result, least);
  }
  return result;
}

/** Who alone has the worst odds at a stop. */
export function weakestMember(situation: Situation, entry: StopPlan): string {
  let weakest = { id: '', odds: Infinity };
  situation.groups.forEach((group, index) => {
    const target = index === 0 ? entry.target : (entry.secondTarget ?? entry.target);
    const candidate = group.shortlist.find((item) => item.focusDistanceMm === target.focusDistanceMm);
    const focus = focusAt(situation, entry.stop.fNumber, target.focusDistanceMm, entry.light);
    for (const member of group.members) {
      const odds = keeperOdds(oddsInput(situation, focus, candidate?.biasMm ?? 0, [member]));
      if (odds < weakest.odds - 1e-6) weakest = { id: member.subject.id, odds };
    }
  });
  return weakest.id;
}
