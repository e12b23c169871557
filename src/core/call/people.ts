/** The fourth stage of a plan: who is in the picture, who decides, and where they are when the shutter opens. */
import { noticedStretch, stretchAt } from '../setup/stretch';
import { eyesMidpoint, type Subject } from '../setup/scene';
import { decisiveSubjects, isIn } from './candidates';
import { leastDepthMm, type LaidOut } from './layOut';
import { approach, followSd, somebodyMoves, unfollowedS } from './motion';
import type { OddsMember } from './odds';
import { noPlan, type NoPlan, type Plan } from './plan';
import { personSway, swayAfter } from './scatter';
import type { Sight } from './sight';

/** A decisive subject as the odds see it: its depths at release, which is nearer than at focusing when it approaches. */
export interface Member extends OddsMember {
  readonly subject: Subject;
  /** Speed across the picture, mm/s. */
  readonly across: number;
}

export interface PeopleInFrame {
  /** Indices in `subjects` of those who decide. */
  readonly decisive: readonly number[];
  /** Those who must be sharp in one and the same frame: one set, or two when two frames are combined. */
  readonly sets: readonly (readonly Member[])[];
  readonly outOfFrame: readonly string[];
  readonly hidden: () => readonly string[];
  readonly stretched: () => Plan['stretched'];
  /** People whose eyes should be open. */
  readonly people: number;
  /** Who moves fastest across the picture, with their speed, mm/s; null when nobody does. */
  readonly mostAcross: { readonly subjectId: string; readonly across: number } | null;
}

/** Finds those in the picture; or says who comes too near before the shutter opens. */
export function peopleInFrame(scene: LaidOut, sight: Sight): PeopleInFrame | NoPlan {
  const { subjects } = scene;
  const framed = subjects.filter((subject) => isFramed(scene, sight, subject));
  const decisive = decisiveSubjects(framed.length > 0 ? framed : subjects);
  const sets = (scene.setup.intent.frames === 'two' ? splitInTwo(decisive) : [decisive]).map((set) =>
    membersOf(scene, set)
  );
  const runOver = sets.flat().find((member) => member.nearest <= leastDepthMm);
  if (runOver) return noPlan({ code: 'behindCamera', name: runOver.subject.name });
  const counted = framed.filter((subject) => subject.importance !== 'maySoft');
  const isSeen = (subject: Subject) =>
    subject.points.some((point) => point.target && sight.sees(subject.id, point.position));
  return {
    decisive: subjects.flatMap((subject, index) => (decisive.includes(subject) ? [index] : [])),
    sets,
    outOfFrame: subjects
      .filter((subject) => subject.importance !== 'maySoft' && !framed.includes(subject))
      .map((subject) => subject.id),
    hidden: () => counted.filter((subject) => !isSeen(subject)).map((subject) => subject.id),
    stretched: () => mostStretched(scene, framed),
    people: countPeople(scene, decisive),
    mostAcross: fastestAcross(sets.flat())
  };
}

/** Whether the picture shows somebody's eyes, or the middle of a thing. */
function isFramed({ personOf }: LaidOut, { at }: Sight, subject: Subject): boolean {
  const person = personOf.get(subject.id);
  if (person) return isIn(at(eyesMidpoint(person)));
  return subject.points.some((point) => isIn(at(point.position)));
}

function membersOf({ setup, habits, personOf }: LaidOut, decisive: readonly Subject[]): readonly Member[] {
  const things = new Map(setup.things.map((thing) => [thing.id, thing]));
  const seconds = unfollowedS(habits, setup.camera, somebodyMoves(setup));
  return decisive.map((subject) => {
    const person = subject.kind === 'person' ? personOf.get(subject.id) : undefined;
    const nearer = person ? approach(habits, person, setup.camera) : 0;
    const uneven = person ? followSd(habits, person, setup.camera) : 0;
    const held = things.get(subject.id)?.held ? habits.swayMm.heldThing : 0;
    return {
      subject,
      nearest: subject.nearest - nearer,
      furthest: subject.furthest - nearer,
      sway: Math.hypot(swayAfter(habits, person ? personSway(habits, person) : held, seconds), uneven),
      across: person?.acrossMmPerS ?? 0
    };
  });
}

/** How many of them are people, and neither pets nor things. */
export const countPeople = ({ personOf }: Pick<LaidOut, 'personOf'>, subjects: readonly Subject[]): number =>
  subjects.filter(({ id }) => (personOf.get(id)?.being ?? 'pet') !== 'pet').length;

/** Whose head is drawn longest among those in the picture. */
function mostStretched({ personOf, view }: LaidOut, framed: readonly Subject[]): Plan['stretched'] {
  const [most] = framed
    .flatMap((subject) => {
      const person = personOf.get(subject.id);
      return person ? [{ subjectId: subject.id, factor: stretchAt(view, eyesMidpoint(person)) }] : [];
    })
    .sort((a, b) => b.factor - a.factor);
  return most && most.factor >= noticedStretch ? most : null;
}

function fastestAcross(members: readonly Member[]): PeopleInFrame['mostAcross'] {
  const [most] = members.filter((member) => member.across > 0).sort((a, b) => b.across - a.across);
  return most ? { subjectId: most.subject.id, across: most.across } : null;
}

/** The split into a nearer and a further set that leaves the deeper of the two as shallow as it can be, in vergence. */
function splitInTwo(subjects: readonly Subject[]): readonly (readonly Subject[])[] {
  if (subjects.length < 2) return [subjects];
  const sorted = [...subjects].sort((a, b) => a.nearest + a.furthest - b.nearest - b.furthest);
  const depth = (set: readonly Subject[]) =>
    1 / Math.min(...set.map((item) => item.nearest)) - 1 / Math.max(...set.map((item) => item.furthest));
  let best = { cut: 1, deeper: Infinity };
  for (let cut = 1; cut < sorted.length; cut++) {
    const deeper = Math.max(depth(sorted.slice(0, cut)), depth(sorted.slice(cut)));
    if (deeper < best.deeper) best = { cut, deeper };
  }
  return [sorted.slice(0, best.cut), sorted.slice(best.cut)];
}
