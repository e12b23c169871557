/**
 * The simulated camera: a frame of a setup with everything that goes wrong in it drawn by chance, and the truth of it. It rests
 * on the same figures as the odds (`habits`), but throws dice where they integrate: the share of its frames that are sharp is
 * the odds (tested).
 */
import type { PlanInput } from '../call/planInput';
import { candidateFor } from '../call/evaluateStop';
import { defocus, focusAt, otherDisc, focusScatter, type Focus } from '../call/focus';
import { landedOn } from '../call/focusLanding';
import { approach, frozenByFlash } from '../call/motion';
import { planSetup } from '../call/planSetup';
import { prepare } from '../call/planSetup';
import type { FocusGroup } from '../call/aim';
import type { Situation } from '../call/situation';
import { allEyesOpen } from '../optics/blinks';
import { motionDisc, motionTrack, totalDisc } from '../optics/sharpness';
import { normalFrom, type Random } from '../maths/random';
import type { PointRole } from '../setup/scene';

/** A feature of somebody as it is in the frame. */
export interface ShotPoint {
  readonly role: PointRole;
  readonly required: boolean;
  /** Depth from the lens at release, mm. */
  readonly depthMm: number;
  /** Disc of defocus on the sensor, mm; the sign says which side of the plane it lies on: positive behind. */
  readonly defocusMm: number;
  /** All that blurs it over the disc allowed. */
  readonly ratio: number;
}

/** What may come before somebody's eye. */
export type Cover = 'hand' | 'hair';

export interface ShotSubject {
  readonly id: string;
  /** Whether it must be sharp. */
  readonly decides: boolean;
  /** How far it has moved along the axis since focusing, mm; positive away from the camera. */
  readonly shiftMm: number;
  /** How far it moves across the lens while the shutter is open, mm in the scene; positive to the picture's right. */
  readonly acrossMm: number;
  /** Null for what has no eyes. */
  readonly eyesOpen: boolean | null;
  /** The head's tilt to a shoulder, degrees, clockwise in the picture; 0 for what has no head. */
  readonly rollDeg: number;
  /** What is before an eye, if anything is. */
  readonly covered: Cover | null;
  readonly points: readonly ShotPoint[];
}

/** What really happened in one frame. */
export interface FrameTruth {
  /** What autofocus landed on: depth when it did, mm. */
  readonly landedMm: number;
  /** Whether that is what was meant. */
  readonly onTarget: boolean;
  /** Error of focusing behind the lens, mm; positive brings the plane nearer. */
  readonly focusErrorMm: number;
  /** The photographer's own movement along the axis, mm; positive moves the plane away from the camera's side of the scene. */
  readonly holdMm: number;
  /** Movement from leaning while turning, mm. */
  readonly leanMm: number;
  /** Where the plane lies at release, from the lens, mm. */
  readonly planeMm: number;
  /** Length of the camera's own movement on the sensor while the shutter was open, mm, and its direction, radians. */
  readonly shakeMm: number;
  readonly shakeAngle: number;
  readonly subjects: readonly ShotSubject[];
  /** Everybody who must be is sharp. */
  readonly sharp: boolean;
  /** Nobody who must be sharp blinks. */
  readonly eyesOpen: boolean;
}

/** One thing that goes wrong for certain. */
export type Fault =
  | { readonly kind: 'landsOn'; readonly id: string }
  | { readonly kind: 'shakes'; readonly mm: number; readonly angle: number }
  | { readonly kind: 'blinks'; readonly id: string }
  | { readonly kind: 'moves'; readonly id: string; readonly acrossMm: number }
  | { readonly kind: 'covered'; readonly id: string; readonly by: Cover };

export interface Shooting {
  /** Frames wanted. */
  readonly frames: number;
  /** What goes wrong for certain, by frame from 0; all else is left to chance. */
  readonly faults?: Readonly<Record<number, Fault>>;
  /** Whether each is focused anew; else the first frame's focus stays, its error too. */
  readonly refocused?: boolean;
}

/** How much heads are tilted, degrees, one standard deviation (from memory). */
const habitualRollDeg = 3;

/** @returns the frames, or null where nothing can be planned or the setup takes two frames to combine */
export function shoot(
  input: PlanInput,
  random: Random,
  { frames, refocused = true, faults = {} }: Shooting
): readonly FrameTruth[] | null {
  const plan = planSetup(input);
  const prepared = prepare(input);
  if (plan.kind !== 'plan' || prepared.kind === 'noPlan') return null;
  const situation = prepared;
  const entry = plan.stops[plan.selected];
  const [group, second] = situation.groups;
  const candidate = entry && group && candidateFor(group, entry.target);
  if (!candidate || second) return null;
  const focus = focusAt(situation, entry.stop.fNumber, candidate, entry.light);
  const dice: Dice = { uniform: random, normal: normalFrom(random) };
  const shots: FrameTruth[] = [];
  let found: Found | null = null;
  for (let i = 0; i < frames; i++) {
    const fault = faults[i];
    found = refocused || found === null || fault?.kind === 'landsOn' ? focused(situation, focus, dice, fault) : found;
    shots.push(taken(situation, group, focus, found, dice, fault));
  }
  return shots;
}

interface Dice {
  readonly uniform: Random;
  readonly normal: () => number;
}

/** What focusing came to. */
interface Found {
  readonly focus: Focus;
  readonly onTarget: boolean;
  readonly errorMm: number;
}

/** Lands somewhere, by chance, with an error that is normal behind the lens. */
function focused(situation: Situation, aimed: Focus, { uniform, normal }: Dice, fault: Fault | undefined): Found {
  const { candidate } = aimed;
  const { planes } = landedOn(situation, candidate);
  let left = uniform() * planes.reduce((sum, plane) => sum + plane.chance, 0);
  const landed = planes.find((plane) => (left -= plane.chance) <= 0) ?? planes[planes.length - 1];
  const taken = fault?.kind === 'landsOn' ? situation.subjects.find(({ id }) => id === fault.id) : undefined;
  const depth = taken?.points[0]?.depth ?? landed?.depth ?? candidate.focusDistanceMm;
  const onTarget = depth === candidate.focusDistanceMm;
  const focus = onTarget
    ? aimed
    : focusAt(situation, aimed.N, { ...candidate, focusDistanceMm: Math.max(depth, situation.closest) }, aimed.light);
  const { focusMm } = focusScatter(situation, focus);
  // The spread at the plane is the one behind the lens over the square of the magnification there.
  return { focus, onTarget, errorMm: focusMm * focus.m * focus.m * normal() };
}

/** The plane after an error behind the lens, mm: shifted in vergence, as the odds have it. */
function planeAfter({ f, P }: Situation, plane: number, errorMm: number, m: number): number {
  const vergence = 1 / plane + errorMm / (m * m) / (plane * plane);
  return Math.max(1 / Math.max(vergence, 1e-9), (f / P) * 1.001);
}

interface ShotBy {
  readonly situation: Situation;
  readonly group: FocusGroup;
  /** Where the plane fell; and the same with the shake of this frame. */
  readonly now: Focus;
  readonly shaken: Focus;
  /** Chance of closed eyes. */
  readonly blinks: number;
  readonly light: Focus['light'];
  readonly dice: Dice;
  readonly fault: Fault | undefined;
}

/** What became of one of them. */
function shotOf(
  subject: Situation['subjects'][number],
  { situation, group, now, shaken, blinks, light, dice: { normal, uniform }, fault }: ShotBy
): ShotSubject {
  const { habits, C, setup, personOf } = situation;
  const person = personOf.get(subject.id);
  const member = group.members.find((item) => item.subject.id === subject.id);
  const nearer = person ? approach(habits, person, setup.camera) : 0;
  const shiftMm = (member?.sway ?? 0) * normal() - nearer;
  const own = fault && 'id' in fault && fault.id === subject.id ? fault : undefined;
  const { shutterS } = light;
  const across = own?.kind === 'moves' ? own.acrossMm / shutterS : (person?.acrossMmPerS ?? 0);
  const other = otherDisc(situation, shaken, subject.id, across);
  const head = person !== undefined && person.being !== 'pet';
  const opened = head ? uniform() >= blinks : null;
  return {
    id: subject.id,
    decides: member !== undefined,
    shiftMm,
    acrossMm: frozenByFlash(light) ? 0 : across * shutterS,
    eyesOpen: head && own?.kind === 'blinks' ? false : opened,
    rollDeg: head ? habitualRollDeg * normal() : 0,
    covered: own?.kind === 'covered' ? own.by : null,
    points: subject.points.map(({ role, required, depth }) => {
      const depthMm = depth + shiftMm;
      const disc = defocus(situation, now, depthMm);
      const defocusMm = depthMm >= now.plane ? disc : -disc;
      return { role, required, depthMm, defocusMm, ratio: totalDisc(disc, other) / C };
    })
  };
}

function taken(
  situation: Situation,
  group: FocusGroup,
  aimed: Focus,
  { focus, onTarget, errorMm }: Found,
  dice: Dice,
  fault: Fault | undefined
): FrameTruth {
  const { habits, subjects } = situation;
  const { normal, uniform } = dice;
  const spread = focusScatter(situation, focus);
  const holdMm = spread.holdMm * normal();
  const leanMm = spread.leanMm * normal();
  // What moves the camera moves the plane with it, against the scene; in vergence, as an error of focusing does.
  const moved = errorMm - (holdMm + leanMm) * focus.m * focus.m;
  const planeMm = planeAfter(situation, focus.plane, moved, focus.m);
  const now: Focus = { ...focus, plane: planeMm };
  const shakeMm = fault?.kind === 'shakes' ? fault.mm : motionTrack(focus.causes.shake);
  const shaken = fault?.kind === 'shakes' ? { ...now, common: totalDisc(now.common, motionDisc(fault.mm)) } : now;
  const blinks = 1 - allEyesOpen({ everyS: habits.blinkEveryS, lastsS: habits.blinkS }, 1, aimed.light.shutterS);
  const by = { situation, group, now, shaken, blinks, light: aimed.light, dice, fault };
  const shot = subjects.map((subject) => shotOf(subject, by));
  const deciding = shot.filter((subject) => subject.decides);
  return {
    landedMm: focus.candidate.focusDistanceMm,
    onTarget,
    focusErrorMm: errorMm,
    holdMm,
    leanMm,
    planeMm,
    shakeMm,
    shakeAngle: fault?.kind === 'shakes' ? fault.angle : 2 * Math.PI * uniform(),
    subjects: shot,
    sharp: deciding.every(({ points }) => points.every((point) => !point.required || point.ratio <= 1)),
    eyesOpen: deciding.every((subject) => subject.eyesOpen !== false)
  };
}
