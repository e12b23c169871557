/** Moves of several people at once. They change nobody but those given; the rest of a person stays as it is. */
import { degrees } from '../geometry/vector';
import { eyesMidpoint, type Viewpoint } from './scene';
import type { Person } from './schema';
import { rowLine } from '../people/rows';

/**
 * Puts everybody's eyes on the surface of sharp focus at a distance, moving each along the depth of the scene only.
 * Somebody who cannot be brought there (beyond the curve's end) stays.
 */
export function alignToFocus(people: readonly Person[], view: Viewpoint, focusMm: number): Person[] {
  return people.map((person) => {
    const eyes = eyesMidpoint(person);
    const x = eyes.x - view.position.x;
    const y = eyes.y - view.position.y;
    const z = view.surface === 'flat' ? flatDepth(view, x, y, focusMm) : Math.sqrt(focusMm * focusMm - x * x - y * y);
    return Number.isFinite(z) ? { ...person, depthMm: Math.round(z + view.position.z) } : person;
  });
}

/** z of the plane at `focus` along the axis, for a point x to the right and y above the lens. */
function flatDepth({ yaw, pitch }: Viewpoint, x: number, y: number, focus: number): number {
  const axis = { x: Math.sin(yaw) * Math.cos(pitch), y: Math.sin(pitch), z: Math.cos(yaw) * Math.cos(pitch) };
  return (focus - axis.x * x - axis.y * y) / axis.z;
}

/**
 * Turns a row about its middle until it stands square to the way the camera looks. Spacing and staggering within the
 * row stay; so do the faces.
 */
export function squareToCamera(people: readonly Person[], view: Viewpoint): Person[] {
  if (people.length < 2) return [...people];
  // The line through a scattered row leans less than the row; a few turns bring it level.
  let angle = 0;
  for (let i = 0; i < levellings; i++) angle += Math.atan(rowLine(turned(people, angle - view.yaw)).slope);
  return turned(people, angle).map(({ lateralMm, depthMm }, index) => ({
    ...(people[index] as Person),
    lateralMm: Math.round(lateralMm) + 0,
    depthMm: Math.round(depthMm) + 0
  }));
}

/** Places turned about their middle: what lies to the right comes nearer. */
function turned(people: readonly Person[], angle: number): Pick<Person, 'lateralMm' | 'depthMm'>[] {
  const centreX = people.reduce((sum, person) => sum + person.lateralMm, 0) / people.length;
  const centreZ = people.reduce((sum, person) => sum + person.depthMm, 0) / people.length;
  return people.map((person) => {
    const x = person.lateralMm - centreX;
    const z = person.depthMm - centreZ;
    return {
      lateralMm: centreX + x * Math.cos(angle) + z * Math.sin(angle),
      depthMm: centreZ + z * Math.cos(angle) - x * Math.sin(angle)
    };
  });
}

/** Turns of the people towards the line, each from where the one before left them; far more than it takes to settle. */
const levellings = 20;

/** Spaces people evenly between the two at the ends, in the order in which they stand from the picture's left. */
export function evenSpacing(people: readonly Person[]): Person[] {
  if (people.length < 3) return [...people];
  const order = [...people].sort((a, b) => a.lateralMm - b.lateralMm);
  const first = order[0]?.lateralMm ?? 0;
  const gap = ((order[order.length - 1]?.lateralMm ?? 0) - first) / (order.length - 1);
  const place = new Map(order.map((person, index) => [person.id, Math.round(first + index * gap)]));
  return people.map((person) => ({ ...person, lateralMm: place.get(person.id) ?? person.lateralMm }));
}

/** Slant of a row against square to the camera, degrees; positive when its right end is further away. */
export function rowSlantDeg(people: readonly Person[], view: Viewpoint): number {
  return people.length < 2 ? 0 : degrees(Math.atan(rowLine(turned(people, -view.yaw)).slope));
}
