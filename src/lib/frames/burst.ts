/** A burst of the simulated camera: the frames of a setup as files, and the truth of each beside them. */
import { proxy } from 'comlink';
import type { PlanInput } from '$core/call/planInput';
import { noiseAt } from '$core/simulation/sensor';
import { shoot, type FrameTruth, type Shooting } from '$core/simulation/shoot';
import { standIn } from '$core/simulation/metadata';
import { seededRandom } from '$core/maths/random';
import { viewpoint } from '$core/setup/scene';
import { headsOf, type FrameOrder, type HeadTruth } from '../../render/exposeFrame';
import { lensShot } from '../../render/shot';
import { WorkerClient } from '../../workers/client';
import type { CameraWorker, FrameMade } from '../../workers/camera.worker';
import { aspectOf, type RenderableSetup } from '../../render/request';

const camera = new WorkerClient<CameraWorker>(
  () => new Worker(new URL('../../workers/camera.worker.ts', import.meta.url), { type: 'module' })
);

/** Eyes as far apart show blur well, px; the least that can be measured at all is a fifth of it. */
const leastEyesPx = 90;
const widest = 6000;
const narrowest = 1200;
/** Between frames of a burst, ms. */
const betweenMs = 420;

/** What really happened in one frame: kept apart from its file. */
export interface FileTruth {
  readonly file: string;
  readonly seed: number;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly shakePx: number;
  readonly shot: FrameTruth;
  readonly heads: readonly HeadTruth[];
}

export interface Burst {
  readonly files: readonly File[];
  readonly truths: readonly FileTruth[];
}

export interface BurstAsked extends Shooting {
  readonly seed: number;
  /** When the first frame is taken, by the body's clock, ms since 1970, and its zone. */
  readonly at: number;
  readonly zoneMinutes: number;
  /** The first frame's number. */
  readonly from: number;
  /** JPEG, 0 to 1. */
  readonly quality?: number;
}

/** The picture's width so that everybody's eyes are far enough apart, px. */
function widthFor(order: Omit<FrameOrder, 'width' | 'height'>, aspect: number): number {
  const trial = { ...order, width: 1000, height: 1000 / aspect };
  const apart = headsOf(trial).map(({ left, right }) => Math.hypot(left.x - right.x, left.y - right.y));
  const least = Math.min(...apart.filter((px) => px > 0), Infinity);
  const width = Number.isFinite(least) ? (leastEyesPx / least) * 1000 : narrowest;
  return Math.round(Math.min(widest, Math.max(narrowest, width)) / 8) * 8;
}

/** Takes a burst. @returns null where the setup cannot be taken as it is (see `shoot`) */
export async function takeBurst(
  input: PlanInput,
  taken: RenderableSetup,
  asked: BurstAsked,
  onProgress: (share: number) => void,
  signal?: AbortSignal
): Promise<Burst | null> {
  const { plan, body, lens, setup } = taken;
  const planned = lensShot(setup, plan, body, lens);
  const entry = plan.stops[plan.selected];
  const shots = shoot(input, seededRandom(asked.seed), asked);
  if (!planned || !entry || !shots) return null;
  const view = viewpoint(setup, body, plan.pupilMagnification, plan.fieldPerM);
  const files: File[] = [];
  const truths: FileTruth[] = [];
  const aspect = aspectOf(taken);
  let width = 0;
  for (const [index, shot] of shots.entries()) {
    const parts = { setup, view, lens: planned, shot, noise: { fullElectrons: 1, readElectrons: 0 } };
    width ||= widthFor(parts, aspect);
    const height = Math.round(width / aspect / 2) * 2;
    const { shutterS } = entry.light;
    const iso = entry.light.iso ?? body.baseIso;
    const pixelMm = planned.lens.pictureWidthMm / width;
    const seed = asked.seed * 1000 + index;
    const number = asked.from + index;
    const order = {
      ...parts,
      width,
      height,
      noise: noiseAt(pixelMm, iso, body.baseIso),
      seed,
      quality: asked.quality ?? 0.9,
      facts: {
        bodyName: body.name,
        lensName: lens.name,
        focalLengthMm: planned.lens.focalLengthMm,
        fNumber: planned.lens.fNumber,
        shutterS,
        iso,
        at: asked.at + index * betweenMs,
        zoneMinutes: asked.zoneMinutes,
        distanceMm: null,
        orientation: 1 as const,
        number
      }
    };
    const made: FrameMade = await camera.call((api, progress) => api.take(order, proxy(progress)), {
      onProgress: (share) => onProgress((index + share) / shots.length),
      ...(signal ? { signal } : {})
    });
    const name = `${standIn.make.slice(0, 3).toUpperCase()}_${String(number).padStart(4, '0')}.JPG`;
    files.push(new File([made.file], name, { type: 'image/jpeg', lastModified: order.facts.at }));
    truths.push({ file: name, seed, widthPx: width, heightPx: height, shakePx: made.shakePx, shot, heads: made.heads });
  }
  return { files, truths };
}
