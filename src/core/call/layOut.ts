/** The second stage of a plan: the scene as it lies before the lens. */
import type { Habits } from '../habits/habits';
import { backgroundDepth, sceneSubjects, viewpoint, type Subject, type Viewpoint } from '../setup/scene';
import type { Person, Setup } from '../setup/schema';
import { add, scale, type Vector } from '../maths/vector';
import { decisiveSubjects } from './candidates';
import type { CameraInHand } from './camera';
import { noPlan, type NoPlan, type Plan } from './plan';

/** Nothing nearer to the lens than this can be in the picture, mm. */
export const leastDepthMm = 50;

/** A setup seen from its camera, by the photographer's habits. */
export interface LaidOut {
  readonly setup: Setup;
  readonly habits: Habits;
  readonly view: Viewpoint;
  readonly personOf: ReadonlyMap<string, Person>;
  /** Everybody and everything in front of the lens. */
  readonly subjects: readonly Subject[];
  readonly backgrounds: Plan['backgrounds'];
}

/** Puts everybody where they are seen from; or says who stands behind the lens, or that nobody is there. */
export function layOut(setup: Setup, habits: Habits, { body, lens, P }: CameraInHand): LaidOut | NoPlan {
  const view = viewpoint(setup, body, P, lens.fieldPerM);
  const all = sceneSubjects(setup, view);
  const inFront = (subject: Subject) => subject.points.every((point) => point.depth > leastDepthMm);
  const behind = all.find((subject) => subject.importance !== 'maySoft' && !inFront(subject));
  if (behind) return noPlan({ code: 'behindCamera', name: behind.name });
  const subjects = all.filter(inFront);
  if (subjects.length === 0) return noPlan({ code: 'nothingRequired' });
  const face = middleOf(decisiveSubjects(subjects));
  return {
    setup,
    habits,
    view,
    personOf: new Map(setup.people.map((person) => [person.id, person])),
    subjects,
    backgrounds: setup.backgrounds.map((background) => ({
      id: background.id,
      name: background.name,
      wish: background.wish,
      detailMm: background.detailMm,
      depthMm: backgroundDepth(view, background, face)
    }))
  };
}

/** The middle of those who decide, scene coordinates: what a background is seen beside. */
function middleOf(subjects: readonly Subject[]): Vector {
  const positions = subjects.flatMap(({ points }) => points[0]?.position ?? []);
  return scale(positions.reduce(add, { x: 0, y: 0, z: 0 }), 1 / positions.length);
}
