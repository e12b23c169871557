/** The plan in plain sentences. */
import { hintRange } from '../call/background';
import { isSharpInPrintOnly, sharpFromTo } from '../call/inPrint';
import { decisiveSubjects } from '../call/candidates';
import type { Bound, NoPlan, NoPlanReason, Plan, StopPlan } from '../call/plan';
import { verdict, type SharpnessVerdict } from '../optics/sharpness';
import { rowsByDepth } from '../people/rows';
import type { PointRole, Subject } from '../setup/scene';
import { formatLength, type LengthUnit } from '../units/length';

export const roleWords: Readonly<Record<PointRole, string>> = {
  nearEye: 'near eye',
  farEye: 'far eye',
  nose: 'nose',
  hairline: 'hairline',
  chin: 'chin',
  ear: 'ear',
  temple: 'temple',
  collar: 'collar',
  head: 'head',
  nearSide: 'near side',
  farSide: 'far side'
};

export const verdictWords: Readonly<Record<SharpnessVerdict, string>> = {
  sharp: 'sharp',
  touchSoft: 'a touch soft',
  soft: 'soft'
};

/** "Ines’s", "the rings’": a name takes an s, a plural none. */
export function possessive(name: string): string {
  return /^[^A-Z].*s$/.test(name) ? `${name}’` : `${name}’s`;
}

export function subjectName(plan: Plan, id: string): string {
  const subject = plan.subjects.find((item) => item.id === id);
  return subject ? spoken(subject.name) : 'the subject';
}

/** "the rings" for a thing called so, "Ines" and "Person 1" as they are. */
export function spoken(name: string): string {
  return /^\p{Ll}/u.test(name) && !name.startsWith('the ') ? `the ${name}` : name;
}

function backgroundName(plan: Plan, id: string): string {
  return plan.backgrounds.find((background) => background.id === id)?.name ?? 'the background';
}

/** "Ines’s near eye", "the rings’ near side", "a place 3.4 m away" when focused by distance. */
export function targetWords(plan: Plan, entry: StopPlan, unit: LengthUnit): string {
  const { subjectId, role, focusDistanceMm } = entry.target;
  if (subjectId === null || role === null) return `a place ${formatLength(focusDistanceMm, unit)} away`;
  return pointWords(plan, subjectId, role);
}

/** Points that differ by less than this in depth are equally far, mm. */
const levelMm = 2;

/** "Ines’s near eye", "Corvin’s eyes" where both are equally far; things have no eyes: "the rings". */
export function pointWords(plan: Plan, subjectId: string, role: PointRole): string {
  const subject = plan.subjects.find((item) => item.id === subjectId);
  if (!subject) return 'the subject';
  const [a, b] = subject.points.filter((point) => pairs.has(point.role));
  const level = a && b && Math.abs(a.depth - b.depth) < levelMm;
  const name = spoken(subject.name);
  if (subject.kind === 'thing' && (level || !b)) return name;
  if (level && pairs.has(role)) return `${possessive(name)} eyes`;
  return `${possessive(name)} ${roleWords[role]}`;
}

const pairs: ReadonlySet<PointRole> = new Set(['nearEye', 'farEye', 'nearSide', 'farSide']);

/** Those in the picture who decide. */
export function decidingSubjects(plan: Plan): readonly Subject[] {
  const framed = plan.subjects.filter((subject) => !plan.outOfFrame.includes(subject.id));
  return decisiveSubjects(framed.length > 0 ? framed : plan.subjects);
}

/** What the distance to stand at is measured to. */
interface Stand {
  readonly distanceMm: number;
  /** "the front row", "Ines"; empty where it is what is focused on. */
  readonly from: string;
}

/** Depth of somebody's eyes, or of the middle of a thing, as one would measure it. */
function middleOf(subject: Subject): number {
  const depths = subject.points.filter((point) => pairs.has(point.role)).map((point) => point.depth);
  return depths.length === 0 ? subject.nearest : depths.reduce((sum, depth) => sum + depth, 0) / depths.length;
}

/** Where to stand: measured to what stands nearest among those who must be sharp, and named where that is not the target. */
export function standing(plan: Plan, entry: StopPlan): Stand {
  const rows = rowsByDepth(decidingSubjects(plan), (subject) => subject.nearest);
  const front = rows[0] ?? [];
  const distanceMm = front.reduce((sum, subject) => sum + middleOf(subject), 0) / front.length;
  const [only] = front;
  if (!only) return { distanceMm: plan.distanceMm, from: '' };
  if (front.length === 1) return { distanceMm, from: only.id === entry.target.subjectId ? '' : spoken(only.name) };
  return { distanceMm, from: rows.length > 1 ? 'the front row' : '' };
}

/** Distances closer together than this are one, as a share. */
const sameDistance = 0.04;

/** Where to stand, in parts: "5.2 m", "the front row", "set focus to 5.9 m"; the last two may be empty. */
export function standParts(plan: Plan, entry: StopPlan, unit: LengthUnit) {
  const { distanceMm, from } = standing(plan, entry);
  const { focusDistanceMm, subjectId } = entry.target;
  const apart = from !== '' && subjectId !== null && Math.abs(focusDistanceMm / distanceMm - 1) > sameDistance;
  return {
    length: formatLength(distanceMm, unit),
    from,
    focused: apart ? `set focus to ${formatLength(focusDistanceMm, unit)}` : ''
  };
}

/** "from 3.4 m", "5.2 m from the front row, set focus to 5.9 m". */
export function standWords(plan: Plan, entry: StopPlan, unit: LengthUnit): string {
  const { length, from, focused } = standParts(plan, entry, unit);
  return from === '' ? `from ${length}` : `${length} from ${from}${focused === '' ? '' : `, ${focused}`}`;
}

/** Who must be sharp but is not in the picture or not seen in it, and whom the lens distorts: none when all is well. */
export function noticeWords(plan: Plan): readonly string[] {
  const of = (ids: readonly string[], one: string, many: string) => {
    if (ids.length === 0) return [];
    const names = ids.map((id) => subjectName(plan, id));
    return [`${capital(listOfNames(names))} ${names.length === 1 ? one : many}.`];
  };
  return [
    ...of(plan.outOfFrame, 'is out of frame and not counted', 'are out of frame and not counted'),
    ...of(plan.hidden, 'is hidden from the lens', 'are hidden from the lens'),
    ...(plan.stretched
      ? [
          `${capital(subjectName(plan, plan.stretched.subjectId))} is near the edge of a wide frame: the head stretches ${Math.round((plan.stretched.factor - 1) * 100)}%.`
        ]
      : [])
  ];
}

/** "Ines", "Ines and Wren", "Ines, Wren and 2 more". */
export const listOfNames = (names: readonly string[]): string =>
  names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : joined(names);

const joined = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names[names.length - 1] ?? ''}`;

/** The answer: "f/3.2 on Ines’s near eye, from 3.4 m." */
export function callSentence(plan: Plan, unit: LengthUnit, index = plan.selected): string {
  const entry = plan.stops[index];
  if (!entry) return '';
  return `f/${entry.stop.label} on ${targetWords(plan, entry, unit)}, ${standWords(plan, entry, unit)}.`;
}

interface SharpZone {
  readonly inFrontMm: number;
  /** Infinity when everything behind is sharp. */
  readonly behindMm: number;
  readonly depthMm: number;
}

/** The depth of field about the plane of focus. */
export function sharpZone(plan: Plan, entry: StopPlan): SharpZone {
  const s = entry.planeMm;
  const { nearMm, farMm } = sharpFromTo(plan, entry);
  const far = farMm ?? Infinity;
  return { inFrontMm: s - nearMm, behindMm: far - s, depthMm: far - nearMm };
}

/** "33 cm", "from 4.1 m to infinity". */
export function zoneWords(plan: Plan, entry: StopPlan, unit: LengthUnit): string {
  const { depthMm } = sharpZone(plan, entry);
  return depthMm === Infinity ? '∞' : formatLength(depthMm, unit);
}

/** "15 cm before, 18 cm behind". */
export function zoneSplitWords(plan: Plan, entry: StopPlan, unit: LengthUnit): string {
  const { inFrontMm, behindMm } = sharpZone(plan, entry);
  const behind = behindMm === Infinity ? 'all behind' : `${formatLength(behindMm, unit)} behind`;
  return `${formatLength(inFrontMm, unit)} in front, ${behind}`;
}

/** The keeper rate to show: with the AF area in use; in print, where no stop is sharp looked at closely but this one is in print. */
export function keeperRate(plan: Plan, entry: StopPlan): { readonly rate: number; readonly inPrint: boolean } {
  const { inPrint } = plan;
  return inPrint && isSharpInPrintOnly(plan) && entry === plan.stops[plan.selected]
    ? { rate: inPrint.odds, inPrint: true }
    : { rate: entry.odds, inPrint: false };
}

/** The same in words, at the stop in use. */
export function keeperRateWords(plan: Plan): string {
  const entry = plan.stops[plan.selected];
  return oddsWords(entry ? keeperRate(plan, entry).rate : 0);
}

/** So many frames make one of them a keeper, nineteen times in twenty; null where that is too many. */
export function framesToShoot(plan: Plan, entry: StopPlan): number | null {
  return keeperRate(plan, entry).inPrint ? (plan.inPrint?.for95 ?? null) : entry.frames.for95;
}

/** "shoot 3", or how many to combine where no single frame will do. */
export function framesWords(plan: Plan, entry: StopPlan): string {
  const for95 = framesToShoot(plan, entry);
  if (for95 !== null) return `shoot ${for95}`;
  return plan.framesToCombine === null ? 'no one frame has everyone' : `shoot ${plan.framesToCombine} to combine`;
}

/** In per cent, never 0 nor 100: nothing is certain. */
export function oddsWords(odds: number): string {
  if (odds < 0.01) return 'under 1%';
  return `${Math.min(99, Math.round(odds * 100))}%`;
}

/** What a stop makes of one background, in a sentence. */
export function backgroundSentence(plan: Plan, index: number, entry: StopPlan, unit: LengthUnit): string {
  const background = plan.backgrounds[index];
  const state = entry.backgrounds[index];
  if (!background || !state) return '';
  const lost = formatLength(state.lostDetailMm, unit);
  const name = capital(background.name);
  const detail = formatLength(background.detailMm, unit);
  if (verdict(state.ratio) === 'sharp') return `${name}: sharp.`;
  const effect = state.lostDetailMm >= background.detailMm ? 'blurred away' : 'still readable';
  switch (background.wish) {
    case 'soft':
      return `${name}: ${effect}. Details under ${lost} are gone.`;
    case 'hide':
      return state.met
        ? `${name}: blurred away. Details under ${lost} are gone.`
        : `${name}: still readable. Details under ${lost} are gone; these are ${detail}.`;
    case 'hint':
      if (state.met) return `${name}: just hinted. Details under ${lost} are gone; these are ${detail}.`;
      return state.lostDetailMm > background.detailMm * hintRange.most
        ? `${name}: blurred away completely, not even hinted at. Details under ${lost} are gone.`
        : `${name}: too distinct. Details under ${lost} are gone; these are ${detail}.`;
    case 'keep':
      return state.met
        ? `${name}: recognisable. Details under ${lost} are gone; these are ${detail}.`
        : `${name}: too soft to recognise. Details under ${lost} are gone; these are ${detail}.`;
    case 'free':
      return `${name}: ${effect}. Details under ${lost} are gone.`;
  }
}

/** What happens just beyond one end of the window. */
// eslint-disable-next-line complexity -- a table: one case a bound, each a sentence
function boundWords(plan: Plan, bound: Bound, end: 'wide' | 'narrow', label: string): string {
  const beyond = end === 'wide' ? 'Wider:' : 'Narrower:';
  switch (bound.kind) {
    case 'lens':
      return end === 'wide' ? `f/${label} is wide open` : `f/${label} is the lens’s smallest aperture`;
    case 'point': {
      const who = pointWords(plan, bound.subjectId, bound.role);
      return `${beyond} ${who} ${who.endsWith('eyes') ? 'go' : 'goes'} soft`;
    }
    case 'odds': {
      const who = subjectName(plan, bound.subjectId);
      return `${beyond} ${who} ${/^the .*[^s]s$/.test(who) ? 'drop' : 'drops'} under your ${oddsWords(plan.oddsWanted)}`;
    }
    case 'background': {
      const background = plan.backgrounds.find((item) => item.id === bound.backgroundId);
      const name = background?.name ?? 'the background';
      const many = /[^s]s$/i.test(name);
      if (background?.wish === 'keep') return `${beyond} ${name} can’t be recognised`;
      if (end === 'wide') return `${beyond} ${name} ${many ? 'disappear' : 'disappears'}`;
      return background?.wish === 'hint'
        ? `${beyond} ${name} ${many ? 'become' : 'becomes'} too distinct`
        : `${beyond} ${name} ${many ? 'come' : 'comes'} back`;
    }
    case 'lensBlur':
      return end === 'wide' ? `${beyond} the lens is too soft` : `${beyond} diffraction softens everything`;
    case 'lensEdge':
      return `${beyond} the lens is too soft out where ${subjectName(plan, bound.subjectId)} stands`;
    case 'light':
      return `${beyond} ${end === 'wide' ? tooBrightWords(plan) : 'too dark for your ISO limit'}`;
    case 'shake':
      return `${beyond} camera shake softens everything`;
    case 'movement':
      return `${beyond} ${possessive(subjectName(plan, bound.subjectId))} movement shows`;
  }
}

/** What the widest stops are too bright for: a time set by hand, a flash by its sync speed or its minimum power, the fastest time. */
function tooBrightWords({ stops }: Plan): string {
  const light = stops[0]?.light;
  if (light?.flash) return 'too bright for your flash';
  return `too bright for ${light?.floorRule === 'chosen' ? 'the shutter you set' : 'your fastest shutter'}`;
}

/** With its first letter a capital. */
export function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** What binds: "f/2.8–f/4 works. Wider: Ines’s far eye goes soft. Narrower: the trunks come back." */
export function reasonSentence(plan: Plan): string {
  const { window, stops } = plan;
  if (!window) return '';
  const first = stops[window.first]?.stop.label ?? '';
  if (stops.length === 1) return `f/${first} works: this lens has no other aperture.`;
  const last = stops[window.last]?.stop.label ?? '';
  const range = window.first === window.last ? `Only f/${first} works` : `f/${first}–f/${last} works`;
  return `${range}. ${boundWords(plan, plan.lower, 'wide', first)}. ${boundWords(plan, plan.upper, 'narrow', last)}.`;
}

/** What a standard print would need, where the closer look needs more: "In print f/2.8 would do."; else empty. */
export function printWords({ inPrint, stops, window }: Plan): string {
  const from = inPrint?.from;
  if (from === undefined || from === null || !window || from >= window.first) return '';
  return `In print f/${stops[from]?.stop.label ?? ''} would do.`;
}

type Unreachable = Extract<NonNullable<Plan['conflict']>, { kind: 'facesUnreachable' }>;

/** What a closer look than print would take. */
function closeWords(plan: Plan, { because }: Unreachable): string {
  const [only, ...rest] = decidingSubjects(plan);
  const close = because === 'light' ? plan.stops.find((entry) => entry.facesHold) : undefined;
  return close
    ? `Looked at closely, sharp takes f/${close.stop.label} at ISO ${close.light.iso ?? ''}.`
    : `Looked at closely, no aperture keeps ${only && rest.length === 0 ? spoken(only.name) : 'everyone'} sharp.`;
}

/** Why no aperture keeps the faces sharp. */
function unreachableWords(plan: Plan, { because, bound }: Unreachable): string {
  if (because === 'criterion')
    return 'At every aperture the lens and diffraction alone are too soft for how you want it viewed.';
  if (because === 'odds' && bound.kind === 'odds')
    return `There is enough depth of field, but movement and AF scatter keep ${subjectName(plan, bound.subjectId)} under ${oddsWords(plan.oddsWanted)} at every aperture.`;
  if (because === 'shake') return 'Within your ISO limit the shutter is too slow to hand-hold: camera shake will show.';
  if (because === 'movement' && bound.kind === 'movement')
    return `Within your ISO limit the shutter is too slow: ${subjectName(plan, bound.subjectId)} will show motion blur.`;
  const who = bound.kind === 'point' ? pointWords(plan, bound.subjectId, bound.role) : 'everyone';
  const stays = who.endsWith('eyes') ? 'stay' : 'stays';
  return decidingSubjects(plan).length > 1
    ? `No aperture on this lens has the depth of field for every face: ${who} ${stays} soft.`
    : `No aperture on this lens has enough depth of field: ${who} ${stays} soft.`;
}

/** The two goals in conflict, and in whose favour it was settled. */
export function conflictSentences(plan: Plan): { readonly wishes: string; readonly settled: string } | null {
  const { conflict, stops } = plan;
  if (!conflict) return null;
  const f = (index: number) => `f/${stops[index]?.stop.label ?? ''}`;
  switch (conflict.kind) {
    case 'facesUnreachable':
      if (plan.inPrint && isSharpInPrintOnly(plan))
        return {
          wishes: closeWords(plan, conflict),
          settled: `${f(plan.selected)} is sharp in print: ${oddsWords(plan.inPrint.odds)} of frames.`
        };
      return { wishes: unreachableWords(plan, conflict), settled: `${f(plan.recommended)} comes closest.` };
    case 'facesAgainstBackground': {
      const name = backgroundName(plan, conflict.backgroundId);
      const wish = plan.backgrounds.find((item) => item.id === conflict.backgroundId)?.wish ?? 'hide';
      const wanted = { soft: '', hide: 'blur away', hint: 'show as a hint', keep: 'stay recognisable', free: '' }[wish];
      if (conflict.bound.kind === 'light') {
        const lack = conflict.backgroundAt > plan.recommended ? 'too dark for your ISO limit' : tooBrightWords(plan);
        return {
          wishes: `${capital(name)} would only ${wanted} at ${f(conflict.backgroundAt)}, ${lack}.`,
          settled: `${f(plan.recommended)} can be exposed and keeps the faces sharp.`
        };
      }
      return {
        wishes: `The faces need ${f(conflict.facesFrom)}, but ${name} would only ${wanted} at ${f(conflict.backgroundAt)}.`,
        settled: plan.letGo.includes(conflict.backgroundId)
          ? `You can’t have both. ${f(plan.recommended)} keeps the faces sharp.`
          : `${f(plan.recommended)} keeps the faces sharp; a background can be fixed in post.`
      };
    }
    case 'backgroundUnreachable': {
      const name = backgroundName(plan, conflict.backgroundId);
      const background = plan.backgrounds.find((item) => item.id === conflict.backgroundId);
      const does =
        background?.wish === 'hide'
          ? `blurs ${name} away`
          : background?.wish === 'keep'
            ? `keeps ${name} recognisable`
            : `only hints at ${name}`;
      return {
        wishes: `No aperture on this lens ${does} from here.`,
        settled: plan.letGo.includes(conflict.backgroundId)
          ? `${f(plan.recommended)} keeps the faces sharp.`
          : `${f(plan.recommended)} keeps the faces sharp and comes closest.`
      };
    }
    case 'backgroundAgainstBackground':
      return {
        wishes: `${capital(backgroundName(plan, conflict.backgroundId))} and ${backgroundName(plan, conflict.otherId)} need different apertures.`,
        settled: `${f(plan.recommended)} is the best compromise and keeps the faces sharp.`
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
      return { title: 'This setup’s body isn’t in your kit.', advice: 'Choose another body.' };
    case 'unknownLens':
      return { title: 'This setup’s lens isn’t in your kit.', advice: 'Choose another lens.' };
    case 'nothingRequired':
      return { title: 'No one is in this setup yet.', advice: 'Add a person or an object to get a call.' };
    case 'behindCamera':
      return {
        title: `${reason.name} is behind the camera.`,
        advice: `Step back, or move ${reason.name} into the frame.`
      };
    case 'tooClose':
      return {
        title: `The lens focuses no closer than ${formatLength(reason.closestFocusMm, unit)}.`,
        advice: `You’re at ${formatLength(reason.nearestMm, unit)}. Step back or change lens.`
      };
  }
}

/** A setup's line in the Day: the call, and what is to be known of it. */
export function dayLine(plan: Plan | NoPlan, unit: LengthUnit): { readonly call: string; readonly more: string } {
  if (plan.kind === 'noPlan') {
    const { title, advice } = noPlanWords(plan.reason, unit);
    return { call: title, more: advice };
  }
  return {
    call: callSentence(plan, unit),
    more: conflictSentences(plan)?.wishes ?? `${keeperRateWords(plan)} keeper rate with the ${plan.lensName}`
  };
}

/** What turning or leaning after focusing does, in a sentence; empty where the point lies on the target. */
export function recomposeSentence({ target }: StopPlan, unit: LengthUnit): string {
  const { recomposed } = target;
  if (!recomposed) return '';
  const side = (mm: number) => `${formatLength(Math.abs(mm), unit)} ${mm < 0 ? 'in front' : 'behind'}`;
  const turn = `turning puts focus ${side(recomposed.turnMm)}`;
  const lean = recomposed.leanMm === 0 ? '' : `; leaning adds ${side(recomposed.leanMm)}`;
  return recomposed.asked
    ? `Focus and recompose: ${turn}${lean}.`
    : `No AF point reaches it. Focus with the centre point and recompose: focus ends up ${side(recomposed.turnMm)}.`;
}

/** The background that misses its wish most, or the one nearest to its limit; null without backgrounds. */
export function decidingBackground(plan: Plan, entry: StopPlan): number | null {
  let deciding: number | null = null;
  let most = -1;
  entry.backgrounds.forEach((state, index) => {
    const wish = plan.backgrounds[index]?.wish;
    const weight = wish === 'free' ? -0.5 : state.shortfallStops;
    if (weight > most) {
      most = weight;
      deciding = index;
    }
  });
  return deciding;
}
