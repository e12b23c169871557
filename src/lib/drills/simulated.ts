/** What the simulated camera is set up with before a drill: somebody who does most of it right, and some of it not. */
import type { FrameFacts } from '$core/simulation/metadata';
import { recomposeShift, shakeDisc } from '$core/call/motion';
import { holdSd } from '$core/call/scatter';
import { placeOff, type Arranged, type DrillStep } from '$core/drills/series/steps';
import type { FrameDrill } from '$core/drills/kinds/kind';
import type { Track } from '$core/drills/series/tracks';
import type { Habits } from '$core/habits/habits';
import type { Body, Lens } from '$core/kit/schema';
import { motionTrack } from '$core/optics/sharpness';
import { imageDistance, shiftedFocus } from '$core/optics/thinLens';
import { normalFrom, seededRandom } from '$core/maths/random';
import type { Camera } from '$core/setup/schema';
import type { MarksOrder } from '../../workers/bench.worker';

export interface SimulationKit {
  readonly body: Body;
  readonly lens: Lens;
  readonly focalLengthMm: number;
  readonly at: number;
}

/** Who takes it, and what holds the picture still, stops. */
export interface Photographer {
  readonly habits: Habits;
  readonly stance: Camera['stance'];
  readonly stabiliserStops: number;
}

/** Pixels a mm at the first thing: a mark's code is some fifty pixels wide. */
const perMm = 1.45;
/** About the things, mm at the first of them. */
const around = { across: 120, down: 90 } as const;
/** Autofocus, µm on the sensor; a lean, mm. */
const usual = { focusUm: 6, leanMm: 22, leanSpreadMm: 5 } as const;
/** How many times finer pictures are where tracks are measured: a mark's code is so much wider. */
const finer = 2.5;

/** One track is longer than another by so much, as a deviation of the logarithm (chosen). */
const usualScatter = 0.35;

/** What each frame was ordered as, by the name of its file: for looking afterwards, while the page is open. */
const ordered = new Map<string, MarksOrder>();
export const keepOrder = (name: string, order: MarksOrder): unknown => ordered.set(name, order);

/** How far the plane of a frame really lay behind what was focused on, mm, and the track its marks really have; null for one's own frames. */
export function truthOf(
  name: string,
  step: DrillStep
): { readonly offsetMm: number; readonly track: Track | null } | null {
  const order = ordered.get(name);
  const aimed = order?.marks.find(({ index }) => index === step.focusOn);
  return order && aimed ? { offsetMm: order.planeMm - aimed.z, track: order.track ?? null } : null;
}

/** A frame a step, in order; one of them twice, the first time focused on something else. */
export function drillOrders(
  drill: Pick<FrameDrill, 'shows' | 'fine'>,
  arranged: Arranged,
  kit: SimulationKit,
  { habits, stance, stabiliserStops }: Photographer,
  seed: number
): MarksOrder[] {
  const { body, lens, focalLengthMm: f, at } = kit;
  const { distanceMm, things, steps } = arranged;
  const random = seededRandom(seed);
  const normal = normalFrom(random);
  const v = imageDistance(f, distanceMm);
  const whole = drill.shows === 'picture';
  // Of the sensor all of it where things go to its edges, else what they fill.
  const fine = perMm * (drill.fine ? finer : 1);
  const pixelMm = Number((v / distanceMm / fine).toFixed(5));
  const across = Math.max(...things.map(({ lateralMm }) => Math.abs(lateralMm))) * 2 + around.across;
  const long = whole ? Math.round(body.sensor.widthMm / pixelMm) : Math.round(across * fine);
  const short = whole ? Math.round(body.sensor.heightMm / pixelMm) : Math.round(around.down * fine);
  const again = Math.floor(random() * steps.length);
  const order = (step: DrillStep, number: number, miss: boolean): MarksOrder => {
    const [width, height] = step.upright ? [short, long] : [long, short];
    const aimed = things.find(({ index }) => index === step.focusOn);
    const from = step.distanceMm ?? distanceMm;
    const z = from + (aimed?.depthMm ?? 0);
    const half = (px: number) => ((px / 2) * pixelMm * z) / v;
    const { x: dx, y: dy } = placeOff(step.place, half(width), half(height));
    const turned = step.turning === null ? 0 : recomposeShift({ x: dx, y: dy, z }, habits.pivotMm.wrists, 'flat');
    const leaned = step.turning === 'lean' ? usual.leanMm + usual.leanSpreadMm * normal() : 0;
    const wrong = things.find(({ index }) => index === (step.focusOn + 1) % things.length);
    const focused = miss && wrong ? from + wrong.depthMm : z;
    // What comes nearer has its plane behind it by as much.
    const swayed = holdSd(habits, stance, step.waitS ?? 0) * normal();
    const shutterS = step.shutterS ?? 1 / 250;
    const shakeMm = motionTrack(shakeDisc(habits, { focalLengthMm: f, stance }, stabiliserStops, shutterS));
    const track = { px: (shakeMm * Math.exp(usualScatter * normal())) / pixelMm, angle: Math.PI * random() };
    const facts: FrameFacts = {
      bodyName: body.name,
      lensName: lens.name,
      focalLengthMm: f,
      fNumber: Number(step.fNumber.toFixed(1)),
      shutterS,
      iso: 200,
      at: at + 5000 * number,
      zoneMinutes: 0,
      distanceMm: null,
      orientation: 1,
      number,
      pixelMm
    };
    return {
      lens: { focalLengthMm: f, pixelMm, width, height },
      fNumber: step.fNumber,
      planeMm: shiftedFocus(f, focused, (usual.focusUm / 1000) * normal()) + turned + leaned + swayed,
      marks: things.map(({ index, lateralMm, depthMm }) => ({
        index,
        x: lateralMm - (whole ? (aimed?.lateralMm ?? 0) : 0) + dx,
        y: dy,
        z: from + depthMm
      })),
      ...(step.shutterS === null ? {} : { track }),
      seed: seed + number,
      facts
    };
  };
  const orders = steps.flatMap((step, index) =>
    index === again && !whole && step.waitS === null && step.shutterS === null
      ? [
          { step, miss: true },
          { step, miss: false }
        ]
      : [{ step, miss: false }]
  );
  return orders.map(({ step, miss }, index) => order(step, index + 1, miss));
}
