/** Why each part of the call is what it is, in a sentence. */
import { lightLevel } from '../call/light';
import type { Plan, StopPlan } from '../call/plan';
import { distanceErrorShare, type DistanceSensitivity } from '../call/sensitivity';
import type { WhatIf, WhatIfKind } from '../call/whatIf';
import type { Framing, Setup } from '../setup/schema';
import { backgroundSentence, capital, decidingSubjects, oddsWords, pointWords, subjectName } from './call';
import { formatLength, type LengthUnit } from '../units/length';
import { floorWords, formatIso, formatShutter, knownLightWords } from './light';

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
    return range < shallowMm
      ? `${who}: ${deep}, so the nearest point is as good as any.`
      : `${who} ${lies} nearest: ${deep}, and the depth of field reaches back over it.`;
  }
  if (share > 0.95) return `${who} ${lies} furthest: ${deep}.${find}${gain}`;
  return `${who}: ${deep}. This is ${formatLength(share * range, unit)} in, so front and back are equally sharp.${find}${gain}`;
}

/** What is shallower than this is held from its nearest point as well as from any other, mm. */
const shallowMm = 120;

/** "2 more keepers in 10". */
function gainWords(gain: number): string {
  const more = Math.max(1, Math.round(gain * 10));
  return `${more} more ${more === 1 ? 'keeper' : 'keepers'} in 10`;
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

/** Shutter and ISO: "1/250" and "ISO 640", or what is missing. */
export function lightWords({ light }: StopPlan): {
  readonly shutter: string;
  readonly iso: string;
  readonly lack: string;
} {
  const stops = (value: number) => `${value.toFixed(1).replace(/\.0$/, '')} ${value < 1.05 ? 'stop' : 'stops'}`;
  const dark = light.missingStops > 0.05 ? `${stops(light.missingStops)} too dark` : '';
  const bright = light.tooBrightStops > 0.05 ? `${stops(light.tooBrightStops)} too bright` : '';
  return {
    shutter: formatShutter(light.shutterS),
    iso: light.iso === null ? '' : `ISO ${formatIso(light.iso)}`,
    lack: dark === '' ? bright : dark
  };
}

/** Why shutter and ISO are what they are. */
export function whyLight(setup: Setup, entry: StopPlan): string {
  const { light } = entry;
  const { level, flash } = setup.light;
  const { shutter, lack } = lightWords(entry);
  const ev100 = lightLevel(setup);
  const source =
    level.kind === 'estimated'
      ? knownLightWords[level.as]
      : level.kind === 'metered'
        ? 'the light you metered'
        : `EV ${ev100 ?? ''}`;
  const mend =
    lack === ''
      ? ''
      : light.missingStops > 0.05
        ? ` Still ${lack}: add light, slow the shutter or open up.`
        : ` Still ${lack}: use an ND filter.`;
  if (flash && light.flash) {
    const power = Math.round(Math.min(1, light.flash.power) * 100);
    const under = light.flash.ambientUnderStops;
    const apart = under === null ? '' : `${Number(Math.abs(under).toFixed(1))} stops ${under >= 0 ? 'under' : 'over'}`;
    const room = under === null ? '' : ` The room lies ${apart} it.`;
    const sync = light.floorRule === 'sync' ? ` ${shutter} is ${floorWords.sync}.` : '';
    if (flash.use === 'fill') {
      const lies = -(under ?? -flash.underStops);
      const side = lies >= 0 ? 'under' : 'over';
      const asWished = Math.abs(lies - flash.underStops) < 0.05 ? '' : `, not the ${flash.underStops} you wanted`;
      return `Fill flash at ${power}% of its power, ${Number(Math.abs(lies).toFixed(1))} stops ${side} the light${asWished}.${sync}${mend}`;
    }
    return `Flash at ${power}% of its power.${room}${sync}${mend}`;
  }
  if (ev100 === null) return `${shutter} is ${floorWords[light.floorRule]}. Set the light level to get an ISO.`;
  if (light.iso !== null && light.shutterS < light.floorS * 0.98) {
    return `In ${source} there is light enough for ${shutter} at the lowest ISO.${mend}`;
  }
  return `${shutter} is ${floorWords[light.floorRule]}; ISO covers the rest in ${source}.${mend}`;
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
