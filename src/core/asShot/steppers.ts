/** What most likely turns out different in a setup, and how it is stepped by a thumb. */
import { mmPerInch } from '../units/conversions';
import { lightLevel } from '../call/light';
import { bodyOf, lensOf } from '../kit/find';
import type { Kit } from '../kit/schema';
import { lensesInLine } from '../call/lineUp';
import { cameraDistance } from '../setup/framing';
import type { Different } from '../setup/schedule';
import type { Setup } from '../setup/schema';
import { limits } from '../schema/values';
import { asShot } from './asShot';
import { groupDepth, leadsAway } from './group';

export const steppers = ['distance', 'deeper', 'light', 'lens', 'wall', 'missing'] as const;
export type Stepper = (typeof steppers)[number];

/** A group from here on has rows, and somebody who is late (common practice, no source). */
const groupFrom = 4;

/** What can be different in this setup, the likeliest first (common practice, no source). */
export function steppersOf(setup: Setup, kit: Kit): Stepper[] {
  const isGroup = setup.people.length >= groupFrom;
  const order: readonly Stepper[] = isGroup
    ? ['distance', 'deeper', 'light', 'lens', 'missing', 'wall']
    : ['distance', 'wall', 'light', 'lens', 'deeper', 'missing'];
  const possible: Readonly<Record<Stepper, boolean>> = {
    distance: true,
    deeper: groupDepth(setup) !== null,
    light: lightLevel(setup) !== null,
    lens: lensSteps(setup, kit).length > 1,
    wall: setup.backgrounds.some(leadsAway),
    missing: setup.people.length > 1
  };
  return order.filter((stepper) => possible[stepper]);
}

type LensStep = NonNullable<Different['lens']>;

/** Every lens that goes on the body in use, at its useful focal lengths, shortest first. */
export function lensSteps(setup: Setup, kit: Kit): LensStep[] {
  const body = bodyOf(kit, setup.camera);
  if (!body) return [];
  return lensesInLine(kit, body, setup.camera).map(({ lensId, adapterIds, focalLengthMm }) => ({
    lensId,
    adapterIds,
    focalLengthMm
  }));
}

/** Where the lens is from the subject line as things are, mm. */
export function distanceNow(setup: Setup, kit: Kit, different: Different): number {
  const shot = asShot(setup, kit, different);
  const body = bodyOf(kit, shot.camera);
  return body ? cameraDistance(shot, body, lensOf(kit, shot.camera)?.pupilMagnification) : 0;
}

/** Steps of distance, mm, from under each limit: about a twentieth, in the roundest lengths of the unit (my choice). */
const distanceSteps = {
  metric: [
    { underMm: 1500, stepMm: 50 },
    { underMm: 4000, stepMm: 100 },
    { underMm: 10_000, stepMm: 200 },
    { underMm: 30_000, stepMm: 500 },
    { underMm: Infinity, stepMm: 2000 }
  ],
  feet: [
    { underMm: 60 * mmPerInch, stepMm: 2 * mmPerInch },
    { underMm: 144 * mmPerInch, stepMm: 4 * mmPerInch },
    { underMm: 360 * mmPerInch, stepMm: 8 * mmPerInch },
    { underMm: 1200 * mmPerInch, stepMm: 24 * mmPerInch },
    { underMm: Infinity, stepMm: 72 * mmPerInch }
  ]
} as const;
/** Steps of a group's depth and of a wall's distance, mm (my choice). */
const depthStepMm = { metric: 100, feet: 4 * mmPerInch } as const;
const wallStepMm = { metric: 250, feet: 12 * mmPerInch } as const;
type LengthSteps = keyof typeof distanceSteps;

/**
 * One press up (+1) or down (−1). Distances come to rest on whole steps; a press that leads nowhere changes nothing.
 */
export function pressStepper(
  setup: Setup,
  kit: Kit,
  different: Different,
  stepper: Stepper,
  by: 1 | -1,
  unit: LengthSteps = 'metric'
): Different {
  switch (stepper) {
    case 'distance': {
      const now = distanceNow(setup, kit, different);
      // On the border between two steps, downwards the finer one.
      const steps = distanceSteps[unit];
      const { stepMm } = steps.find((item) => (by > 0 ? now < item.underMm - 1e-6 : now <= item.underMm)) ?? steps[0];
      const next = by > 0 ? Math.floor(now / stepMm + 1e-6) + 1 : Math.ceil(now / stepMm - 1e-6) - 1;
      return { ...different, distanceMm: Math.max(50, Math.min(limits.maxDistanceMm, next * stepMm)) };
    }
    case 'deeper': {
      const span = groupDepth(setup)?.spanMm ?? 0;
      const deeperMm = Math.max(-span, Math.min(20_000, different.deeperMm + by * depthStepMm[unit]));
      return { ...different, deeperMm };
    }
    case 'light':
      return { ...different, lightStops: Math.max(-20, Math.min(20, different.lightStops + by)) };
    case 'wall': {
      const closer = different.wallCloserMm + by * wallStepMm[unit];
      return { ...different, wallCloserMm: Math.max(-limits.maxDistanceMm, Math.min(limits.maxDistanceMm, closer)) };
    }
    case 'lens': {
      const all = lensSteps(setup, kit);
      const { lensId, focalLengthMm } = different.lens ?? setup.camera;
      const index = all.findIndex((item) => item.lensId === lensId && item.focalLengthMm === focalLengthMm);
      const next = all[Math.max(0, Math.min(all.length - 1, index + by))];
      if (!next) return different;
      const planned = next.lensId === setup.camera.lensId && next.focalLengthMm === setup.camera.focalLengthMm;
      // Where one stands follows the lens again.
      return { ...different, lens: planned ? null : next, distanceMm: null };
    }
    case 'missing':
      return different;
  }
}
