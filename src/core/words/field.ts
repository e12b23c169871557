/** What turned out different, in words. */
import { steppers, type Stepper } from '../asShot/steppers';
import type { Kit } from '../kit/schema';
import type { Different } from '../setup/schedule';
import type { Setup } from '../setup/schema';
import { formatLength, type LengthUnit } from '../units/length';

export const stepperNames: Readonly<Record<Stepper, string>> = {
  distance: 'Distance',
  deeper: 'Rows deeper',
  light: 'Light',
  lens: 'Lens',
  wall: 'Wall closer',
  missing: 'Missing'
};

const signed = (value: number, text: string) => (value > 0 ? `+${text}` : `−${text}`);

/** What a stepper shows. `distanceMm` as things are now, `setup` as it turned out. */
export function stepperValue(
  stepper: Stepper,
  different: Different,
  setup: Setup,
  distanceMm: number,
  unit: LengthUnit
): string {
  switch (stepper) {
    case 'distance':
      return formatLength(distanceMm, unit);
    case 'deeper':
    case 'wall': {
      const by = stepper === 'deeper' ? different.deeperMm : different.wallCloserMm;
      return by === 0 ? '0' : signed(by, formatLength(Math.abs(by), unit));
    }
    case 'light':
      return different.lightStops === 0 ? '0' : signed(different.lightStops, String(Math.abs(different.lightStops)));
    case 'lens':
      return `${Number(setup.camera.focalLengthMm.toFixed(0))} mm`;
    case 'missing':
      return different.missing.length === 0 ? 'nobody' : String(different.missing.length);
  }
}

/** "at 5.8 m, rows 40 cm deeper, darker by one stop"; "as planned". */
export function differentWords(setup: Setup, kit: Kit, different: Different, unit: LengthUnit): string {
  const said: string[] = [];
  const { distanceMm, deeperMm, lens, lightStops, wallCloserMm, missing } = different;
  const stops = (count: number) => (count === 1 ? 'one stop' : `${count} stops`);
  for (const stepper of steppers) {
    if (stepper === 'distance' && distanceMm !== null) said.push(`at ${formatLength(distanceMm, unit)}`);
    if (stepper === 'deeper' && deeperMm !== 0)
      said.push(`rows ${formatLength(Math.abs(deeperMm), unit)} ${deeperMm > 0 ? 'deeper' : 'closer'}`);
    if (stepper === 'light' && lightStops !== 0)
      said.push(`${lightStops > 0 ? 'brighter' : 'darker'} by ${stops(Math.abs(lightStops))}`);
    if (stepper === 'lens' && lens)
      said.push(
        `${Number(lens.focalLengthMm.toFixed(0))} mm on ${kit.lenses.find((item) => item.id === lens.lensId)?.name ?? 'another lens'}`
      );
    if (stepper === 'wall' && wallCloserMm !== 0)
      said.push(`wall ${formatLength(Math.abs(wallCloserMm), unit)} ${wallCloserMm > 0 ? 'closer' : 'further'}`);
    if (stepper === 'missing' && missing.length > 0) {
      const names = setup.people.filter((person) => missing.includes(person.id)).map((person) => person.name);
      if (names.length > 0) said.push(`without ${names.length > 3 ? `${names.length} people` : names.join(', ')}`);
    }
  }
  return said.length === 0 ? 'as planned' : said.join(' · ');
}
