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
  const { distanceMm, deeperMm, lens, lightStops, wallCloserMm, missing } = different;
  const length = (mm: number) => formatLength(Math.abs(mm), unit);
  const stops = Math.abs(lightStops) === 1 ? 'one stop' : `${Math.abs(lightStops)} stops`;
  const lensName = kit.lenses.find((item) => item.id === lens?.lensId)?.name ?? 'another lens';
  const names = setup.people.filter((person) => missing.includes(person.id)).map((person) => person.name);
  /** What each says where it differs. */
  const words: Readonly<Record<(typeof steppers)[number], string | false>> = {
    distance: distanceMm !== null && `at ${length(distanceMm)}`,
    deeper: deeperMm !== 0 && `rows ${length(deeperMm)} ${deeperMm > 0 ? 'deeper' : 'closer'}`,
    light: lightStops !== 0 && `${lightStops > 0 ? 'brighter' : 'darker'} by ${stops}`,
    lens: lens !== null && `${Number(lens.focalLengthMm.toFixed(0))} mm on ${lensName}`,
    wall: wallCloserMm !== 0 && `wall ${length(wallCloserMm)} ${wallCloserMm > 0 ? 'closer' : 'further'}`,
    missing: names.length > 0 && `without ${names.length > 3 ? `${names.length} people` : names.join(', ')}`
  };
  const said = steppers.flatMap((stepper) => words[stepper] || []);
  return said.length === 0 ? 'as planned' : said.join(' · ');
}
