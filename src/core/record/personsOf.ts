/** What one frame says of each person. */
import type { StopPlan } from '../call/plan';
import { focusedForS, frozenByFlash } from '../call/motion';
import { moodFactor, swayAfter, usualSway } from '../call/scatter';
import type { FaceJudged, FrameJudged } from '../frames/eyes';
import type { FrameReading } from '../frames/reading';
import { magnification } from '../optics/thinLens';
import type { Person } from '../setup/schema';
import { personOffsetOf } from './personOffsets';
import type { FramePlan } from './framePlan';
import type { Recorded } from './schema';

type Told = Recorded['people'][number];

/** A smear this short may be none, pixels (measure/motion.ts: the second of the lengths it tells). */
const leastSmearPx = 5;

export function personsOf(
  judged: FrameJudged,
  reading: FrameReading | null,
  planned: FramePlan,
  entry: StopPlan
): Told[] {
  const { setup, habits } = planned;
  const seconds = focusedForS(habits, setup.camera);
  // What shook the camera moved all of it.
  const placed =
    reading && judged.shake === null
      ? personOffsetOf(reading.features, reading.plane, reading.asked)
      : new Map<string, never>();
  return judged.faces.flatMap((face): Told[] => {
    const person = setup.people.find(({ id }) => id === face.personId);
    if (!person) return [];
    const must = person.importance !== 'maySoft';
    const usualMm = usualSway(habits, person);
    const scale = swayAfter(habits, moodFactor(habits, person), seconds);
    const found = placed.get(face.faceId);
    const own = found && usualMm > 0 && scale > 0 ? { ...found, scale, usualMm } : null;
    // Who may be soft counts for nobody's sharpness, but sways like the others.
    if (!must && !own) return [];
    const told = must && face.judged !== 'unknown' && !face.closed;
    return [
      {
        id: person.id,
        name: person.name,
        sharp: told ? face.judged === 'sharp' : null,
        placed: own,
        movement: movementOf(face, person, judged, reading, entry)
      }
    ];
  });
}

/** Nothing of those who were to walk or dance, of a flash that froze them, and of a camera that shook. */
function movementOf(
  { judged, smear }: FaceJudged,
  { towardsMmPerS, acrossMmPerS, mood }: Person,
  { frame, shake }: FrameJudged,
  reading: FrameReading | null,
  entry: StopPlan
): Told['movement'] {
  const still = towardsMmPerS === 0 && acrossMmPerS === 0 && mood !== 'lively';
  if (
    !still ||
    !reading ||
    judged === 'unknown' ||
    shake !== null ||
    frame.shutterS === null ||
    frozenByFlash(entry.light)
  )
    return null;
  const { focalLengthMm, pupilMagnification, pxPerMm } = reading.asked;
  const mm = 1 / (pxPerMm * magnification(focalLengthMm, reading.meantMm, pupilMagnification) * frame.shutterS);
  const mmPerS = smear && smear.px >= leastSmearPx ? smear.px * mm : null;
  return { mmPerS, leastMmPerS: leastSmearPx * mm };
}
