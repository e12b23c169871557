/**
 * The one entry point: a setup, the kit and the steps of the aperture ring in; the plan out. Pure.
 *
 * A setup passes through the stages in this order, each taking what those before it found: the camera in the hand, the scene
 * laid out before it, what the lens sees of it, who is in the picture and decides, where the focus may be put, the light.
 * Then every stop is evaluated, and one of them chosen.
 */
import { exactFNumber, lensStops, stopsBetween, type Stop, type StopStep } from '../optics/stops';
import { framedSize } from '../optics/thinLens';
import { equivalentLens } from '../setup/framing';
import type { Lens } from '../kit/schema';
import { aimAt } from './aim';
import { cameraInHand } from './camera';
import { evaluateStop, oddsInPrint, zoneInPrint, weakestMember } from './evaluateStop';
import { exposureOf } from './exposure';
import { framesNeeded, framesToCombine } from './frames';
import { layOut } from './layOut';
import { peopleInFrame } from './people';
import { isNoPlan, type NoPlan, type Plan, type StopPlan } from './plan';
import type { PlanInput } from './planInput';
import { sightOf } from './sight';
import type { Situation } from './situation';
import { judgeStops, type Judgement } from './window';

/**
 * Plans one picture.
 *
 * @returns the plan, or the reason there is none; never NaN, never a throw for validated input
 */
export function planSetup(input: PlanInput): Plan | NoPlan {
  const situation = prepare(input);
  return situation.kind === 'noPlan' ? situation : planSituation(situation, input.stopStep);
}

/** All stages before the first stop; or why nothing can be planned. */
export function prepare({ setup, kit, habits }: PlanInput): Situation | NoPlan {
  const camera = cameraInHand({ setup, kit, habits });
  if (isNoPlan(camera)) return camera;
  const scene = layOut(setup, habits, camera);
  if (isNoPlan(scene)) return scene;
  const sight = sightOf(scene, camera);
  const people = peopleInFrame(scene, sight);
  if (isNoPlan(people)) return people;
  const aimed = aimAt(scene, camera, sight, people);
  if (isNoPlan(aimed)) return aimed;
  const { imageHeights, lineOfSight } = sight;
  return {
    kind: 'situation',
    ...camera,
    ...scene,
    imageHeights,
    lineOfSight,
    ...people,
    ...aimed,
    ...exposureOf(scene, camera, people)
  };
}

/** The stops, and the choice among them, of what is laid out already. */
export function planSituation(situation: Situation, stopStep: StopStep): Plan {
  const { intent } = situation.setup;
  const stops = stopsOf(situation.lens, stopStep).flatMap((stop) => evaluateStop(situation, stop) ?? []);
  const prints = intent.viewing.kind === 'close' ? stops.map((entry) => oddsInPrint(situation, entry)) : null;
  const holdsInPrint = (index: number) => (prints?.[index] ?? 0) >= intent.oddsWanted;
  const judgement = judgeStops({
    stops,
    style: intent.style,
    backgrounds: situation.backgrounds,
    isoLimit: situation.body.isoLimit,
    should: situation.subjects.flatMap((subject, index) => (subject.importance === 'should' ? [index] : [])),
    holdsInPrint,
    weakestAt: (index) => {
      const entry = stops[index];
      return entry ? weakestMember(situation, entry).id : '';
    }
  });
  const { stop } = intent;
  const selected = stop.kind === 'chosen' ? nearestStop(stops, exactFNumber(stop.fNumber)) : judgement.recommended;
  const entry = stops[selected];
  const inPrint =
    prints && entry
      ? printOf(
          situation,
          entry,
          prints[selected] ?? 0,
          stops.findIndex((_, i) => holdsInPrint(i))
        )
      : null;
  return { ...said(situation), stops, ...judgement, selected, inPrint, ...atStopInUse(situation, entry) };
}

/** What a stop would give in a standard print, which holds from another on. */
function printOf(situation: Situation, entry: StopPlan, odds: number, from: number): Plan['inPrint'] {
  const { habits, people } = situation;
  const { for95 } = framesNeeded(habits, odds, people, entry.light.shutterS);
  return { from: from < 0 ? null : from, odds, for95, zone: zoneInPrint(situation, entry) };
}

/** The stops of a lens in the user's steps. */
export function stopsOf(lens: Lens, stopStep: StopStep): readonly Stop[] {
  return lensStops(lens.widestFNumber, lens.smallestFNumber, stopStep);
}

/** What a plan says whatever the stop. */
function said(
  situation: Situation
): Omit<Plan, 'stops' | 'selected' | 'inPrint' | keyof Judgement | keyof AtStopInUse> {
  const { setup, body, lens, view, f, P, picture } = situation;
  const room = setup.place.backUpMm;
  return {
    kind: 'plan',
    lensName: lens.name,
    bodyName: body.name,
    focalLengthMm: f,
    pupilMagnification: P,
    fieldPerM: lens.fieldPerM ?? null,
    distanceMm: view.distance,
    framedWidthMm: framedSize(f, view.distance, picture.width, P),
    framedHeightMm: framedSize(f, view.distance, picture.height, P),
    circleOfConfusionMm: situation.C,
    oddsWanted: setup.intent.oddsWanted,
    subjects: situation.subjects,
    backgrounds: situation.backgrounds,
    outOfFrame: situation.outOfFrame,
    hidden: situation.hidden(),
    stretched: situation.stretched(),
    beyondRoomMm: room === null ? 0 : Math.max(0, view.distance - room)
  };
}

type AtStopInUse = Pick<Plan, 'stitched' | 'weakest' | 'framesToCombine'>;

function atStopInUse(situation: Situation, entry: StopPlan | undefined): AtStopInUse {
  const { setup, body, habits, groups } = situation;
  const members = groups.flatMap((group) => group.members);
  const weakest = entry ? weakestMember(situation, entry) : { id: '', odds: 0 };
  return {
    stitched: setup.camera.stitch ? equivalentLens(body, setup.camera, entry?.stop.fNumber ?? 1) : null,
    weakest: {
      subjectId: weakest.id,
      odds: weakest.odds,
      swayMm: members.find((member) => member.subject.id === weakest.id)?.sway ?? 0
    },
    framesToCombine: entry?.frames.for95 === null ? framesToCombine(habits, weakest.odds, members.length) : null
  };
}

function nearestStop(stops: readonly StopPlan[], fNumber: number): number {
  const distance = (index: number) => Math.abs(stopsBetween(stops[index]?.stop.fNumber ?? Infinity, fNumber));
  return stops.reduce((best, _, index) => (distance(index) < distance(best) ? index : best), 0);
}
