/** The one entry point: a setup, the kit and the steps of the aperture ring in; the plan out. Pure. */
import { exactFNumber, lensStops, stopsBetween, type Stop, type StopStep } from '../optics/stops';
import { framedSize } from '../optics/thinLens';
import { equivalentLens } from '../setup/framing';
import type { Lens } from '../kit/schema';
import { evaluateStop, weakestMember } from './evaluateStop';
import { framesToCombine } from './frames';
import type { NoPlan, Plan, StopPlan } from './plan';
import type { PlanInput } from './planInput';
import { prepare, type Situation } from './situation';
import { judge } from './window';

/**
 * Plans one picture.
 *
 * @returns the plan, or the reason there is none; never NaN, never a throw for validated input
 */
export function planSetup(input: PlanInput): Plan | NoPlan {
  const prepared = prepare(input);
  return prepared.kind === 'noPlan' ? prepared : planSituation(prepared.situation, input.stopStep);
}

/** The stops of a lens in the user's steps. */
export function stopsOf(lens: Lens, stopStep: StopStep): readonly Stop[] {
  return lensStops(lens.widestFNumber, lens.smallestFNumber, stopStep);
}

/** The plan of what is laid out already. */
export function planSituation(situation: Situation, stopStep: StopStep): Plan {
  const { setup, body, lens, view, f, P, picture, subjects } = situation;
  const stops = stopsOf(lens, stopStep).flatMap((stop) => evaluateStop(situation, stop) ?? []);
  const judgement = judge({
    stops,
    style: setup.intent.style,
    backgrounds: situation.backgrounds,
    should: subjects.flatMap((subject, index) => (subject.importance === 'should' ? [index] : [])),
    weakestAt: (index) => {
      const entry = stops[index];
      return entry ? weakestMember(situation, entry).id : '';
    }
  });
  const { stop } = setup.intent;
  const selected = stop.kind === 'chosen' ? nearestStop(stops, exactFNumber(stop.fNumber)) : judgement.recommended;
  const room = setup.place.backUpMm;
  const inUse = stops[selected];
  const weakest = inUse ? weakestMember(situation, inUse) : { id: '', odds: 0 };
  const members = situation.groups.flatMap((group) => group.members);
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
    subjects,
    backgrounds: situation.backgrounds,
    stops,
    ...judgement,
    selected,
    stitched: setup.camera.stitch ? equivalentLens(body, setup.camera, stops[selected]?.stop.fNumber ?? 1) : null,
    outOfFrame: situation.outOfFrame,
    hidden: situation.hidden,
    stretched: situation.stretched,
    weakest: {
      subjectId: weakest.id,
      odds: weakest.odds,
      swayMm: members.find((member) => member.subject.id === weakest.id)?.sway ?? 0
    },
    framesToCombine:
      inUse?.frames.for95 === null ? framesToCombine(situation.habits, weakest.odds, members.length) : null,
    beyondRoomMm: room === null ? 0 : Math.max(0, view.distance - room)
  };
}

function nearestStop(stops: readonly StopPlan[], fNumber: number): number {
  const distance = (index: number) => Math.abs(stopsBetween(stops[index]?.stop.fNumber ?? Infinity, fNumber));
  return stops.reduce((best, _, index) => (distance(index) < distance(best) ? index : best), 0);
}
