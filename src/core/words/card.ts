/** The figures of the field card. */
import type { Plan, StopPlan } from '../call/plan';
import { framesToShoot, keeperRate, oddsWords, sharpZone, standing, subjectName } from './call';
import type { Setup } from '../setup/schema';
import { formatIso, formatShutter } from './light';
import { powerWords } from './flash';
import { formatLength, type LengthUnit } from '../units/length';
import { focusLine } from './technique';

interface CardLine {
  readonly name: string;
  readonly value: string;
  readonly more: string;
}

/** Where to stand, what is sharp, how often to shoot. */
export function cardLines(plan: Plan, entry: StopPlan, unit: LengthUnit, setup?: Setup): CardLine[] {
  const zone = sharpZone(entry);
  const stand = standing(plan, entry);
  return [
    {
      name: 'Stand',
      value: formatLength(stand.distanceMm, unit),
      more: `from ${stand.from === '' ? subjectName(plan, entry.target.subjectId ?? '') : stand.from}, ${plan.focalLengthMm} mm`
    },
    {
      name: 'Sharp',
      value: formatLength(zone.inFrontMm, unit),
      more:
        zone.behindMm === Infinity ? 'in front, all behind' : `in front, ${formatLength(zone.behindMm, unit)} behind`
    },
    { name: 'Shoot', ...framesLine(plan, entry) },
    ...(setup
      ? [
          { name: 'Focus', ...focusLine(setup.camera) },
          { name: 'Light', ...lightLine(entry) }
        ]
      : [])
  ];
}

/** "1/250", "ISO 1600"; with flash its power. */
function lightLine({ light: { shutterS, iso, flash } }: StopPlan): Omit<CardLine, 'name'> {
  const power = flash ? `, flash ${powerWords(flash.power)}` : '';
  return { value: formatShutter(shutterS), more: iso === null ? 'light not set' : `ISO ${formatIso(iso)}${power}` };
}

/** "2 frames", "91% each, refocus each"; and where no single frame will do, how many to combine. */
function framesLine(plan: Plan, entry: StopPlan): Omit<CardLine, 'name'> {
  const { rate, inPrint } = keeperRate(plan, entry);
  const { framesToCombine } = plan;
  const for95 = framesToShoot(plan, entry);
  const each = `${oddsWords(rate)} each${inPrint ? ' in print' : ''}`;
  if (for95 === 1) return { value: '1 frame', more: each };
  if (for95 !== null) return { value: `${for95} frames`, more: `${each}, refocusing` };
  if (framesToCombine === null) return { value: 'many', more: each };
  return { value: `${framesToCombine} frames`, more: 'to combine the best faces' };
}
