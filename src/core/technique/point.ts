/** The focus point against the face: which lies on the target, how far off, what else it covers, and which size to set. */
import { asFocusTarget } from '../call/focusTarget';
import { somebodyMoves } from '../call/motion';
import { isByHand } from '../call/scatter';
import type { PlanInput } from '../call/planInput';
import type { pointSizes } from '../kit/schema';
import type { Stop } from '../optics/stops';
import { pointBox, pointShare } from '../setup/focusArea';
import type { FocusPoint } from '../setup/focusPoint';
import { projector } from '../setup/projection';
import { surfacesIn, type SeenSurface } from '../setup/lineOfSight';
import { withCamera } from '../setup/moves';
import { evaluateAt } from './evaluateAt';

type PointSize = (typeof pointSizes)[number];

/** What lies under a point of some size put on the target. */
export interface PointFit {
  readonly size: PointSize;
  /** Its edge at the target's depth, mm. */
  readonly edgeMm: number;
  /** Odds of one frame with it. */
  readonly odds: number;
  /** Nearest and furthest surface under it against the target, mm; negative in front. */
  readonly nearestMm: number;
  readonly furthestMm: number;
  /** What else is under it, the likeliest to be taken first. */
  readonly others: readonly SeenSurface[];
}

export interface PointAdvice {
  readonly point: FocusPoint;
  /** From the point's middle to the target, in mm at the target: to the right, and up. */
  readonly offMm: { readonly right: number; readonly up: number };
  /** Every size the body has, the smallest first. */
  readonly sizes: readonly PointFit[];
  /** Index in `sizes`. */
  readonly best: number;
  /** Whether the finer grid is worth it: somebody who keeps still, and a body that has one. */
  readonly fineGrid: boolean;
}

const order: readonly PointSize[] = ['pinpoint', 'small', 'medium', 'large'];

/** Less of a surface than this under a point is not spoken of. */
const leastShare = 0.03;

/** A larger point is quicker to place and finds more to hold on to: it is taken where its odds are within this. */
const asGood = 0.01;

/** Null by hand, left to the camera, or where no point of the body lies on the target. */
export function pointAdvice(input: PlanInput, stop: Stop): PointAdvice | null {
  const { setup } = input;
  const { camera } = setup;
  const now = evaluateAt(input, setup, stop);
  const target = now?.entry.target;
  if (!now || !target?.position || !target.point || isByHand(camera.focusMethod)) return null;
  const { situation } = now;
  const { body, view, P } = situation;
  const project = projector(view, camera, body, target.focusDistanceMm, P);
  const at = project(target.position);
  const aspect = situation.picture.width / situation.picture.height;
  if (!at) return null;
  const asked = order.filter((size) => body.focusGrid.sizes.includes(size) || size === camera.pointSize);
  const sizes = asked.flatMap((size): PointFit[] => {
    // The same target for every size.
    const chosen = withCamera(
      { ...setup, intent: { ...setup.intent, target: asFocusTarget(target, setup) } },
      { pointSize: size }
    );
    const tried = evaluateAt(input, chosen, stop);
    if (!tried) return [];
    const box = pointBox({ body, camera }, at, size);
    const under = surfacesIn(tried.situation.lineOfSight(), box, 9, 9).filter(({ share }) => share >= leastShare);
    const depths = under.flatMap(({ nearest, furthest }) => [nearest, furthest]);
    const own = (surface: SeenSurface) =>
      surface.id === target.subjectId && (surface.part === 'eye' || surface.part === 'thing');
    return [
      {
        size,
        edgeMm: (pointShare[size] * body.sensor.widthMm) / (at.scale * situation.picture.width),
        odds: tried.entry.odds,
        nearestMm: Math.min(...depths) - target.focusDistanceMm,
        furthestMm: Math.max(...depths) - target.focusDistanceMm,
        others: under.filter((surface) => !own(surface))
      }
    ];
  });
  const most = Math.max(...sizes.map(({ odds }) => odds));
  const best = sizes.reduce((found, fit, index) => (fit.odds >= most - asGood ? index : found), 0);
  return {
    point: target.point,
    offMm: {
      right: (at.x - target.point.x) / at.scale,
      up: (target.point.y - at.y) / (at.scale * aspect)
    },
    sizes,
    best,
    fineGrid: body.focusGrid.fine !== null && !somebodyMoves(setup)
  };
}
