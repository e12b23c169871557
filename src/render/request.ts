/** What to ask the renderer for: the whole picture, a thumbnail, somebody's eyes. */
import type { Plan } from '$core/call/plan';
import { pictureSize } from '$core/setup/framing';
import { projector, type Projected } from '$core/setup/projection';
import { stitching, type Stitching } from '$core/technique/stitching';
import { viewpoint, type PointRole } from '$core/setup/scene';
import type { Body, Lens } from '$core/kit/schema';
import type { Setup } from '$core/setup/schema';
import { wholePicture, cutoutAt, type Cutout } from './lens/lensView';
import { lensShot, viewsNeeded } from './shot';
import type { RenderingQuestion } from './studio';

export interface RenderableSetup {
  readonly setup: Setup;
  readonly plan: Plan;
  readonly body: Body;
  readonly lens: Lens;
}

/** The same at another stop. */
export const atStop = (taken: RenderableSetup, selected: number): RenderableSetup => ({
  ...taken,
  plan: { ...taken.plan, selected }
});

interface AskOptions {
  readonly slot: string;
  readonly priority: number;
  readonly width: number;
  readonly height: number;
  readonly cutout?: Cutout;
  readonly views?: number;
  readonly quick?: boolean;
  readonly eyesOf?: string | undefined;
}

/** The request for a picture, or null when the plan has no such stop. Plain data: it goes to the worker as it is. */
export function asking({ setup, plan, body, lens }: RenderableSetup, options: AskOptions): RenderingQuestion | null {
  const shot = lensShot(setup, plan, body, lens);
  if (!shot) return null;
  const { slot, priority, width, height, cutout = wholePicture, quick = true, eyesOf } = options;
  const wide = width / (cutout.right - cutout.left);
  return {
    slot,
    priority,
    setup,
    view: viewpoint(setup, body, plan.pupilMagnification, plan.fieldPerM),
    shot,
    cutout,
    width: Math.max(8, Math.round(width)),
    height: Math.max(8, Math.round(height)),
    views: options.views ?? viewsNeeded(shot, plan, wide),
    quick,
    eyesOf
  };
}

/** Screen pixels to draw for each CSS pixel: a dense screen must not make a sharp picture look soft. At most 2. */
export function screenDensity(devicePixelRatio: number | undefined): number {
  return Math.min(2, Math.max(1, devicePixelRatio ?? 1));
}

/** Width over height of the picture. */
export function aspectOf({ setup, body }: Pick<RenderableSetup, 'setup' | 'body'>): number {
  const { width, height } = pictureSize(body, setup.camera);
  return width / height;
}

/** The largest picture of this aspect in a room, px. */
export const fitInto = (aspect: number, room: { readonly width: number; readonly height: number }) => ({
  width: Math.min(room.width, room.height * aspect),
  height: Math.min(room.height, room.width / aspect)
});

/** The picture in the camera's own pixels. */
export function picturePixels({ setup, body }: Pick<RenderableSetup, 'setup' | 'body'>): {
  width: number;
  height: number;
} {
  const perMm = body.sensor.pixelsWide / body.sensor.widthMm;
  const { width, height } = pictureSize(body, setup.camera);
  return { width: width * perMm, height: height * perMm };
}

/** Where scene points fall in the picture at the stop in use. */
export function projection({ setup, plan, body }: Pick<RenderableSetup, 'setup' | 'plan' | 'body'>) {
  const P = plan.pupilMagnification;
  const focus = plan.stops[plan.selected]?.drawnFocusMm ?? plan.distanceMm;
  return projector(viewpoint(setup, body, P), setup.camera, body, focus, P);
}

/** The round of a stitched picture, its subject where the picture has it; null for a picture of one frame. */
export function roundOf(taken: Pick<RenderableSetup, 'setup' | 'plan' | 'body'>): Stitching | null {
  const { setup, plan, body } = taken;
  const entry = plan.stops[plan.selected];
  if (!entry) return null;
  const { position, focusDistanceMm } = entry.target;
  const at = (position && projection(taken)(position)) ?? { x: 0.5, y: 0.5 };
  return stitching({ body, camera: setup.camera, N: entry.stop.fNumber, focusMm: focusDistanceMm, at });
}

/** The part of the picture about a place that shows so much of the scene, mm at that place's depth. @param aspect width over height */
export function partAbout(
  taken: Pick<RenderableSetup, 'setup' | 'body'>,
  at: Projected,
  acrossMm: number,
  aspect = 1
): Cutout {
  const pixels = picturePixels(taken);
  const width = acrossMm * at.scale * pixels.width;
  return cutoutAt(at, { width, height: width / aspect }, pixels);
}

export interface EyeCrop {
  readonly key: string;
  readonly subjectId: string;
  readonly name: string;
  /** "near eye", "eyes", or the side of a thing. */
  readonly roles: readonly PointRole[];
  /** Worst blur ratio of what is shown. */
  readonly ratio: number;
  readonly at: Projected;
  readonly cutout: Cutout;
  /** Size of what is shown over the camera's pixels: 1 at 100%, less where an eye with its lids would not fit. */
  readonly shownAt: number;
  /** Nothing but this person's eyes is in it. */
  readonly eyesOf: string | undefined;
}

/** Wider than this, more of somebody than the eyes may be in the crop, mm in the scene. */
const eyesOnlyMm = 92;

/** An eye with lids and lashes, which tells sharp from soft where an iris alone does not, mm in the scene (from memory). */
const eyeWithLidsMm = 44;

/** Eyes closer together than this share of a crop fit into one. */
const bothFit = 0.82;

/**
 * The crops at 100% of the camera's pixels, or as much less as shows lids and lashes: both eyes in one where they fit, else
 * one each; what is focused on first, then in the Ladder's order.
 */
export function eyeCrops(
  taken: RenderableSetup,
  sizePx: { readonly width: number; readonly height: number }
): EyeCrop[] {
  const { plan } = taken;
  const project = projection(taken);
  const pixels = picturePixels(taken);
  const entry = plan.stops[plan.selected];
  if (!entry) return [];
  const isTarget = ({ subjectId }: EyeCrop) => subjectId === entry.target.subjectId;
  const all = plan.subjects.flatMap((subject, index): EyeCrop[] => {
    const wanted: readonly PointRole[] = subject.kind === 'person' ? ['nearEye', 'farEye', 'head'] : ['nearSide'];
    const points = subject.points.flatMap((point, place) => {
      const at = wanted.includes(point.role) ? project(point.position) : undefined;
      const inside = at && at.x > 0 && at.x < 1 && at.y > 0 && at.y < 1;
      return inside ? [{ point, at, ratio: entry.sharpness[index]?.[place]?.ratio ?? 0 }] : [];
    });
    const crop = (chosen: typeof points): EyeCrop[] => {
      const [first] = chosen;
      if (!first) return [];
      const middle = (key: 'x' | 'y' | 'scale') => chosen.reduce((sum, item) => sum + item.at[key], 0) / chosen.length;
      const at = { x: middle('x'), y: middle('y'), scale: middle('scale') };
      const atFull = sizePx.width / pixels.width / at.scale;
      const shownAt = Math.min(1, subject.kind === 'person' ? atFull / eyeWithLidsMm : 1);
      const widthMm = atFull / shownAt;
      const near = subject.kind === 'person' && widthMm < eyesOnlyMm && first.point.role !== 'head';
      const person = taken.setup.people.find((item) => item.id === subject.id);
      return [
        {
          key: `${subject.id}-${first.point.role}`,
          subjectId: subject.id,
          name: subject.name,
          roles: chosen.map((item) => item.point.role),
          ratio: Math.max(...chosen.map((item) => item.ratio)),
          at,
          cutout: cutoutAt(at, { width: sizePx.width / shownAt, height: sizePx.height / shownAt }, pixels),
          shownAt,
          eyesOf: near && person?.being !== 'pet' ? subject.id : undefined
        }
      ];
    };
    const [a, b] = points;
    if (!a || !b) return crop(points);
    const apart = Math.abs(a.at.x - b.at.x) * pixels.width;
    return apart < sizePx.width * bothFit ? crop(points) : [...crop([a]), ...crop([b])];
  });
  return [...all.filter(isTarget), ...all.filter((crop) => !isTarget(crop))];
}
