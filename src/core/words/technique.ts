/** The point, turning, holding, rules and flows of their own, in words. */
import { focusAreaWords, focusMethodWords, focusModeWords, triggerWords } from '../setup/focusChoices';
import type { Plan } from '../call/plan';
import type { PointAdvice, PointFit } from '../technique/point';
import { discernible, type Muzzle, type PhoneFacts, type SubjectWay } from '../technique/specialCases';
import type { ReachWay } from '../technique/reach';
import type { Across } from '../technique/across';
import type { Recomposing } from '../technique/recomposing';
import { stopsBetween } from '../optics/stops';
import { formatIso, formatShutter } from './light';
import type { Ruled, RuleKind } from '../technique/rules';
import type { Hold } from '../technique/hold';
import type { Prefocus } from '../technique/prefocus';
import type { Trap } from '../technique/trap';
import type { Camera } from '../setup/schema';
import { focusPointWords } from '../setup/focusPoint';
import { capital, oddsWords, pointWords, possessive, subjectName } from './call';
import { formatLength, type LengthUnit } from '../units/length';
import { landedWords, offsetFromTargetText } from './ways';

const sizeWords: Readonly<Record<PointFit['size'], string>> = {
  pinpoint: 'pinpoint',
  small: 'small',
  medium: 'medium',
  large: 'large'
};
export const pointSizeWords = sizeWords;

/** Where the named point lies against the eye: "lies on it", "12 mm left of it: turn until it does". */
export function pointOffWords({ point, offMm }: PointAdvice, unit: LengthUnit): string {
  const name = capital(focusPointWords(point));
  const off = Math.hypot(offMm.right, offMm.up);
  if (off < 3) return `${name} lies on it.`;
  const across =
    Math.abs(offMm.right) < 2
      ? ''
      : `${formatLength(Math.abs(offMm.right), unit)} to the ${offMm.right > 0 ? 'left' : 'right'} of`;
  const along =
    Math.abs(offMm.up) < 2 ? '' : `${formatLength(Math.abs(offMm.up), unit)} ${offMm.up > 0 ? 'below' : 'above'}`;
  const where = [across, along].filter(Boolean).join(' and ');
  return `${name} is ${where} it: frame so it covers the eye, focus, reframe.`;
}

/** Less in front or behind is not worth a word, mm. */
const worthSayingMm = 5;

/** "1.2 cm wide there, covers only the eye"; "4 cm wide there; also her hair: 1 cm in front to 4 cm behind". */
export function pointFitWords(plan: Plan, fit: PointFit, unit: LengthUnit): string {
  const edge = `${formatLength(fit.edgeMm, unit)} wide there`;
  const [other] = fit.others;
  if (!other) return `${edge}, covers only the eye`;
  const names = fit.others.slice(0, 3).map((item) => landedWords(plan, item));
  const reach = [
    ...(fit.nearestMm < -worthSayingMm ? [offsetFromTargetText(fit.nearestMm, unit)] : []),
    ...(fit.furthestMm > worthSayingMm ? [offsetFromTargetText(fit.furthestMm, unit)] : [])
  ];
  return `${edge}; also ${names.join(', ')}${reach.length === 0 ? '' : `: ${reach.join(' to ')}`}`;
}

export function recomposeAdvice(
  { turnDeg, byPivot, leaning, moved, safeFrom, leaningSafeFrom }: Recomposing,
  unit: LengthUnit
): readonly string[] {
  const [wrists] = byPivot;
  if (leaning.odds >= moved - 0.02) {
    return ['Recomposing is safe here: there is enough depth of field.'];
  }
  const lines: string[] = [];
  if (wrists) {
    const shifts = byPivot.map(({ shiftMm }) => formatLength(Math.abs(shiftMm), unit));
    const same = new Set(shifts).size === 1;
    lines.push(
      `Focus in the centre, then turn ${turnDeg.toFixed(0)}°: focus ends up ${shifts[0]} behind the eye${
        same
          ? ' whichever way you turn'
          : `, ${shifts[1]} from the shoulders, ${shifts[2]} from the waist: the pivot hardly matters`
      }. ${oddsWords(wrists.odds)} instead of ${oddsWords(moved)}.`
    );
  }
  lines.push(
    `Leaning as you turn puts it ${formatLength(Math.abs(leaning.shiftMm), unit)} behind: ${oddsWords(leaning.odds)}. Turn from the wrists and keep your body still.`
  );
  const safe = (from: string | null) => (from === null ? 'at no aperture' : `from f/${from}`);
  lines.push(`Turning is safe ${safe(safeFrom)}, leaning ${safe(leaningSafeFrom)}.`);
  return lines;
}

const ruleNames: Readonly<Record<RuleKind, string>> = {
  frontOfTwo: 'Two rows: focus on the front one',
  middleRow: 'More rows: focus on the middle one',
  thirdIn: 'A third of the way in',
  nearestFace: 'The nearest face',
  wholeFrame: 'Full-area AF, camera chooses',
  wideOpen: 'Always wide open',
  twoStopsDown: 'Two stops down',
  alwaysEight: 'Always f/8',
  stopPerRow: 'One stop for each row'
};
export const ruleName = ({ rule }: Pick<Ruled, 'rule'>): string => ruleNames[rule];

/** What the rule comes to here. */
export function ruleWords(
  plan: Plan,
  { rule, stop, target, holdsFrom, costStops, missed }: Ruled,
  unit: LengthUnit
): string {
  const eye =
    target.subjectId === null || target.role === null
      ? `${formatLength(target.focusDistanceMm, unit)} away`
      : pointWords(plan, target.subjectId, target.role);
  const ofPlace = rule === 'frontOfTwo' || rule === 'middleRow' || rule === 'thirdIn' || rule === 'nearestFace';
  if (ofPlace) {
    const cost =
      costStops === null || costStops < 0.05
        ? ''
        : `: costs ${Number(costStops.toFixed(1))} ${costStops > 0.95 && costStops < 1.05 ? 'stop' : 'stops'}`;
    return `${eye}; ${holdsFrom === null ? 'faces sharp at no aperture' : `faces sharp from f/${holdsFrom}`}${cost}`;
  }
  if (rule === 'wholeFrame') return `at f/${stop.label}`;
  return `f/${stop.label}${missed.length === 0 ? '' : `; misses: ${missed.join(', ')}`}`;
}

export function holdWords({ refocusAfterS }: Hold): string {
  if (refocusAfterS === null) return 'You can wait a few seconds: there is enough depth of field.';
  if (refocusAfterS < 0.1) return 'Shoot the moment it focuses, and shoot more than one.';
  return `Shoot straight away; refocus after ${refocusAfterS < 2 ? Number(refocusAfterS.toFixed(1)) : Math.round(refocusAfterS)} s.`;
}

export function trapWords(trap: Trap, unit: LengthUnit): readonly string[] {
  const {
    person,
    sharpForMm,
    sharpForS,
    pressBeforeMm,
    oneFrame,
    framesInside,
    burst,
    framesPerSecondNeeded,
    following
  } = trap;
  const name = person.name;
  return [
    `${name} is sharp for ${formatLength(sharpForMm, unit)} of the way, ${sharpForS.toFixed(2)} s.`,
    `Prefocus on a mark on the floor. Press when they are ${formatLength(pressBeforeMm, unit)} short of it: ${oddsWords(oneFrame)} for one frame.`,
    framesInside >= 1
      ? `A burst started early gets ${framesInside >= 2 ? `${Math.floor(framesInside)} frames` : '1 frame'} in the depth of field.`
      : `A burst gets a sharp frame in ${oddsWords(burst)}; to be certain you need ${Math.ceil(framesPerSecondNeeded)} frames a second.`,
    `Tracking with continuous AF: ${oddsWords(following)}.`
  ];
}

/** "Set focus to 4.4 m and leave it: f/5.6 keeps Ada sharp from 3.9 m to 5.1 m. The ring may be off by ±2 cm." */
export function prefocusWords(found: Prefocus, unit: LengthUnit): string {
  const { name, focusMm, stop, covers, nearMm, farMm, ringMm } = found;
  const to = farMm === null ? 'on to infinity' : `to ${formatLength(farMm, unit)}`;
  const set = `Set focus to ${formatLength(focusMm, unit)} and leave it`;
  const keeps = `keeps ${name} sharp from ${formatLength(nearMm, unit)} ${to}`;
  const off = ` The ring may be off by ±${formatLength(ringMm, unit)}.`;
  return covers
    ? `${set}: f/${stop.label} ${keeps}.${off}`
    : `No aperture covers all of it. ${set}: f/${stop.label} ${keeps}.${off}`;
}

/** What to do where no AF point reaches the eye. */
export function reachWords({ kind, pixels, backMm, turnDeg, lost }: ReachWay, unit: LengthUnit): string {
  switch (kind) {
    case 'reframe':
      return `Reframe by ${turnDeg.toFixed(1)}°${lost.length === 0 ? '' : `: ${lost.join(', ')} would be out of frame`}`;
    case 'crop':
      return `Step back ${formatLength(backMm, unit)}, put the nearest point on it, and crop: ${Math.round(pixels * 100)}% of the pixels are left`;
    case 'turn':
      return 'Focus with the centre point, then recompose from the wrists';
    case 'byHand':
      return 'Focus manually, magnified: anywhere in the frame';
  }
}

const subjectWayNames: Readonly<Record<SubjectWay['subject'], string>> = {
  thing: 'Object sharp, person soft',
  person: 'Person sharp, object soft',
  both: 'Both sharp'
};
export const subjectWayName = ({ subject }: SubjectWay): string => subjectWayNames[subject];

/** "f/2.8, 1/125, ISO 640; still discernible". */
export function subjectWayWords({ stop, shutterS, iso, otherBlur }: SubjectWay): string {
  const light = [`f/${stop.label}`, formatShutter(shutterS), ...(iso === null ? [] : [`ISO ${formatIso(iso)}`])];
  if (otherBlur === null) return light.join(', ');
  const other =
    otherBlur > discernible.upTo
      ? 'hardly discernible'
      : otherBlur < discernible.nearlySharp
        ? 'nearly sharp'
        : 'soft but discernible';
  return `${light.join(', ')}; the other ${other}`;
}

export function muzzleWords({ name, muzzleMm, eyesFrom, noseFrom }: Muzzle, unit: LengthUnit): string {
  const eye = `Get down to ${possessive(name)} eye level and focus on the nearer eye, not the muzzle ${formatLength(muzzleMm, unit)} in front.`;
  const more =
    noseFrom === null
      ? 'No aperture keeps the nose sharp too.'
      : eyesFrom === null || noseFrom.label === eyesFrom.label
        ? `From f/${noseFrom.label} the nose is sharp too.`
        : `The eyes are sharp from f/${eyesFrom.label}, the nose from f/${noseFrom.label}: ${stopsBetween(eyesFrom.fNumber, noseFrom.fNumber).toFixed(1)} stops more.`;
  return `${eye} ${more} It won’t hold still: shoot a burst.`;
}

export function phoneWords(
  { equivalentN, equivalentMm, blursFromMm }: PhoneFacts,
  unit: LengthUnit
): readonly string[] {
  return [
    `It blurs like f/${equivalentN.toFixed(equivalentN < 10 ? 1 : 0)} at ${Math.round(equivalentMm)} mm on full frame: a far background shows as blurred from nearer than ${formatLength(blursFromMm, unit)}.`,
    'Tap and hold until focus locks, or the phone will refocus. Something small or far: enlarge, tap and hold, back out, shoot. Slide for the brightness.',
    'Lock in advance and wait: what comes before the lens then, grass or a leaf, stays blurred.'
  ];
}

/** Whoever moves across: what the shutter in use makes of it, and where they stand still. */
export function acrossWords(plan: Plan, { subjectId, ratio, shutterS, stillS }: Across): string {
  const name = subjectName(plan, subjectId);
  const now =
    ratio > 1
      ? `${name} moves too far in ${formatShutter(shutterS)} to be sharp.`
      : `In ${formatShutter(shutterS)} ${possessive(name)} motion blur is ${Math.round(ratio * 100)}% of the acceptable blur.`;
  const still = stillS < shutterS * 0.97 ? ` From ${formatShutter(stillS)} it freezes.` : '';
  return `${now}${still} At the peak of a turn or swing they pause: press just before it.`;
}

/** How to focus, in one line of the field card. */
export function focusLine(camera: Camera): { readonly value: string; readonly more: string } {
  if (camera.focusMethod === 'magnifier' || camera.focusMethod === 'byEye' || camera.focusMethod === 'scale') {
    return { value: capital(focusMethodWords[camera.focusMethod]), more: '' };
  }
  const sized = camera.focusArea === 'point' && camera.pointSize !== 'small' ? ` (${sizeWords[camera.pointSize]})` : '';
  const more = [
    camera.focusMode === 'single' ? '' : focusModeWords[camera.focusMode],
    camera.recompose === 'none' ? '' : 'focus and recompose',
    camera.trigger === 'thumb' ? triggerWords.thumb : ''
  ].filter(Boolean);
  return { value: `${capital(focusAreaWords[camera.focusArea])}${sized}`, more: more.join(', ') };
}
