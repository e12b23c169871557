/** The figures of the field card. */
import type { Plan, StopPlan } from '../call/plan';
import { strays } from '../call/strays';
import { framesToShoot, keeperRate, oddsWords, sharpZone, standing, subjectName } from './call';
import type { Setup } from '../setup/schema';
import { formatIso, formatShutter } from './light';
import { powerWords } from './flash';
import { formatLength, type LengthUnit } from '../units/length';
import { focusLine } from './technique';
import { correctionWords } from './checks';
import { exposureModeOf } from '../technique/metering';
import { meteringWords } from '../setup/focusChoices';

interface CardLine {
  readonly name: string;
  readonly value: string;
  readonly more: string;
}

/** The setup a card is of, and the exposure compensation to dial in, stops. */
interface CardSetup {
  readonly setup: Setup;
  readonly compensation: number;
}

/** Where to stand, what is sharp, how often to shoot; how to focus and set the camera. */
export function cardLines(plan: Plan, entry: StopPlan, unit: LengthUnit, of?: CardSetup): CardLine[] {
  const zone = sharpZone(plan, entry);
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
    ...(of
      ? [
          { name: 'Focus', ...focusLine(of.setup.camera) },
          { name: 'Set the camera', ...cameraLine(entry, of) }
        ]
      : [])
  ];
}

/**
 * "min 1/250", "aperture priority f/2.8, Auto ISO, +2/3"; with the time by hand "1/250"; all by hand "1/250, ISO 1600", "manual f/4,
 * flash 1/8".
 */
function cameraLine({ stop, light }: StopPlan, { setup, compensation }: CardSetup): Omit<CardLine, 'name'> {
  const { shutterS, floorS, iso, flash } = light;
  const mode = exposureModeOf(setup);
  const { metering } = setup.camera;
  const more = [
    `${mode === 'aperturePriority' ? 'aperture priority' : 'manual'} f/${stop.label}`,
    ...(mode === 'manual' ? [] : ['Auto ISO', ...(metering === 'whole' ? [] : [meteringWords[metering]])]),
    ...(compensation === 0 ? [] : [correctionWords(compensation)]),
    ...(flash ? [`flash ${powerWords(flash.power)}`] : [])
  ].join(', ');
  switch (mode) {
    case 'aperturePriority':
      return { value: `min ${formatShutter(Math.max(floorS, shutterS))}`, more };
    case 'manualAutoIso':
      return { value: formatShutter(shutterS), more };
    case 'manual':
      return {
        value: `${formatShutter(shutterS)}, ${iso === null ? 'ISO by the meter' : `ISO ${formatIso(iso)}`}`,
        more
      };
  }
}

/** "2 frames", "91% each, refocus each"; and where no single frame will do, how many to combine. */
function framesLine(plan: Plan, entry: StopPlan): Omit<CardLine, 'name'> {
  const { rate, inPrint } = keeperRate(plan, entry);
  const { framesToCombine } = plan;
  const for95 = framesToShoot(plan, entry);
  // Autofocus that strays: what it keeps, and what it would where it lands as meant.
  const landed = !inPrint && strays(entry) ? `, ${oddsWords(entry.oddsOnTarget)} if it lands` : '';
  const each = `${oddsWords(rate)} each${inPrint ? ' in print' : landed}`;
  if (for95 === 1) return { value: '1 frame', more: each };
  if (for95 !== null) return { value: `${for95} frames`, more: `${each}, refocusing` };
  if (framesToCombine === null) return { value: 'many', more: each };
  return { value: `${framesToCombine} frames`, more: 'to combine the best faces' };
}
