/** What usually goes wrong in a burst, once each, so that there is something to find. */
import type { Plan } from '$core/call/plan';
import type { Fault } from '$core/simulation/shoot';
import { pictureSize } from '$core/setup/framing';
import type { Setup } from '$core/setup/schema';
import type { Body } from '$core/kit/schema';

/** A track this long at 100% of an ordinary screen's picture is seen by anybody: a share of the picture's width. */
const shakeShare = 1 / 180;

/** By frame from 0: focus on somebody before and on somebody behind, a shake, a blink, somebody moving. */
export function usualMishaps(setup: Setup, plan: Plan, body: Body, frames: number): Record<number, Fault> {
  const target = plan.stops[plan.selected]?.target;
  const people = plan.subjects.filter(({ kind, id }) => kind === 'person' && id !== target?.subjectId);
  const depth = target?.focusDistanceMm ?? 0;
  const sorted = [...people].sort((a, b) => a.nearest - b.nearest);
  const before = sorted[0];
  const behind = sorted[sorted.length - 1];
  const { width } = pictureSize(body, setup.camera);
  const faults: (Fault | null)[] = [
    null,
    before && before.nearest < depth ? { kind: 'landsOn', id: before.id } : null,
    null,
    behind && behind.furthest > depth ? { kind: 'landsOn', id: behind.id } : null,
    null,
    { kind: 'shakes', mm: width * shakeShare, angle: Math.PI / 3 },
    null,
    sorted[0] ? { kind: 'blinks', id: sorted[0].id } : null
  ];
  return Object.fromEntries(
    faults.flatMap((fault, index) => (fault && index < frames ? [[index, fault] as const] : []))
  );
}
