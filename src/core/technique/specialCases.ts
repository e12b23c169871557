/** Whole flows of their own: person and thing, pets, phones. */
import type { PlanInput } from '../call/planInput';
import { planSetup } from '../call/planSetup';
import { adultHead } from '../people/anatomy';
import { magnification } from '../optics/thinLens';
import type { Stop } from '../optics/stops';
import { fullFrameDiagonalMm, sensorDiagonal } from '../optics/criterion';
import { sharpSubject, sharpSubjects, withSharpSubject, type SharpSubject } from '../setup/intents';
import type { Setup } from '../setup/schema';

/** Thing sharp, person sharp, or both: each with its stop, light and odds. */
export interface SubjectWay {
  readonly subject: SharpSubject;
  readonly setup: Setup;
  readonly inUse: boolean;
  readonly stop: Stop;
  readonly shutterS: number;
  readonly iso: number | null;
  readonly odds: number;
  /** How soft the other one is: its blur disc over its size in the picture; null when both are to be sharp. */
  readonly otherBlur: number | null;
}

/** A face or a thing is known while its blur is no more than this share of its size; under the other it is nearly sharp (from memory). */
export const discernible = { upTo: 0.12, nearlySharp: 0.01 } as const;

/** From chin to crown, mm (people/anatomy.ts). */
const headMm = adultHead.crownY - adultHead.chinY;

/** Empty where there is no thing, or nobody, or nothing can be planned. */
export function subjectWays(input: PlanInput): readonly SubjectWay[] {
  const { setup } = input;
  if (setup.things.length === 0 || setup.people.length === 0) return [];
  const now = sharpSubject(setup);
  return sharpSubjects.flatMap((subject): SubjectWay[] => {
    const changed = withSharpSubject(setup, subject);
    const free: Setup = { ...changed, intent: { ...changed.intent, stop: { kind: 'byStyle' } } };
    const plan = planSetup({ ...input, setup: free });
    const entry = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
    if (plan.kind === 'noPlan' || !entry) return [];
    const things = new Map(setup.things.map((thing) => [thing.id, thing]));
    const blurs = plan.subjects.flatMap((item, index) => {
      if (item.importance !== 'maySoft') return [];
      const thing = things.get(item.id);
      const size =
        (thing ? Math.max(thing.tallMm, thing.widthMm) : headMm) * magnification(plan.focalLengthMm, item.nearest);
      const ratios = (entry.sharpness[index] ?? []).map(({ ratio }) => ratio);
      return size > 0 ? [(Math.max(0, ...ratios) * plan.circleOfConfusionMm) / size] : [];
    });
    return [
      {
        subject,
        setup: free,
        inUse: now === subject,
        stop: entry.stop,
        shutterS: entry.light.shutterS,
        iso: entry.light.iso,
        odds: entry.odds,
        otherBlur: subject === 'both' || blurs.length === 0 ? null : Math.max(...blurs)
      }
    ];
  });
}

/** The eye, not the muzzle: what the muzzle would need. */
export interface Muzzle {
  readonly id: string;
  readonly name: string;
  readonly muzzleMm: number;
  /** First stop that holds the eyes, and first that holds the nose too; null where none does. */
  readonly eyesFrom: Stop | null;
  readonly noseFrom: Stop | null;
}

/** Of the pets in the picture. */
export function muzzlesOf(input: PlanInput): readonly Muzzle[] {
  const { setup } = input;
  const pets = setup.people.filter(({ being, importance }) => being === 'pet' && importance !== 'maySoft');
  return pets.map((pet): Muzzle => {
    const holdsFrom = (sharp: 'nearEye' | 'eyesToNose'): Stop | null => {
      const alone: Setup = {
        ...setup,
        people: setup.people.map((person) =>
          person.id === pet.id
            ? { ...person, sharp, importance: 'must' }
            : { ...person, importance: person.importance === 'must' ? 'should' : person.importance }
        ),
        things: setup.things.map((thing) => ({ ...thing, importance: 'maySoft' })),
        intent: { ...setup.intent, target: { kind: 'best' } }
      };
      const plan = planSetup({ ...input, setup: alone });
      return plan.kind === 'noPlan' ? null : (plan.stops.find(({ worst }) => worst.ratio <= 1 + 1e-9)?.stop ?? null);
    };
    return {
      id: pet.id,
      name: pet.name,
      muzzleMm: pet.muzzleMm,
      eyesFrom: holdsFrom('nearEye'),
      noseFrom: holdsFrom('eyesToNose')
    };
  });
}

/** A phone, honestly: the stop of a full-frame lens that would blur as much, and how near one must go for a background to go. */
export interface PhoneFacts {
  /** Equivalent f-number of the stop in use: f-number × crop factor. */
  readonly equivalentN: number;
  readonly equivalentMm: number;
  /** From nearer than this a background far away is drawn with a disc of a fiftieth of the picture's height, mm. */
  readonly blursFromMm: number;
}

/** A disc of this share of the picture's height shows as blur (from memory). */
const shownShare = 1 / 50;

/** Null for what is no phone, and where nothing can be planned. */
export function phoneFacts(input: PlanInput): PhoneFacts | null {
  const { setup, kit } = input;
  const body = kit.bodies.find(({ id }) => id === setup.camera.bodyId);
  const plan = planSetup(input);
  const entry = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
  if (body?.kind !== 'phone' || plan.kind === 'noPlan' || !entry) return null;
  const crop = fullFrameDiagonalMm / sensorDiagonal(body.sensor);
  const f = plan.focalLengthMm;
  const N = entry.stop.fNumber;
  const height = setup.camera.orientation === 'landscape' ? body.sensor.heightMm : body.sensor.widthMm;
  // At infinity the disc is A m, m about f/s: share = f²/(N s h), so s = f²/(N h share).
  return { equivalentN: N * crop, equivalentMm: f * crop, blursFromMm: (f * f) / (N * height * shownShare) };
}
