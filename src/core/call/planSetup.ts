/** The one entry point: a setup, the kit and the steps of the aperture ring in; the plan out. Pure. */
import { blurDiscDiameter } from '../optics/blur';
import { permissibleDisc, pixelPitch } from '../optics/criterion';
import { depthOfField } from '../optics/depthOfField';
import {
  defocusAllowance,
  diffractionDisc,
  lensDisc,
  pixelDisc,
  totalDisc,
  type LensSharpness
} from '../optics/sharpness';
import { exactFNumber, lensStops, stopsBetween, type Stop, type StopStep } from '../optics/stops';
import { effectiveFNumber, framedSize, magnification } from '../optics/thinLens';
import { frameSize } from '../setup/framing';
import { backgroundDepth, sceneSubjects, viewpoint, type ScenePoint, type Subject } from '../setup/scene';
import type { Body, Kit, Lens, Setup } from '../setup/schema';
import { backgroundAtStop } from './background';
import { candidates, decisiveSubjects, shortlist, type Candidate } from './candidates';
import { keeperOdds, type OddsMember } from './odds';
import type { NoPlan, NoPlanReason, Plan, StopPlan, Target } from './plan';
import { autofocusSpread, holdSpread, swayOf } from './spread';
import { judge } from './window';

/** Odds closer together than this are equal; the smaller blur then decides. */
const oddsTie = 0.015;

/** Blur ratios closer together than this look the same; the more important person's nearer eye then decides. */
const ratioTie = 0.05;

/** Nothing nearer to the lens than this can be in the picture, mm. */
const leastDepthMm = 50;

export interface PlanInput {
  readonly setup: Setup;
  readonly kit: Kit;
  readonly stopStep: StopStep;
}

/**
 * Plans one picture.
 *
 * @returns the plan, or the reason there is none; never NaN, never a throw for validated input
 */
export function planSetup({ setup, kit, stopStep }: PlanInput): Plan | NoPlan {
  const body = kit.bodies.find((item) => item.id === setup.camera.bodyId);
  if (!body) return noPlan({ code: 'unknownBody', id: setup.camera.bodyId });
  const lens = kit.lenses.find((item) => item.id === setup.camera.lensId);
  if (!lens) return noPlan({ code: 'unknownLens', id: setup.camera.lensId });
  return planWith(setup, body, lens, stopStep);
}

function noPlan(reason: NoPlanReason): NoPlan {
  return { kind: 'noPlan', reason };
}

/** What stays the same from stop to stop. */
interface Situation {
  readonly f: number;
  readonly C: number;
  readonly pixel: number;
  readonly lens: LensSharpness;
  readonly frameHeightMm: number;
  readonly widestN: number;
  readonly setup: Setup;
  readonly body: Body;
  readonly subjects: readonly Subject[];
  readonly decisive: readonly Subject[];
  readonly members: readonly OddsMember[];
  readonly nearest: number;
  readonly furthest: number;
  readonly shortlist: readonly Candidate[];
  readonly backgrounds: Plan['backgrounds'];
}

function planWith(setup: Setup, body: Body, lens: Lens, stopStep: StopStep): Plan | NoPlan {
  const { camera, intent } = setup;
  const view = viewpoint(camera, body);
  const all = sceneSubjects(setup, view);
  if (all.length === 0) return noPlan({ code: 'nothingRequired' });

  const inFront = (subject: Subject) => subject.points.every((point) => point.depth > leastDepthMm);
  const behind = all.find((subject) => subject.importance !== 'maySoft' && !inFront(subject));
  if (behind) return noPlan({ code: 'behindCamera', name: behind.name });
  const subjects = all.filter(inFront);
  const decisive = decisiveSubjects(subjects);
  const first = decisive[0];
  if (!first) return noPlan({ code: 'nothingRequired' });

  const f = camera.focalLengthMm;
  const closest = Math.max(lens.closestFocusMm, f * 1.01);
  const possible = candidates(setup, subjects, decisive);
  const reachable = possible.filter((candidate) => candidate.focusDistanceMm >= closest);
  if (reachable.length === 0) {
    const nearestMm = Math.max(...possible.map((candidate) => candidate.focusDistanceMm));
    return noPlan({ code: 'tooClose', closestFocusMm: closest, nearestMm });
  }

  const nearest = Math.min(...decisive.map((subject) => subject.nearest));
  const furthest = Math.max(...decisive.map((subject) => subject.furthest));
  const frame = frameSize(body, camera.orientation);
  const widestN = exactFNumber(lens.widestFNumber);
  const situation: Situation = {
    f,
    C: permissibleDisc(intent.viewing, body.sensor),
    pixel: pixelDisc(pixelPitch(body.sensor)),
    lens: { character: lens.character, widestFNumber: widestN, measured: lens.measured },
    frameHeightMm: frame.height,
    widestN,
    setup,
    body,
    subjects,
    decisive,
    members: oddsMembers(setup, decisive),
    nearest,
    furthest,
    shortlist: shortlist(reachable, nearest, furthest, 0),
    backgrounds: setup.backgrounds.map((background) => ({
      id: background.id,
      name: background.name,
      wish: background.wish,
      detailMm: background.detailMm,
      depthMm: backgroundDepth(view, background)
    }))
  };

  const stops = lensStops(lens.widestFNumber, lens.smallestFNumber, stopStep).flatMap(
    (stop) => planStop(situation, stop) ?? []
  );
  const judgement = judge({
    stops,
    style: intent.style,
    backgrounds: situation.backgrounds,
    should: subjects.filter((subject) => subject.importance === 'should').map((subject) => subjects.indexOf(subject)),
    subjects,
    weakestAt: (index) => weakestMember(situation, stops[index])
  });
  const room = setup.place.backUpMm;
  return {
    kind: 'plan',
    lensName: lens.name,
    bodyName: body.name,
    focalLengthMm: f,
    distanceMm: view.distance,
    framedWidthMm: framedSize(f, view.distance, frame.width),
    framedHeightMm: framedSize(f, view.distance, frame.height),
    permissibleDiscMm: situation.C,
    oddsWanted: intent.oddsWanted,
    subjects,
    backgrounds: situation.backgrounds,
    stops,
    ...judgement,
    selected:
      intent.stop.kind === 'chosen' ? nearestStop(stops, exactFNumber(intent.stop.fNumber)) : judgement.recommended,
    beyondRoomMm: room === null ? 0 : Math.max(0, view.distance - room)
  };
}

function nearestStop(stops: readonly StopPlan[], fNumber: number): number {
  let best = 0;
  stops.forEach((entry, index) => {
    const current = stops[best];
    if (!current) return;
    const distance = Math.abs(stopsBetween(entry.stop.fNumber, fNumber));
    if (distance < Math.abs(stopsBetween(current.stop.fNumber, fNumber))) best = index;
  });
  return best;
}

function oddsMembers(setup: Setup, decisive: readonly Subject[]): OddsMember[] {
  const people = new Map(setup.people.map((person) => [person.id, person]));
  return decisive.map((subject) => {
    const person = subject.kind === 'person' ? people.get(subject.id) : undefined;
    return { nearest: subject.nearest, furthest: subject.furthest, sway: person ? swayOf(person) : 0 };
  });
}

/** Lens, diffraction and pixels together, mm on the sensor. */
function otherDisc(situation: Situation, N: number, s: number): number {
  const m = magnification(situation.f, s);
  return totalDisc(diffractionDisc(effectiveFNumber(N, m)), lensDisc(situation.lens, N), situation.pixel);
}

function oddsInput(situation: Situation, N: number, s: number, members: readonly OddsMember[]) {
  const { f, C, setup, body } = situation;
  const { focusMethod, stance, secondsToShutter } = setup.camera;
  const allowance = defocusAllowance(C, otherDisc(situation, N, s));
  const spread = Math.hypot(
    autofocusSpread(focusMethod, situation.widestN, body, magnification(f, s)),
    holdSpread(stance, secondsToShutter)
  );
  return { f, N, allowance, s, bias: 0, spread, members };
}

interface Tried {
  readonly candidate: Candidate;
  readonly odds: number;
  readonly worstRatio: number;
}

/** Best odds; then the smaller worst blur; then the more important person; then the nearer eye. */
function best(tried: readonly Tried[]): Tried | undefined {
  const mostOdds = Math.max(...tried.map((item) => item.odds));
  const likely = tried.filter((item) => item.odds >= mostOdds - oddsTie);
  const leastRatio = Math.min(...likely.map((item) => item.worstRatio));
  return likely
    .filter((item) => item.worstRatio <= leastRatio + ratioTie)
    .sort(
      ({ candidate: a }, { candidate: b }) => a.importance - b.importance || a.focusDistanceMm - b.focusDistanceMm
    )[0];
}

function chooseTarget(situation: Situation, N: number): Tried | undefined {
  const { f, C, nearest, furthest, members } = situation;
  const tried = situation.shortlist.map((candidate) => {
    const s = candidate.focusDistanceMm;
    const defocus = Math.max(blurDiscDiameter(f, N, s, nearest), blurDiscDiameter(f, N, s, furthest));
    const worstRatio = totalDisc(defocus, otherDisc(situation, N, s)) / C;
    return { candidate, odds: keeperOdds(oddsInput(situation, N, s, members)), worstRatio };
  });
  return best(tried);
}

function planStop(situation: Situation, stop: Stop): StopPlan | undefined {
  const { f, C, subjects, decisive } = situation;
  const N = stop.fNumber;
  const chosen = chooseTarget(situation, N);
  if (!chosen) return undefined;
  const { candidate, odds } = chosen;
  const s = candidate.focusDistanceMm;
  const other = otherDisc(situation, N, s);
  const allowance = defocusAllowance(C, other);
  const limits = allowance > 0 ? depthOfField(f, N, allowance, s) : { near: s, far: s };
  const ratioAt = (point: ScenePoint) => totalDisc(blurDiscDiameter(f, N, s, point.depth), other) / C;

  let worst: StopPlan['worst'] | undefined;
  for (const subject of decisive) {
    for (const point of subject.points) {
      if (!point.required) continue;
      const ratio = ratioAt(point);
      if (!worst || ratio > worst.ratio) worst = { subjectId: subject.id, role: point.role, ratio };
    }
  }
  const worstPoint = worst ?? { subjectId: '', role: 'nearEye', ratio: 0 };
  const { importance: _, ...target } = candidate;
  return {
    stop,
    target: target satisfies Target,
    allowanceMm: allowance,
    lensRatio: other / C,
    nearMm: limits.near,
    farMm: limits.far === Infinity ? null : limits.far,
    odds,
    worst: worstPoint,
    facesHold: worstPoint.ratio <= 1 + 1e-9 && odds >= situation.setup.intent.oddsWanted,
    sharpness: subjects.map((subject) => subject.points.map((point) => ({ ratio: ratioAt(point) }))),
    backgrounds: situation.backgrounds.map((background) =>
      backgroundAtStop({
        f,
        N,
        s,
        depth: background.depthMm,
        detailMm: background.detailMm,
        wish: background.wish,
        otherDisc: other,
        permissibleDisc: C,
        frameHeightMm: situation.frameHeightMm
      })
    )
  };
}

/** Who alone has the worst odds at a stop. */
function weakestMember(situation: Situation, entry: StopPlan | undefined): string {
  let weakest = { id: situation.decisive[0]?.id ?? '', odds: Infinity };
  if (!entry) return weakest.id;
  situation.decisive.forEach((subject, index) => {
    const member = situation.members[index];
    if (!member) return;
    const odds = keeperOdds(oddsInput(situation, entry.stop.fNumber, entry.target.focusDistanceMm, [member]));
    if (odds < weakest.odds - 1e-6) weakest = { id: subject.id, odds };
  });
  return weakest.id;
}
