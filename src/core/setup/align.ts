/** Moves of several people at once. They change nobody but those given; the rest of a person stays as it is. */
import { degrees } from '../maths/vector';
import { depthOf, eyesMidpoint, type Viewpoint } from './scene';
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
    const z = depthOn(view, x, y, focusMm);
    return Number.isFinite(z) ? { ...person, depthMm: Math.round(z + view.position.z) + 0 } : person;
  });
}

/** z of the surface of sharp focus at `focus` along the axis, for a point x to the right and y above the lens; NaN where there is none. */
function depthOn(view: Viewpoint, x: number, y: number, focus: number): number {
  if (view.surface === 'flat') return flatDepth(view, x, y, focus);
  if (view.surface === 'curved') return Math.sqrt(focus * focus - x * x - y * y);
  const beyond = (z: number) =>
    depthOf(view, { x: x + view.position.x, y: y + view.position.y, z: z + view.position.z }) - focus;
  // Nearer than this, further to the side makes up for further away: by the derivative of 1/z − κ r²/z².
  let [low, high] = [Math.max(1, 2 * view.surface.bendPerMm * (x * x + y * y)), 10 * focus];
  if (beyond(low) > 0 || beyond(high) < 0) return NaN;
  for (let step = 0; step < halvings; step++) {
    const middle = (low + high) / 2;
    if (beyond(middle) > 0) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/** To a thousandth of a millimetre at 100 m. */
const halvings = 40;

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
