/** One f-number: where to focus, how sharp everything is, the odds, the backgrounds, the light. */
import { closeShare, pixelPitch } from '../optics/criterion';
import { depthOfField } from '../optics/depthOfField';
import { defocusAllowance, lensDisc, totalDisc } from '../optics/sharpness';
import type { Stop } from '../optics/stops';
import type { Subject } from '../setup/scene';
import { backgroundAtStop } from './background';
import type { Candidate } from './candidates';
import { chooseTarget, type Choice } from './chooseTarget';
import { offAxisDisc, defocus, focusAt, oddsInput, otherDisc, focusScatter, type Focus } from './focus';
import { framesNeeded } from './frames';
import { landedOn } from './focusLanding';
import { approach, frozenByFlash, subjectMotionDisc } from './motion';
import { keeperOdds } from './odds';
import { oddsOverLandings } from './oddsOverLandings';
import type { Plan, StopPlan, Target } from './plan';
import type { FocusGroup } from './aim';
import type { Situation } from './situation';
import { tryCandidate } from './places';
import { stopShiftAt } from './scatter';

export function targetOf(candidate: Candidate): Target {
  const { subjectId, feature, role, focusDistanceMm, position, point, recomposed } = candidate;
  return { subjectId, feature, role, focusDistanceMm, position, point, recomposed };
}

/** Everything about one stop. Undefined when there is nothing to focus on. */
export function evaluateStop(situation: Situation, stop: Stop): StopPlan | undefined {
  const { f, C, subjects, groups } = situation;
  const N = stop.fNumber;
  const light = situation.light(N);
  const chosen = groups.map((group) => chooseTarget(situation, group, N));
  const first = chosen[0];
  const second = chosen[1];
  if (!first || (groups.length > 1 && !second)) return undefined;

  const allowance = defocusAllowance(C, first.focus.common);
  const { plane } = first.focus;
  const people = new Map(situation.setup.people.map((person) => [person.id, person]));
  const inSecond = new Set(groups[1]?.members.map((member) => member.subject.id));
  const focusOf = (subject: Subject) => (second && inSecond.has(subject.id) ? second.focus : first.focus);
  const sharpness = subjects.map((subject) => {
    const focus = focusOf(subject);
    const person = people.get(subject.id);
    const other = otherDisc(situation, focus, subject.id, person?.acrossMmPerS ?? 0);
    const nearer = person ? approach(situation.habits, person, situation.setup.camera) : 0;
    return subject.points.map((point) => ({
      ratio: totalDisc(defocus(situation, focus, point.depth - nearer), other) / C
    }));
  });
  const worst = worstPoint(situation, sharpness);
  const oddsOnTarget = first.odds * (second?.odds ?? 1);
  const odds = chosen.reduce((product, aimed, index) => product * landed(situation, groups[index], aimed), 1);
  const { causes } = first.focus;
  return {
    stop,
    target: targetOf(first.candidate),
    secondTarget: second ? targetOf(second.candidate) : null,
    light,
    frames: framesNeeded(situation.habits, odds, situation.people, light.shutterS),
    planeMm: plane,
    shiftUm: stopShiftAt(first.candidate.stopShift, situation.sharpness.widestFNumber, N),
    secondPlaneMm: second?.focus.plane ?? null,
    // Who goes away faster than that is drawn as blurred as a lens at life size would: nearer it has no picture.
    drawnFocusMm: Math.max(plane + (groups[0]?.approach ?? 0), 2 * f),
    landings: landedOn(situation, first.candidate).landings,
    gain: first.gain,
    allowanceMm: allowance,
    lensRatio: first.focus.common / C,
    causes: over(C, causes),
    movement: mostMoving(situation, first.focus),
    edge: softestPlace(situation, first.focus),
    scatter: focusScatter(situation, first.focus),
    ...zoneAt(situation, N, allowance, plane),
    odds,
    oddsOnTarget,
    worst,
    worstPixels: pixelsOf(situation, first.focus, worst.ratio * C),
    facesHold: worst.ratio <= 1 + 1e-9 && oddsOnTarget >= situation.setup.intent.oddsWanted,
    sharpness,
    backgrounds: backgroundsAt(situation, first.focus)
  };
}

/** The causes over the circle of confusion. */
const over = (C: number, { lens, diffraction, pixels, shake }: Focus['causes']): StopPlan['causes'] => ({
  lens: lens / C,
  diffraction: diffraction / C,
  pixels: pixels / C,
  shake: shake / C
});

/** A disc in pixels, with all of the lens's own, of which no more than its share counts against sharpness. */
function pixelsOf({ sharpness, body }: Situation, { N, causes }: Focus, disc: number): number {
  const own = lensDisc(sharpness, N);
  return Math.sqrt(disc ** 2 - causes.lens ** 2 + own ** 2) / pixelPitch(body.sensor);
}

/** Odds of one frame over all its focus may land on. */
const landed = (situation: Situation, group: FocusGroup | undefined, aimed: Choice | undefined): number =>
  group && aimed ? oddsOverLandings(situation, group, aimed) : 1;

/** Keeper rate in a standard print, focused as at a stop for a closer look; 0 where the faces would not be sharp in one. */
export function oddsInPrint(situation: Situation, entry: StopPlan): number {
  const print: Situation = { ...situation, C: situation.C / closeShare, lensAtMostMm: Infinity };
  return print.groups.reduce((product, group, index) => {
    const target = index === 0 ? entry.target : entry.secondTarget;
    const candidate = target && candidateFor(group, target);
    if (!candidate) return 0;
    const { odds, worstRatio } = tryCandidate(print, group, entry.stop.fNumber, entry.light, candidate);
    return worstRatio <= 1 + 1e-9 ? product * odds : 0;
  }, 1);
}

/** From where to where it is sharp, mm from the lens; nowhere but at the plane where the lens alone is too soft. */
function zoneAt({ f, P }: Pick<Situation, 'f' | 'P'>, N: number, allowance: number, plane: number): PrintZone {
  if (allowance <= 0) return { nearMm: plane, farMm: plane };
  const { near, far } = depthOfField(f, N, allowance, plane, P);
  return { nearMm: near, farMm: far === Infinity ? null : far };
}
type PrintZone = NonNullable<Plan['inPrint']>['zone'];

/** From where to where a stop is sharp in a standard print, mm from the lens; `farMm` null for infinity. */
export function zoneInPrint({ f, P, C }: Situation, { stop, planeMm, lensRatio }: StopPlan): PrintZone {
  return zoneAt({ f, P }, stop.fNumber, defocusAllowance(C / closeShare, lensRatio * C), planeMm);
}

/** Whose movement across blurs most; nobody's where the flash freezes it. */
function mostMoving({ mostAcross, C }: Situation, { light, m }: Focus): StopPlan['movement'] {
  if (!mostAcross || frozenByFlash(light)) return null;
  const { subjectId, across } = mostAcross;
  return { subjectId, ratio: subjectMotionDisc(across, light.shutterS, m) / C };
}

/** For whom the lens is softest where they stand, with all other causes but defocus; null where it was not measured off the axis. */
function softestPlace(situation: Situation, { N, common }: Focus): StopPlan['edge'] {
  const { subjects, decisive, C } = situation;
  let softest: StopPlan['edge'] = null;
  for (const index of decisive) {
    const id = subjects[index]?.id ?? '';
    const beside = offAxisDisc(situation, N, id);
    const ratio = totalDisc(common, beside) / C;
    if (beside > 0 && ratio > (softest?.ratio ?? 0)) softest = { subjectId: id, ratio };
  }
  return softest;
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

export function backgroundsAt(situation: Situation, focus: Focus): StopPlan['backgrounds'] {
  return situation.backgrounds.map((background) =>
    backgroundAtStop({
      f: situation.f,
      P: situation.P,
      N: focus.N,
      s: focus.plane,
      depth: background.depthMm,
      detailMm: background.detailMm,
      wish: background.wish,
      otherDisc: focus.common,
      circleOfConfusion: situation.C,
      frameHeightMm: situation.picture.height
    })
  );
}

/** The candidate a target was made from. */
export function candidateFor(group: FocusGroup, target: Target): Candidate | undefined {
  const isIt = ({ subjectId, feature, focusDistanceMm }: Candidate) =>
    subjectId === target.subjectId && feature === target.feature && focusDistanceMm === target.focusDistanceMm;
  return group.eyes.find(isIt) ?? group.beside.find(isIt);
}

/** Who alone has the worst odds at a stop, and what they are. */
export function weakestMember(situation: Situation, entry: StopPlan): { readonly id: string; readonly odds: number } {
  let weakest = { id: '', odds: Infinity };
  situation.groups.forEach((group, index) => {
    const target = index === 0 ? entry.target : (entry.secondTarget ?? entry.target);
    const candidate = candidateFor(group, target);
    if (!candidate) return;
    const focus = focusAt(situation, entry.stop.fNumber, candidate, entry.light);
    for (const member of group.members) {
      const odds = keeperOdds(oddsInput(situation, focus, [member]));
      if (odds < weakest.odds - 1e-6) weakest = { id: member.subject.id, odds };
    }
  });
  return weakest;
}
