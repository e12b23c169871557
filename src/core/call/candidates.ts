/** Where the focus may be put, and which of those places deserve a full look. */
import { bestFocusBetween } from '../optics/blur';
import type { Vector } from '../geometry/vector';
import type { Importance, Setup } from '../setup/schema';
import type { ScenePoint, Subject } from '../setup/scene';
import type { Target } from './plan';

/** Candidates whose odds are computed; blur ranks them alike at every stop, so the rest cannot win. */
const consideredPerRanking = 3;

const rank: Record<Importance, number> = { must: 0, should: 1, maySoft: 2 };

/** A candidate with what breaks ties. */
export interface Candidate extends Target {
  readonly importance: number;
  /** Where it lies, scene coordinates; absent for a focus set by distance. */
  readonly position?: Vector;
  /** Systematic shift of the plane when focusing there, mm behind it. */
  readonly biasMm: number;
}

/** Those that must be sharp; when nobody must, those that should; when nobody should, everybody. */
export function decisiveSubjects(subjects: readonly Subject[]): readonly Subject[] {
  for (const importance of ['must', 'should'] as const) {
    const found = subjects.filter((subject) => subject.importance === importance);
    if (found.length > 0) return found;
  }
  return subjects;
}

/** Every place the setup allows the focus to be put, the chosen one alone if the photographer chose. */
export function candidates(
  setup: Setup,
  subjects: readonly Subject[],
  decisive: readonly Subject[],
  depths: { readonly nearest: number; readonly furthest: number }
): Candidate[] {
  const chosen = setup.intent.target;
  if (chosen.kind === 'distance') {
    return [atDistance(chosen.distanceMm)];
  }
  if (chosen.kind === 'eye' || chosen.kind === 'thing') {
    const id = chosen.kind === 'eye' ? chosen.personId : chosen.thingId;
    // With two frames, only the one that holds the chosen eye is focused there.
    const held = decisive.some((subject) => subject.id === id) || setup.intent.frames === 'one';
    const found = (held ? subjects : [])
      .filter((subject) => subject.id === id)
      // An eye chosen by hand is taken even where the setup does not ask for it to be sharp.
      .flatMap((subject) =>
        targetsOf(subject, chosen.kind === 'eye' ? (point) => point.feature === chosen.eye : undefined)
      );
    if (found.length > 0) return found;
    // The eye is hidden or its owner is gone: the best eye stands in.
  }
  // Focusing by hand, the plane can also lie between the faces, where it shares the blur evenly.
  const { focusMethod } = setup.camera;
  const byHand = focusMethod === 'magnifier' || focusMethod === 'byEye';
  const between = byHand ? [atDistance(bestFocusBetween(depths.nearest, depths.furthest))] : [];
  return [...decisive.flatMap((subject) => targetsOf(subject)), ...between];
}

/** A focus set by distance: nobody's eye, so it comes after every eye that is as good. */
export function atDistance(focusDistanceMm: number): Candidate {
  return { subjectId: null, feature: null, role: null, focusDistanceMm, importance: 3, biasMm: 0 };
}

function targetsOf(subject: Subject, allowed: (point: ScenePoint) => boolean = (point) => point.target): Candidate[] {
  return subject.points.filter(allowed).map((point) => ({
    subjectId: subject.id,
    feature: point.feature,
    role: point.role,
    focusDistanceMm: point.depth,
    importance: rank[subject.importance],
    position: point.position,
    biasMm: 0
  }));
}

/**
 * The few candidates that can have the best odds: those that, with and without the systematic shift of the plane, share
 * the blur most evenly between the nearest and the furthest required depth. Blur is linear in 1/z, so the order is the
 * same at every stop. In order of preference: the more important person first, then the nearer eye.
 */
export function shortlist(all: readonly Candidate[], nearest: number, furthest: number, bias: number): Candidate[] {
  const best = 1 / bestFocusBetween(nearest, furthest);
  const chosen = new Set<Candidate>();
  for (const shift of bias === 0 ? [0] : [0, bias]) {
    const distance = (candidate: Candidate) => Math.abs(1 / (candidate.focusDistanceMm + shift) - best);
    [...all]
      .sort((a, b) => distance(a) - distance(b) || a.importance - b.importance)
      .slice(0, consideredPerRanking)
      .forEach((candidate) => chosen.add(candidate));
  }
  return [...chosen].sort((a, b) => a.importance - b.importance || a.focusDistanceMm - b.focusDistanceMm);
}
