/** A step of a drill as a setup: the plan says what its frame must look like, and the Finder draws it before one is taken. */
import { planSetup } from '../call/planSetup';
import type { Plan } from '../call/plan';
import { recomposeShift, shakeDisc } from '../call/motion';
import type { Habits } from '../habits/habits';
import type { Body, Lens } from '../kit/schema';
import { isSameStop } from '../optics/stops';
import { motionTrack } from '../optics/sharpness';
import { magnification } from '../optics/thinLens';
import { eyeHeight } from '../people/anatomy';
import { defaultCamera, newPerson, newSetup, newThing } from '../setup/defaults';
import type { Camera, Setup } from '../setup/schema';
import { placeOff, type Arranged, type DrillStep } from './series/steps';
import type { FrameDrill } from './kinds/kind';

export interface DrillKit {
  readonly body: Body;
  readonly lens: Lens;
  readonly focalLengthMm: number;
  readonly habits: Habits;
  readonly stance: Camera['stance'];
  /** What holds the picture still, stops. */
  readonly stabiliserStops: number;
}

export interface ExpectedFrame {
  readonly setup: Setup;
  /** At the step's stop, drawn with its plane where it falls. */
  readonly plan: Plan;
  /** Where the plane falls, mm from the pupil. */
  readonly planeMm: number;
  /** How long the track of what is to be seen is, on the sensor, mm. */
  readonly trackMm: number;
}

/** Things as they are found at home, with petals to look at, mm (chosen). */
const thingMm = { wide: 78, tall: 92, deep: 30 } as const;
const focusedOn = ['nearEye', 'nose'] as const;

/** Where what is focused on lies off the axis, mm in the scene: to the right, and down. */
function offAxis(
  { place, upright }: DrillStep,
  { body: { sensor }, focalLengthMm }: Pick<DrillKit, 'body' | 'focalLengthMm'>,
  z: number
) {
  const [wide, high] = upright ? [sensor.heightMm, sensor.widthMm] : [sensor.widthMm, sensor.heightMm];
  const half = (sensorMm: number) => sensorMm / 2 / magnification(focalLengthMm, z);
  return placeOff(place, half(wide), half(high));
}

/** How far behind it the plane falls by turning alone, mm; null where nothing is turned. @param z to what is focused on, mm */
export function turnedBy(
  step: DrillStep,
  kit: Pick<DrillKit, 'body' | 'focalLengthMm' | 'habits'>,
  z: number
): number | null {
  return step.turning === null
    ? null
    : recomposeShift({ ...offAxis(step, kit, z), z }, kit.habits.pivotMm.wrists, 'flat');
}

/** What stands before the camera at a step, and with what it is taken. */
function stepSetup(shows: FrameDrill['shows'], arranged: Arranged, step: DrillStep, kit: DrillKit): Setup {
  const { body, lens, focalLengthMm: f, stance } = kit;
  const from = step.distanceMm ?? arranged.distanceMm;
  const isFace = shows === 'face';
  const aimed = arranged.things.find(({ index }) => index === step.focusOn);
  const face = newPerson('drill-face', 'Face', { sharp: 'eyesToNose', headYawDeg: 20 });
  // Whatever it is stands as high as the lens.
  const heightMm = eyeHeight(face.statureMm, face.posture);
  const off = offAxis(step, kit, from + (aimed?.depthMm ?? 0));
  const setup = newSetup(`drill-${step.id}`, step.id, {
    camera: {
      ...defaultCamera,
      bodyId: body.id,
      lensId: lens.id,
      focalLengthMm: f,
      stance,
      heightMm,
      orientation: step.upright ? 'portrait' : 'landscape',
      placement: { kind: 'distance', distanceMm: from }
    },
    people: isFace ? [face] : [],
    things: isFace
      ? []
      : arranged.things.map(({ index, lateralMm, depthMm }) =>
          newThing(`drill-thing-${index}`, `Thing ${index + 1}`, {
            lateralMm: lateralMm + off.x - (step.place === 'middle' ? 0 : (aimed?.lateralMm ?? 0)),
            // Up is up here, where pictures count down.
            heightMm: heightMm - off.y,
            depthMm,
            widthMm: thingMm.wide,
            tallMm: thingMm.tall,
            deepMm: thingMm.deep,
            form: 'bouquet',
            held: false
          })
        ),
    backgrounds: []
  });
  const intent = { ...setup.intent, stop: { kind: 'chosen' as const, fNumber: step.fNumber } };
  return { ...setup, intent };
}

/** @returns null where the kit has no plan for the step */
export function expectedFrame(
  shows: FrameDrill['shows'],
  arranged: Arranged,
  step: DrillStep,
  kit: DrillKit
): ExpectedFrame | null {
  const { body, lens, focalLengthMm: f, habits, stance } = kit;
  const isFace = shows === 'face';
  const whole = stepSetup(shows, arranged, step, kit);
  const plan = planSetup({
    setup: whole,
    kit: { bodies: [body], lenses: [lens], adapters: [] },
    stopStep: 'full',
    habits
  });
  if (plan.kind !== 'plan') return null;
  const at = plan.stops.findIndex(({ stop }) => isSameStop(stop.fNumber, step.fNumber));
  const points = plan.subjects[isFace ? 0 : step.focusOn]?.points ?? [];
  const role = isFace ? (focusedOn[step.focusOn] ?? 'nearEye') : 'nearSide';
  const depth = points.find((point) => point.role === role)?.depth;
  if (at < 0 || depth === undefined) return null;
  const turned = turnedBy(step, kit, depth) ?? 0;
  const leaned = step.turning === 'lean' ? habits.leanMm : 0;
  const shake =
    step.shutterS === null ? 0 : shakeDisc(habits, { focalLengthMm: f, stance }, kit.stabiliserStops, step.shutterS);
  const planeMm = depth + turned + leaned;
  const stops = plan.stops.map((entry, index) => (index === at ? { ...entry, drawnFocusMm: planeMm } : entry));
  return {
    setup: whole,
    plan: { ...plan, stops, selected: at },
    planeMm,
    trackMm: motionTrack(shake)
  };
}
