/**
 * A frame of the simulated camera as its sensor takes it. Heads are drawn at full size; the rest of the picture, which would take
 * minutes without a GPU, at a quarter of it: which parts are full is told, so that nothing else is measured.
 */
import { Vector3, type Object3D, type Scene } from 'three';
import type { Noise } from '../core/simulation/sensor';
import { bytesOf, counted, lightOf } from '../core/simulation/sensor';
import type { FrameTruth as Truth, ShotSubject } from '../core/simulation/shoot';
import { blurDiscDiameter } from '../core/optics/blur';
import { imageDistance } from '../core/optics/thinLens';
import { toCamera, type Viewpoint } from '../core/setup/scene';
import type { Setup } from '../core/setup/schema';
import { lensAtRelease, setupAtRelease, shakePx } from './frameShot';
import { momentOf, type LensRenderer, type LensExposure } from './lens/lensRenderer';
import { wholePicture, type Cutout, type LensState } from './lens/lensView';
import { buildScene, meshesFor, releaseScene, type SceneRequest } from './scene/build';
import { irisPlaces } from './scene/figure';
import { loadMeshes, type FetchBytes } from './scene/meshes';
import type { LensShot } from './shot';

export interface FrameOrder {
  /** As it was planned. */
  readonly setup: Setup;
  readonly view: Viewpoint;
  readonly lens: LensShot;
  /** What happened. */
  readonly shot: Truth;
  readonly width: number;
  readonly height: number;
  readonly noise: Noise;
}

/** A part of a picture, pixels. */
export interface PixelArea {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** An eye as it is in the frame. */
export interface EyeTruth {
  /** The visible iris, pixels from the left and the top. */
  readonly x: number;
  readonly y: number;
  /** Disc of defocus, pixels; positive behind the plane. */
  readonly discPx: number;
}

export interface HeadTruth {
  readonly id: string;
  readonly left: EyeTruth;
  readonly right: EyeTruth;
  /** How far they moved across while the shutter was open, pixels. */
  readonly acrossPx: number;
  readonly of: ShotSubject;
}

export interface Exposed {
  readonly bytes: Uint8ClampedArray<ArrayBuffer>;
  readonly width: number;
  readonly height: number;
  /** What is drawn at full size. */
  readonly full: readonly PixelArea[];
  readonly heads: readonly HeadTruth[];
  /** Track of the camera's own movement, pixels. */
  readonly shakePx: number;
}

/** The rest of the picture is drawn at this share of its size. */
const restShare = 1 / 4;
/** How much of a head's surroundings is drawn at full size, distances between the eyes. */
const headRoom = { aside: 1.45, above: 1.2, below: 1.5 } as const;
/** Looks for a smear of so many pixels to show no steps. */
const looksPerSmearPx = 4;
/** Looks this far apart on a disc melt into it, pixels; and as many as smooth the edges of what is sharp. */
const lookApartPx = 1.5;
const fewestLooks = 24;
const restLooks = 32;

/** Pixels per mm at a depth, and where a point of the scene falls, pixels. */
function placing({ setup, view, width, height }: FrameOrder, lens: LensState) {
  const v = imageDistance(lens.focalLengthMm, lens.focusMm, lens.pupilMagnification);
  const perMm = width / lens.pictureWidthMm;
  const of = (place: Vector3) => {
    const local = toCamera(view, { x: place.x, y: place.y, z: -place.z });
    const scale = (v / local.z) * perMm;
    return { x: width / 2 + local.x * scale, y: height / 2 - local.y * scale, z: local.z, scale };
  };
  return { of, setup };
}

/** The eyes of everybody whose eyes are in the picture, as they are when the shutter opens. */
export function headsOf(order: FrameOrder): HeadTruth[] {
  const { shot, view, width, height } = order;
  const { lens } = lensAtRelease(order.lens, shot);
  const released = setupAtRelease(order.setup, view, shot);
  const { of } = placing(order, lens);
  return released.people.flatMap((person): HeadTruth[] => {
    const truth = shot.subjects.find(({ id }) => id === person.id);
    if (!truth || person.being === 'pet') return [];
    const irises = irisPlaces(person, view, truth.rollDeg);
    const eye = (place: Vector3): EyeTruth & { readonly scale: number } => {
      const { x, y, z, scale } = of(place);
      const disc = blurDiscDiameter(lens.focalLengthMm, lens.fNumber, lens.focusMm, z, lens.pupilMagnification);
      return { x, y, scale, discPx: (Math.sign(z - lens.focusMm) * disc * width) / lens.pictureWidthMm };
    };
    const [left, right] = [eye(irises.left), eye(irises.right)];
    const inside = [left, right].every(({ x, y }) => x > 0 && y > 0 && x < width && y < height);
    if (!inside) return [];
    const plain = ({ x, y, discPx }: EyeTruth): EyeTruth => ({ x, y, discPx });
    return [
      {
        id: person.id,
        left: plain(left),
        right: plain(right),
        acrossPx: truth.acrossMm * left.scale,
        of: truth
      }
    ];
  });
}

/** The part of a picture about a head. */
function aroundHead({ left, right }: HeadTruth, { width, height }: FrameOrder, eyesPx: number): PixelArea {
  const [x, y] = [(left.x + right.x) / 2, (left.y + right.y) / 2];
  const low = (value: number) => Math.max(0, Math.floor(value));
  const [fromX, fromY] = [low(x - headRoom.aside * eyesPx), low(y - headRoom.above * eyesPx)];
  const toX = Math.min(width, Math.ceil(x + headRoom.aside * eyesPx));
  const toY = Math.min(height, Math.ceil(y + headRoom.below * eyesPx));
  return { x: fromX, y: fromY, width: Math.max(8, toX - fromX), height: Math.max(8, toY - fromY) };
}

/** Takes the picture. @param progress is told the share done, 0 to 1 */
export async function exposeFrame(
  renderer: LensRenderer,
  fetchBytes: FetchBytes,
  order: FrameOrder,
  normal: () => number,
  progress: (share: number) => void
): Promise<Exposed> {
  const { shot, view, width, height } = order;
  const lens = lensAtRelease(order.lens, shot);
  const setup = setupAtRelease(order.setup, view, shot);
  const heads = headsOf(order);
  const request: SceneRequest = {
    setup,
    view,
    lens: lens.lens,
    widthPx: width,
    moments: new Map(
      shot.subjects.map(({ id, eyesOpen, rollDeg, covered }) => [
        id,
        { eyesOpen: eyesOpen !== false, rollDeg, covered }
      ])
    )
  };
  const coarse = { ...request, widthPx: width * restShare };
  await loadMeshes([...meshesFor(request), ...meshesFor(coarse)], fetchBytes);
  const track = shakePx(shot, lens.lens.pictureWidthMm, width);
  const moved = {
    x: (-track * Math.cos(shot.shakeAngle)) / width,
    y: (track * Math.sin(shot.shakeAngle)) / height
  };
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser can’t draw images.');
  const moves = new Map(shot.subjects.map(({ id, acrossMm }) => [id, acrossMm]));
  const draw = async (
    scene: Scene,
    cutout: Cutout,
    size: { width: number; height: number },
    looks: number,
    done: () => void
  ) => {
    const asked: LensExposure = { ...lens, view, cutout, moved, width: size.width, height: size.height };
    const picture = renderer.begin(scene, asked);
    try {
      for (let look = 0; look < looks; look++) {
        moveAcross(scene, view, moves, momentOf(look));
        renderer.add(picture);
        if (look % 8 === 7) {
          renderer.finish(picture);
          done();
          await new Promise((resume) => setTimeout(resume, 0));
        }
      }
      return await renderer.image(picture);
    } finally {
      renderer.end(picture);
    }
  };
  const sizePx = Math.max(8, ...heads.map(({ left, right }) => Math.hypot(left.x - right.x, left.y - right.y)));
  const plans = heads.map((head) => {
    const eyesPx = Math.max(sizePx * 0.7, Math.hypot(head.left.x - head.right.x, head.left.y - head.right.y));
    const smear = track + Math.abs(head.acrossPx);
    const disc = Math.max(Math.abs(head.left.discPx), Math.abs(head.right.discPx));
    const looks = Math.max(fewestLooks, (Math.PI / 4) * (disc / lookApartPx) ** 2, smear * looksPerSmearPx);
    return { area: aroundHead(head, order, eyesPx), looks: Math.min(160, 8 * Math.ceil(looks / 8)) };
  });
  const rest = { width: Math.round(width * restShare), height: Math.round(height * restShare) };
  // Drawing costs by the pixel.
  const all = plans.reduce((sum, { area, looks }) => sum + area.width * area.height * looks, 0);
  const whole = all + rest.width * rest.height * restLooks;
  let spent = 0;
  const within = async (asked: SceneRequest, work: (scene: Scene) => Promise<void>) => {
    const scene = buildScene(asked);
    try {
      await work(scene);
    } finally {
      releaseScene(scene);
    }
  };
  await within(coarse, async (scene) => {
    const done = () => progress((spent += rest.width * rest.height * 8) / whole);
    context.drawImage(await draw(scene, wholePicture, rest, restLooks, done), 0, 0, width, height);
  });
  await within(request, async (scene) => {
    for (const { area, looks } of plans) {
      const cutout = {
        left: area.x / width,
        top: area.y / height,
        right: (area.x + area.width) / width,
        bottom: (area.y + area.height) / height
      };
      const done = () => progress((spent += area.width * area.height * 8) / whole);
      context.drawImage(await draw(scene, cutout, area, looks, done), area.x, area.y);
    }
  });
  const { data } = context.getImageData(0, 0, width, height);
  const noisy = counted(lightOf(data, width, height), order.noise, normal);
  progress(1);
  return { bytes: bytesOf(noisy), width, height, full: plans.map(({ area }) => area), heads, shakePx: track };
}

/** Whoever moves across is a little further on at each moment; sideways as the camera sees it. */
function moveAcross(scene: Scene, view: Viewpoint, moves: ReadonlyMap<string, number>, moment: number): void {
  for (const item of scene.children as Object3D[]) {
    const across = moves.get(item.name) ?? 0;
    if (across === 0) continue;
    item.position.set(across * moment * Math.cos(view.yaw), 0, across * moment * Math.sin(view.yaw));
    item.updateMatrixWorld(true);
  }
}
