/** An eye that no point of the body reaches: what to do, ranked. */
import type { PlanInput } from '../call/planInput';
import { isByHand } from '../call/scatter';
import { degrees } from '../maths/vector';
import { imageDistance } from '../optics/thinLens';
import type { Stop } from '../optics/stops';
import { gridBox } from '../setup/focusArea';
import { cameraDistance } from '../setup/framing';
import type { Setup } from '../setup/schema';
import { withCamera } from '../setup/moves';
import { evaluateAt } from './evaluateAt';

export interface ReachWay {
  /** crop: step back, turn until a point lies on the eye, crop to what was wanted; turn: focus in the middle and turn back. */
  readonly kind: 'crop' | 'turn' | 'reframe' | 'byHand';
  readonly odds: number;
  /** Of the body's pixels, how many are left. */
  readonly pixels: number;
  /** crop: how much further back, mm. */
  readonly backMm: number;
  /** turn and reframe: degrees. */
  readonly turnDeg: number;
  /** reframe: who then leaves the picture. */
  readonly lost: readonly string[];
  readonly setup: Setup;
}

/** Less of the frame than this is no picture any more (from memory). */
const leastLeft = 0.3;

/** Keeps a place a little inside the area of the points, as a share of the picture. */
const insideBy = 0.005;

/** With the frame as it is: turning after focusing, and focusing by hand. */
function withoutReframing(input: PlanInput, stop: Stop, turnDeg: number): ReachWay[] {
  const { setup } = input;
  const ways = [
    { kind: 'turn', turnDeg, setup: withCamera(setup, { recompose: 'wrists' }) },
    { kind: 'byHand', turnDeg: 0, setup: withCamera(setup, { focusMethod: 'magnifier' }) }
  ] as const;
  return ways.flatMap((way) => {
    const tried = evaluateAt(input, way.setup, stop);
    return tried ? [{ ...way, odds: tried.entry.odds, pixels: 1, backMm: 0, lost: [] }] : [];
  });
}

/** Best first; empty where a point does reach the target, by hand, or where nothing is focused on. */
export function waysToReach(input: PlanInput, stop: Stop): readonly ReachWay[] {
  const { setup } = input;
  const { camera } = setup;
  const now = evaluateAt(input, withCamera(setup, { recompose: 'none' }), stop);
  const target = now?.entry.target;
  // Where no point reaches, the plan turns the camera of itself.
  if (!now || !target?.position || isByHand(camera.focusMethod) || !target.recomposed || target.recomposed.asked)
    return [];
  const { situation } = now;
  const { body, aim, picture, P, f, view } = situation;
  const at = aim.at(target.position);
  if (!at) return [];
  const box = gridBox({ body, camera });
  // To the nearest place inside the area, as the picture moves.
  const clamp = (value: number, low: number, high: number) =>
    Math.min(high - insideBy, Math.max(low + insideBy, value));
  const off = { x: at.x - clamp(at.x, box.left, box.right), y: at.y - clamp(at.y, box.top, box.bottom) };
  const v = imageDistance(f, view.distance, P);
  const yaw = degrees(Math.atan((off.x * picture.width) / v));
  const pitch = -degrees(Math.atan((off.y * picture.height) / v));
  const turnDeg = Math.hypot(yaw, pitch);
  const found: ReachWay[] = [];
  const tenth = (angle: number) => Math.round(angle * 10) / 10 + 0;
  const reframed = withCamera(setup, { yawDeg: tenth(camera.yawDeg + yaw), pitchDeg: tenth(camera.pitchDeg + pitch) });
  const framed = evaluateAt(input, reframed, stop);
  if (framed?.entry.target.point) {
    const before = new Set(situation.outOfFrame);
    const lost = framed.situation.outOfFrame
      .filter((id) => !before.has(id))
      .map((id) => framed.situation.subjects.find((item) => item.id === id)?.name ?? id);
    found.push({ kind: 'reframe', odds: framed.entry.odds, pixels: 1, backMm: 0, turnDeg, lost, setup: reframed });
  }
  // From further back the wanted picture is a share of the frame, and fits however it is turned.
  const share = 1 - 2 * Math.max(Math.abs(off.x), Math.abs(off.y));
  if (share > leastLeft) {
    const distance = cameraDistance(setup, body, P);
    const back = withCamera(reframed, { placement: { kind: 'distance', distanceMm: Math.round(distance / share) } });
    const cropped = evaluateAt(input, back, stop);
    if (cropped?.entry.target.point) {
      const backMm = distance / share - distance;
      found.push({
        kind: 'crop',
        odds: cropped.entry.odds,
        pixels: share ** 2,
        backMm,
        turnDeg,
        lost: [],
        setup: back
      });
    }
  }
  found.push(...withoutReframing(input, stop, turnDeg));
  return found.sort(
    (a, b) => a.lost.length - b.lost.length || Math.round((b.odds - a.odds) * 20) || b.pixels - a.pixels
  );
}
