/** Why each part of the call is what it is, in a sentence. */
import type { Plan, StopPlan } from '../call/plan';
import { distanceErrorShare, type DistanceSensitivity } from '../call/sensitivity';
import type { WhatIf, WhatIfKind } from '../call/whatIf';
import type { Framing, Setup } from '../setup/schema';
import {
  backgroundSentence,
  capital,
  decidingSubjects,
  oddsWords,
  pointWords,
  recomposeSentence,
  subjectName
} from './call';
import { formatLength, type LengthUnit } from '../units/length';

export const framingWords: Readonly<Record<Framing, string>> = {
  headAndShoulders: 'head and shoulders',
  halfLength: 'half length',
  threeQuarter: 'three-quarter',
  fullLength: 'full length'
};

/** Why the focus goes there. */
export function whyTarget(setup: Setup, plan: Plan, entry: StopPlan, unit: LengthUnit): string {
  const { target } = setup.intent;
  if (target.kind !== 'best') return 'You chose where to focus.';
  const depths = decidingSubjects(plan).flatMap((subject) =>
    subject.points.filter((point) => point.required).map((point) => point.depth)
  );
  const nearest = Math.min(...depths);
  const range = Math.max(...depths) - nearest;
  const { subjectId, role } = entry.target;
  const gain = entry.gain > 0 ? ` ${gainWords(entry.gain)} than the usual focus point.` : '';
  if (subjectId === null || role === null) {
    return `Between the rows, so front and back are equally sharp. Focus manually, or on something held at that spot.${gain}`;
  }
  const who = capital(pointWords(plan, subjectId, role));
  const lies = who.endsWith('eyes') ? 'lie' : 'lies';
  const how = { temple: ' Beside the eye, at the hairline.', ear: ' Level with the eyes.', collar: ' Under the chin.' };
  const find = role === 'temple' || role === 'ear' || role === 'collar' ? how[role] : '';
  if (range < 2) return `${who}: everything that must be sharp is at the same distance.`;
  const share = (entry.target.focusDistanceMm - nearest) / range;
  const deep = `what must be sharp is ${formatLength(range, unit)} deep`;
  if (share < 0.05) {
    const reach = (entry.farMm ?? Infinity) - nearest;
    if (range < shallowMm && reach >= range) return `${who}: ${deep}, so the nearest point is as good as any.`;
    return reach >= range
      ? `${who} ${lies} nearest: ${deep}, and the depth of field reaches back over it.${find}`
      : `${who} ${lies} nearest: ${deep}, and the depth of field reaches ${formatLength(Math.max(0, reach), unit)} back.${find}`;
  }
  if (share > 0.95) return `${who} ${lies} furthest: ${deep}.${find}${gain}`;
  const shared = areShared(entry, nearest, nearest + range) ? ', so front and back are equally sharp' : '';
  return `${who}: ${deep}. This is ${formatLength(share * range, unit)} in${shared}.${find}${gain}`;
}

/** Front and back are as sharp as each other where their defocus differs by no more than this share (no source). */
const sharedShare = 0.25;

/** Whether what lies nearest and what lies furthest are about equally far out of focus: in vergence, as blur grows. */
function areShared({ planeMm }: StopPlan, nearest: number, furthest: number): boolean {
  const front = 1 / nearest - 1 / planeMm;
  const back = 1 / planeMm - 1 / furthest;
  return front > 0 && back > 0 && Math.abs(front - back) <= sharedShare * Math.max(front, back);
}

/** What is shallower than this is held from its nearest point as well as from any other, mm. */
const shallowMm = 120;

/** "2 more keepers in 10". */
function gainWords(gain: number): string {
  const more = Math.max(1, Math.round(gain * 10));
  return `${more} more ${more === 1 ? 'keeper' : 'keepers'} in 10`;
}

/** Why you stand there, and what one frame would be like a stitched view. */
export function whyDistance(setup: Setup, plan: Plan, unit: LengthUnit): string {
  const { stitched } = plan;
  const like = stitched
    ? ` Stitched: looks like one frame at ${Math.round(stitched.focalLengthMm)} mm f/${stitched.fNumber.toFixed(2)}.`
    : '';
  return `${whyPlaced(setup, plan, unit)}${like}`;
}

function whyPlaced(setup: Setup, plan: Plan, unit: LengthUnit): string {
  const { placement } = setup.camera;
  const framed = `${formatLength(plan.framedWidthMm, unit)} × ${formatLength(plan.framedHeightMm, unit)}`;
  const lens = `${plan.focalLengthMm} mm`;
  switch (placement.kind) {
    case 'distance':
      return `Your distance. ${lens} frames ${framed} from here.`;
    case 'framing':
      return `From here ${lens} frames ${framingWords[placement.framing]}, ${framed}.`;
    case 'framedHeight':
      return `From here ${lens} frames ${framed}.`;
    case 'group':
      return `From here ${lens} fits everyone, ${framingWords[placement.framing]}, with a ${Math.round(placement.marginShare * 100)}% margin.`;
  }
}

/** Why the odds are no better. */
export function whyOdds(plan: Plan, entry: StopPlan, unit: LengthUnit): string {
  const { weakest } = plan;
  const within = (mm: number) => `±${formatLength(mm, unit)}`;
  const causes = [
    `AF scatter ${within(entry.scatter.focusMm)}`,
    ...(entry.scatter.holdMm > 0 ? [`your sway ${within(entry.scatter.holdMm)}`] : []),
    ...(entry.scatter.leanMm > 0 ? [`your lean ${within(entry.scatter.leanMm)}`] : []),
    ...(weakest.swayMm > 0 ? [`their sway ${within(weakest.swayMm)}`] : [])
  ];
  const turned = recomposeSentence(entry, unit);
  return `${subjectName(plan, weakest.subjectId)} is most likely to come out soft: ${causes.join(', ')}.${turned === '' ? '' : ` ${turned}`}`;
}

const steadier: Readonly<Record<WhatIfKind, string>> = {
  focus: 'your AF were twice as accurate',
  hold: 'you swayed half as much',
  people: 'they swayed half as much',
  shake: 'your hands shook half as much',
  lean: 'you leaned half as much'
};

/** "If you swayed half as much, f/1.8 would work, and f/2.8 would keep 97% instead of 91%." */
export function whatIfWords(plan: Plan, { kind, stop, oddsNow, oddsThen }: WhatIf): string {
  const now = plan.stops[plan.recommended]?.stop.label ?? '';
  const keeps = `f/${now} would keep ${oddsWords(oddsThen)} instead of ${oddsWords(oddsNow)}`;
  return `If ${steadier[kind]}, ${stop === now ? keeps : `f/${stop} would work, and ${keeps}`}.`;
}

/** Why the depth of field is no greater. */
export function whyZone(plan: Plan, entry: StopPlan): string {
  const { lens, diffraction, pixels, shake } = entry.causes;
  const percent = (ratio: number) => `${Math.round(ratio * 100)}%`;
  const most = [
    { name: 'the lens', ratio: lens },
    { name: 'diffraction', ratio: diffraction },
    { name: 'the pixels', ratio: pixels },
    { name: 'camera shake', ratio: shake }
  ].sort((a, b) => b.ratio - a.ratio)[0];
  const allowed = `Up to ${Math.round(plan.circleOfConfusionMm * 1000)} µm of blur on the sensor still looks sharp.`;
  return most
    ? `${allowed} ${capital(most.name)} alone ${most.name.endsWith('pixels') ? 'use' : 'uses'} ${percent(most.ratio)} of that; what is left is your depth of field.`
    : allowed;
}

export function whyBackground(plan: Plan, entry: StopPlan, index: number, unit: LengthUnit): string {
  const background = plan.backgrounds[index];
  if (!background) return '';
  const away = background.depthMm - entry.planeMm;
  const where = `${formatLength(Math.abs(away), unit)} ${away < 0 ? 'in front of' : 'behind'} the plane of focus`;
  return `${backgroundSentence(plan, index, entry, unit)} It lies ${where}.`;
}

/** How much measuring the distance matters, in a sentence. */
export function sensitivityWords({ nearer, further, measuringMatters }: DistanceSensitivity, unit: LengthUnit): string {
  const share = Math.round(distanceErrorShare * 100);
  const at = (item: DistanceSensitivity['nearer']) =>
    item.stop === null
      ? `at ${formatLength(item.distanceMm, unit)} no call`
      : `at ${formatLength(item.distanceMm, unit)} call f/${item.stop}, this aperture keeps ${oddsWords(item.oddsWithThisStop)}`;
  return `${measuringMatters ? 'Measure the distance' : 'Judging the distance by eye is close enough'}: ${share}% off, ${at(nearer)}; ${at(further)}.`;
}
