/** The plan in plain sentences. */
import type { Bound, NoPlan, NoPlanReason, Plan, StopPlan } from '../call/plan';
import { verdict, type Verdict } from '../optics/sharpness';
import type { PointRole } from '../setup/scene';
import type { Wish } from '../setup/schema';
import { formatLength, type LengthUnit } from './length';

export const roleWords: Readonly<Record<PointRole, string>> = {
  nearEye: 'near eye',
  farEye: 'far eye',
  nose: 'nose',
  hairline: 'hairline',
  chin: 'chin',
  ear: 'ear',
  head: 'head',
  nearSide: 'near side',
  farSide: 'far side'
};

export const verdictWords: Readonly<Record<Verdict, string>> = {
  sharp: 'sharp',
  touchSoft: 'a touch soft',
  soft: 'soft'
};

export const wishWords: Readonly<Record<Wish, string>> = {
  hide: 'vanish',
  hint: 'hinted',
  keep: 'recognisable',
  free: 'as it falls'
};

/** "Ines’s", "the rings’": a name takes an s, a plural none. */
export function possessive(name: string): string {
  return /^[^A-Z].*s$/.test(name) ? `${name}’` : `${name}’s`;
}

export function subjectName(plan: Plan, id: string): string {
  return plan.subjects.find((subject) => subject.id === id)?.name ?? 'the subject';
}

function backgroundName(plan: Plan, id: string): string {
  return plan.backgrounds.find((background) => background.id === id)?.name ?? 'the background';
}

/** "Ines’s near eye", "the near side of Rings", "3.4 m" when focused by distance. */
export function targetWords(plan: Plan, entry: StopPlan, unit: LengthUnit): string {
  const { subjectId, role, focusDistanceMm } = entry.target;
  if (subjectId === null || role === null) return formatLength(focusDistanceMm, unit);
  return pointWords(plan, subjectId, role);
}

/** "Ines’s near eye", "Corvin’s eyes" where both are equally far. */
export function pointWords(plan: Plan, subjectId: string, role: PointRole): string {
  const subject = plan.subjects.find((item) => item.id === subjectId);
  if (!subject) return 'the subject';
  const sides = subject.points.filter((point) => point.role === 'nearEye' || point.role === 'farEye');
  const level = sides.length === 2 && Math.abs((sides[0]?.depth ?? 0) - (sides[1]?.depth ?? 0)) < 2;
  if (level && (role === 'nearEye' || role === 'farEye')) return `${possessive(subject.name)} eyes`;
  return `${possessive(subject.name)} ${roleWords[role]}`;
}

/** The answer: "f/3.3 on Ines’s near eye, from 3.4 m." */
export function callSentence(plan: Plan, unit: LengthUnit, index = plan.selected): string {
  const entry = plan.stops[index];
  if (!entry) return '';
  const target = targetWords(plan, entry, unit);
  return `f/${entry.stop.label} on ${target}, from ${formatLength(plan.distanceMm, unit)}.`;
}

interface SharpZone {
  readonly inFrontMm: number;
  /** Infinity when everything behind is sharp. */
  readonly behindMm: number;
  readonly depthMm: number;
}

/** The sharp zone about the plane of focus. */
export function sharpZone(entry: StopPlan): SharpZone {
  const s = entry.target.focusDistanceMm;
  const far = entry.farMm ?? Infinity;
  return { inFrontMm: s - entry.nearMm, behindMm: far - s, depthMm: far - entry.nearMm };
}

/** "33 cm", "from 4.1 m to infinity". */
export function zoneWords(entry: StopPlan, unit: LengthUnit): string {
  const { depthMm } = sharpZone(entry);
  return depthMm === Infinity ? '∞' : formatLength(depthMm, unit);
}

/** "15 cm before, 18 cm behind". */
export function zoneSplitWords(entry: StopPlan, unit: LengthUnit): string {
  const { inFrontMm, behindMm } = sharpZone(entry);
  const behind = behindMm === Infinity ? 'all behind' : `${formatLength(behindMm, unit)} behind`;
  return `${formatLength(inFrontMm, unit)} in front, ${behind}`;
}

/** "shoot 2", "shoot 5, for the blinks"; nothing when no number is enough. */
export function framesWords({ frames }: StopPlan): string {
  if (frames.toShoot === null) return '';
  return frames.forBlinks > (frames.for95 ?? 0) && frames.forBlinks > 1
    ? `shoot ${frames.toShoot} for the blinks`
    : `shoot ${frames.toShoot}`;
}

export function oddsWords(odds: number): string {
  if (odds >= 0.995) return '99 %';
  return `${Math.round(odds * 100)} %`;
}

/** What becomes of one background at a stop, in a sentence. */
export function backgroundSentence(plan: Plan, index: number, entry: StopPlan, unit: LengthUnit): string {
  const background = plan.backgrounds[index];
  const state = entry.backgrounds[index];
  if (!background || !state) return '';
  const lost = formatLength(state.lostDetailMm, unit);
  const name = capital(background.name);
  const detail = formatLength(background.detailMm, unit);
  if (verdict(state.ratio) === 'sharp') return `${name}: sharp.`;
  const effect = state.lostDetailMm >= background.detailMm ? 'gone' : 'still readable';
  switch (background.wish) {
    case 'hide':
      return state.met
        ? `${name}: vanished. Detail under ${lost} is lost there.`
        : `${name}: has not vanished. Detail under ${lost} is lost, theirs is ${detail}.`;
    case 'hint':
      if (state.met) return `${name}: hinted. Detail under ${lost} is lost there, theirs is ${detail}.`;
      return state.lostDetailMm > background.detailMm / 2
        ? `${name}: gone, not even hinted. Detail under ${lost} is lost there.`
        : `${name}: too plain. Detail under ${lost} is lost, theirs is ${detail}.`;
    case 'keep':
      return `${name}: too soft to be recognised. Detail under ${lost} is lost there.`;
    case 'free':
      return `${name}: ${effect}. Detail under ${lost} is lost there.`;
  }
}

/** What happens just beyond one end of the window. */
function boundWords(plan: Plan, bound: Bound, end: 'wide' | 'narrow'): string {
  const beyond = `any ${end === 'wide' ? 'wider' : 'narrower'},`;
  switch (bound.kind) {
    case 'lens':
      return end === 'wide' ? 'the lens opens no wider' : 'the lens closes no further';
    case 'point': {
      const who = pointWords(plan, bound.subjectId, bound.role);
      return `${beyond} ${who} ${who.endsWith('eyes') ? 'go' : 'goes'} soft`;
    }
    case 'odds':
      return `${beyond} ${subjectName(plan, bound.subjectId)} may drift out of the sharp zone`;
    case 'background': {
      const background = plan.backgrounds.find((item) => item.id === bound.backgroundId);
      const name = background?.name ?? 'the background';
      const many = /[^s]s$/i.test(name);
      if (background?.wish === 'keep') return `${beyond} ${name} ${many ? 'go' : 'goes'} soft`;
      if (end === 'wide') return `${beyond} ${name} ${many ? 'vanish' : 'vanishes'}`;
      return background?.wish === 'hint'
        ? `${beyond} ${name} ${many ? 'become' : 'becomes'} too plain`
        : `${beyond} ${name} ${many ? 'come' : 'comes'} back`;
    }
    case 'lensBlur':
      return end === 'wide' ? `${beyond} the lens is too soft` : `${beyond} diffraction softens everything`;
  }
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** One line on what binds: "f/2.8 to f/4 works: any wider, Ines’s far eye goes soft; any narrower, the trunks come back." */
export function reasonSentence(plan: Plan): string {
  const { window, stops } = plan;
  if (!window) return '';
  const first = stops[window.first]?.stop.label ?? '';
  const last = stops[window.last]?.stop.label ?? '';
  const range = window.first === window.last ? `Only f/${first} works` : `f/${first} to f/${last} works`;
  return `${range}: ${boundWords(plan, plan.lower, 'wide')}; ${boundWords(plan, plan.upper, 'narrow')}.`;
}

/** The conflict as two wishes, and in whose favour it was settled. */
export function conflictSentences(plan: Plan): { readonly wishes: string; readonly settled: string } | null {
  const { conflict, stops } = plan;
  if (!conflict) return null;
  const f = (index: number) => `f/${stops[index]?.stop.label ?? ''}`;
  switch (conflict.kind) {
    case 'facesUnreachable': {
      const settled = `${f(plan.recommended)} comes closest.`;
      if (conflict.because === 'criterion') {
        return {
          wishes: 'The lens and diffraction alone blur more than you allow for this viewing, at every stop.',
          settled
        };
      }
      if (conflict.because === 'odds' && conflict.bound.kind === 'odds') {
        const name = subjectName(plan, conflict.bound.subjectId);
        return {
          wishes: `The zone is deep enough, but movement and focus spread leave ${possessive(name)} odds under ${oddsWords(plan.oddsWanted)} at every stop.`,
          settled
        };
      }
      const who =
        conflict.bound.kind === 'point' ? pointWords(plan, conflict.bound.subjectId, conflict.bound.role) : 'everyone';
      return {
        wishes: `No stop of this lens reaches from the nearest face to the furthest: ${who} stays out.`,
        settled
      };
    }
    case 'facesAgainstBackground': {
      const name = backgroundName(plan, conflict.backgroundId);
      const wish = plan.backgrounds.find((item) => item.id === conflict.backgroundId)?.wish ?? 'hide';
      const wanted = { hide: 'to vanish', hint: 'only to be hinted', keep: 'to stay recognisable', free: '' }[wish];
      return {
        wishes: `The faces want ${f(conflict.facesFrom)}; ${name} would need ${f(conflict.backgroundAt)} ${wanted}.`,
        settled: `Settled for the faces at ${f(plan.recommended)}: a background can be mended later.`
      };
    }
    case 'backgroundUnreachable': {
      const name = backgroundName(plan, conflict.backgroundId);
      const background = plan.backgrounds.find((item) => item.id === conflict.backgroundId);
      const doing = background?.wish === 'hide' ? 'hides' : background?.wish === 'keep' ? 'keeps' : 'only hints';
      return {
        wishes: `No stop of this lens ${doing} ${name} from here.`,
        settled: `${f(plan.recommended)} holds the faces and comes closest.`
      };
    }
    case 'backgroundAgainstBackground':
      return {
        wishes: `${capital(backgroundName(plan, conflict.backgroundId))} and ${backgroundName(plan, conflict.otherId)} want different stops.`,
        settled: `${f(plan.recommended)} misses them least and holds the faces.`
      };
  }
}

/** Why nothing can be planned, and what to do. */
export function noPlanWords(
  reason: NoPlanReason,
  unit: LengthUnit
): { readonly title: string; readonly advice: string } {
  switch (reason.code) {
    case 'unknownBody':
      return { title: 'The body of this setup is not in the kit.', advice: 'Choose another body.' };
    case 'unknownLens':
      return { title: 'The lens of this setup is not in the kit.', advice: 'Choose another lens.' };
    case 'nothingRequired':
      return { title: 'Nobody is in the picture yet.', advice: 'Add a person or a thing, and the call follows.' };
    case 'behindCamera':
      return {
        title: `${reason.name} stands behind the lens.`,
        advice: `Step back, or bring ${reason.name} forward into the picture.`
      };
    case 'tooClose':
      return {
        title: `The lens focuses no closer than ${formatLength(reason.closestFocusMm, unit)}.`,
        advice: `You are at ${formatLength(reason.nearestMm, unit)}: step back, or take another lens.`
      };
  }
}

/** A setup's line in the Day: the call, and what is to be known of it. */
export function dayWords(plan: Plan | NoPlan, unit: LengthUnit): { readonly call: string; readonly more: string } {
  if (plan.kind === 'noPlan') {
    const { title, advice } = noPlanWords(plan.reason, unit);
    return { call: title, more: advice };
  }
  const odds = oddsWords(plan.stops[plan.selected]?.odds ?? 0);
  return {
    call: callSentence(plan, unit),
    more: conflictSentences(plan)?.wishes ?? `${odds} keeper odds with the ${plan.lensName}`
  };
}
