/** A setup of what a photo shows. */
import { eyeHeight } from '../people/anatomy';
import { defaultStatureMm, newPerson } from '../setup/defaults';
import { asPicture } from '../setup/intents';
import { beingNames, numbered } from '../setup/names';
import type { Person, Setup } from '../setup/schema';
import { headTurnDeg, type GroupRead, type PersonRead } from './readGroup';

/** Eyes of standing adults are between these heights, mm (common practice, no source); lower is seated, higher on a step. */
const standing = { least: 1400, most: 1800 } as const;
/** Statures a child is given, mm: from a toddler's to a schoolchild's (common practice, no source). */
const childMm = { least: 800, most: 1550 } as const;
const shareOfStature = eyeHeight(1000, 'standing') / 1000;
/** Depths and heights are kept to so much, mm, and turns to so much, degrees: finer is not known. */
const toMm = 10;
const toDeg = 5;

const rounded = (value: number, to: number): number => Math.round(value / to) * to + 0;

/** What someone is, and how they stand: by the height of their eyes. */
function postureOf({ eyesMm, child }: PersonRead): Pick<Person, 'being' | 'posture' | 'statureMm' | 'floorMm'> {
  if (child > 0.5) {
    const statureMm = Math.max(childMm.least, Math.min(childMm.most, eyesMm / shareOfStature));
    const floorMm = Math.max(0, eyesMm - statureMm * shareOfStature);
    return {
      being: 'child',
      posture: 'standing',
      statureMm: rounded(statureMm, toMm),
      floorMm: rounded(floorMm, toMm)
    };
  }
  const adult = { being: 'adult', statureMm: defaultStatureMm.adult } as const;
  if (eyesMm < standing.least) {
    const floorMm = rounded(Math.max(0, eyesMm - eyeHeight(adult.statureMm, 'seated')), toMm);
    return { ...adult, posture: 'seated', floorMm };
  }
  if (eyesMm > standing.most) {
    const floorMm = rounded(eyesMm - eyeHeight(adult.statureMm, 'standing'), toMm);
    return { ...adult, posture: 'standing', floorMm };
  }
  return { being: 'adult', posture: 'standing', statureMm: rounded(eyesMm / shareOfStature, toMm), floorMm: 0 };
}

/**
 * The people of a photo in front of the camera that took it, the front row on the subject line. Lens, light and background
 * stay as they are in `base`.
 *
 * @param idOf an id for each face, the person's own where they are known
 */
export function setupOf(group: GroupRead, base: Setup, idOf: (faceId: string) => string): Setup {
  const front = group.rows[0]?.z ?? 1000;
  const names: string[] = [];
  const people = [...group.people]
    .sort((a, b) => a.row - b.row || a.lateralMm - b.lateralMm)
    .map((read) => {
      const posture = postureOf(read);
      const known = base.people.find(({ id }) => id === idOf(read.id));
      const name = known?.name ?? numbered(beingNames[posture.being], names);
      names.push(name);
      const yaw = rounded(headTurnDeg(read), toDeg);
      return newPerson(idOf(read.id), name, {
        ...posture,
        depthMm: rounded(read.aheadMm - front, toMm),
        lateralMm: rounded(read.lateralMm, toMm),
        headYawDeg: yaw,
        bodyYawDeg: yaw,
        headPitchDeg: rounded(read.face.pitchDeg, toDeg)
      });
    });
  const camera = {
    ...base.camera,
    placement: { kind: 'distance', distanceMm: rounded(front, toMm) },
    lateralMm: 0,
    heightMm: group.stand.heightMm,
    yawDeg: 0,
    pitchDeg: group.stand.tiltDeg
  } as const;
  const picture = people.length === 1 ? 'onePerson' : people.length === 2 ? 'couple' : 'group';
  return asPicture({ ...base, camera, people, things: [] }, picture);
}
