/** What is cut by the edge of the picture, or comes too near to it. */
import { adultHead, headScale, interpupillaryOf } from '../people/anatomy';
import type { Projected } from './projection';
import { headPoint } from './scene';
import type { Setup } from './schema';
import type { Vector } from '../maths/vector';

export interface EdgeFinding {
  readonly personId: string;
  readonly name: string;
  readonly what: 'headCut' | 'headNear' | 'feetCut';
}

/** Heads nearer to an edge than this share of the picture leave no room to crop (common practice, no source). */
const roomShare = 0.03;

/** People whose heads the picture cuts or crowds, and whose feet it just cuts off while showing their shins. */
export function edgeFindings(setup: Setup, project: (point: Vector) => Projected | undefined): EdgeFinding[] {
  return setup.people.flatMap((person): EdgeFinding[] => {
    const size = headScale(interpupillaryOf[person.being]);
    const crown = project(headPoint(person, { x: 0, y: adultHead.crownY, z: -60 }));
    const eyes = project(headPoint(person, { x: 0, y: 0, z: 0 }));
    const { x, z } = headPoint(person, { x: 0, y: 0, z: -90 });
    const sole = project({ x, y: person.floorMm, z });
    if (!crown || !eyes) return [];
    const half = adultHead.halfWidth * size * eyes.scale;
    const found = (what: EdgeFinding['what']): EdgeFinding[] => [{ personId: person.id, name: person.name, what }];
    const outside = eyes.x < -half || eyes.x > 1 + half || eyes.y < 0 || eyes.y > 1.2;
    if (outside) return [];
    const least = Math.min(eyes.x - half, 1 - eyes.x - half, crown.y);
    if (least < 0) return found('headCut');
    if (least < roomShare) return found('headNear');
    const feet = sole && person.posture !== 'seated' ? sole.y : 0;
    return feet > 1 && feet < 1.07 ? found('feetCut') : [];
  });
}

export const edgeWords: Readonly<Record<EdgeFinding['what'], string>> = {
  headCut: 'is cut by the edge',
  headNear: 'has no room to the edge',
  feetCut: 'loses their feet'
};
