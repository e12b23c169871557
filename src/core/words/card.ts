/** The figures of the field card. */
import type { Plan, StopPlan } from '../call/plan';
import { oddsWords, sharpZone } from './call';
import { formatLength, type LengthUnit } from './length';

interface CardLine {
  readonly name: string;
  readonly value: string;
  readonly more: string;
}

/** Where to stand, what is sharp, how often to shoot. */
export function cardLines(plan: Plan, entry: StopPlan, unit: LengthUnit): CardLine[] {
  const zone = sharpZone(entry);
  const { toShoot } = entry.frames;
  return [
    { name: 'Stand', value: `${formatLength(plan.distanceMm, unit)} away`, more: `${plan.focalLengthMm} mm` },
    {
      name: 'Sharp',
      value: formatLength(zone.inFrontMm, unit),
      more:
        zone.behindMm === Infinity ? 'in front, all behind' : `in front, ${formatLength(zone.behindMm, unit)} behind`
    },
    {
      name: 'Shoot',
      value: toShoot === null ? 'many' : `${toShoot} ${toShoot === 1 ? 'frame' : 'frames'}`,
      more: `${oddsWords(entry.odds)} each`
    }
  ];
}
