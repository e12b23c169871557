/** What was clicked in the picture: whose eye, or which thing. */
import { adultHead, headScale, interpupillaryOf, type EyeFeature } from '$core/people/anatomy';
import type { Projected } from '$core/setup/projection';
import { featurePosition, headPoint, sceneSubjects, viewpoint } from '$core/setup/scene';
import type { Body } from '$core/kit/schema';
import type { Setup } from '$core/setup/schema';
import type { Vector } from '$core/maths/vector';

type Hit =
  | { readonly kind: 'eye'; readonly personId: string; readonly eye: EyeFeature | null }
  | { readonly kind: 'thing'; readonly thingId: string };

/** The nearest head or thing at a place in the picture (shares of it); the eye of that head nearest to the place. */
export function hitAt(
  setup: Setup,
  body: Body,
  project: (point: Vector) => Projected | undefined,
  at: { readonly x: number; readonly y: number; readonly aspect: number }
): Hit | null {
  const away = (point: Projected) => Math.hypot(point.x - at.x, (point.y - at.y) / at.aspect);
  const found: { readonly hit: Hit; readonly depth: number }[] = [];
  const subjects = sceneSubjects(setup, viewpoint(setup, body));
  for (const person of setup.people) {
    const middle = project(headPoint(person, { x: 0, y: -5, z: -40 }));
    if (!middle) continue;
    const radius = adultHead.crownY * headScale(interpupillaryOf[person.being]) * middle.scale;
    if (away(middle) > radius) continue;
    const seen = subjects.find((subject) => subject.id === person.id)?.points.map((point) => point.feature) ?? [];
    const eyes = (['leftEye', 'rightEye'] as const).flatMap((eye) => {
      const place = seen.includes(eye) ? project(featurePosition(person, eye)) : undefined;
      return place ? [{ eye, off: away(place) }] : [];
    });
    const [nearest] = eyes.sort((a, b) => a.off - b.off);
    found.push({ hit: { kind: 'eye', personId: person.id, eye: nearest?.eye ?? null }, depth: 1 / middle.scale });
  }
  for (const thing of setup.things) {
    const middle = project({ x: thing.lateralMm, y: thing.heightMm, z: thing.depthMm });
    if (!middle) continue;
    const half = {
      x: Math.max(0.012, (thing.widthMm / 2) * middle.scale),
      y: Math.max(0.012, (thing.tallMm / 2) * middle.scale)
    };
    const inside = Math.abs(at.x - middle.x) < half.x && Math.abs(at.y - middle.y) / at.aspect < half.y;
    if (inside) found.push({ hit: { kind: 'thing', thingId: thing.id }, depth: 1 / middle.scale });
  }
  return found.sort((a, b) => a.depth - b.depth)[0]?.hit ?? null;
}
