/** The renderer by itself in a page, for tests and benchmarks: bundled by them, never shipped. */
import { Color, InstancedMesh, Matrix4, MeshBasicMaterial, Quaternion, Scene, SphereGeometry, Vector3 } from 'three';
import { planSetup } from '../../src/core/call/planSetup';
import { defaultHabits } from '../../src/core/habits/habits';
import { builtInKit } from '../../src/core/kit/builtInKit';
import { demoSetup } from '../../src/core/testing/demo';
import { imageDistance } from '../../src/core/optics/thinLens';
import { viewpoint, type Viewpoint } from '../../src/core/setup/scene';
import type { Setup } from '../../src/core/setup/schema';
import { LensRenderer, toThree, type LensExposure } from '../../src/render/lens/lensRenderer';
import { wholePicture, type LensState, type Cutout } from '../../src/render/lens/lensView';
import { buildScene, meshesFor, releaseScene } from '../../src/render/scene/build';
import { loadMeshes } from '../../src/render/scene/meshes';
import { lensShot } from '../../src/render/shot';
import { picturePixels, projection } from '../../src/render/request';
import { cutoutAt } from '../../src/render/lens/lensView';

const renderer = new LensRenderer(new OffscreenCanvas(64, 64));
const fetchBytes = async (name: string) => (await fetch(`/models/${name}.mesh`)).arrayBuffer();
const kit = builtInKit;

function planned(setup: Setup, stop?: string) {
  const plan = planSetup({ setup, kit, stopStep: 'half', habits: defaultHabits });
  const body = kit.bodies.find((item) => item.id === setup.camera.bodyId);
  const lens = kit.lenses.find((item) => item.id === setup.camera.lensId);
  if (plan.kind !== 'plan' || !body || !lens) throw new Error(setup.name);
  const index = stop === undefined ? plan.selected : plan.stops.findIndex((item) => item.stop.label === stop);
  const shot = lensShot(setup, plan, body, lens, index);
  if (!shot) throw new Error(`No f/${stop}`);
  return { plan, body, shot, view: viewpoint(setup, body), index };
}

export interface DemoOptions {
  readonly name: string;
  readonly width: number;
  readonly views: number;
  readonly stop?: string;
  readonly cutout?: Cutout;
  readonly plain?: boolean;
  /** As high as wide. */
  readonly square?: boolean;
  /** Looks into the eyes of this person only. */
  readonly eyesOf?: string;
}

async function demo({
  name,
  width,
  views,
  stop,
  cutout = wholePicture,
  plain = false,
  square = false,
  eyesOf
}: DemoOptions) {
  const setup = demoSetup(name);
  const { shot, view } = planned(setup, stop);
  const { pictureWidthMm, pictureHeightMm } = shot.lens;
  const share = (cutout.right - cutout.left) / (cutout.bottom - cutout.top);
  const height = square ? width : Math.round((width * pictureHeightMm) / pictureWidthMm / share);
  const request = { setup, view, lens: shot.lens, widthPx: width / (cutout.right - cutout.left), eyesOf };
  await loadMeshes(meshesFor(request), fetchBytes);
  const scene = buildScene(request);
  const full: LensExposure = { ...shot, view, cutout, width, height, plain };
  const times: Record<string, number> = {};
  const start = performance.now();
  const quick = await renderer.quick(scene, full);
  times['quick'] = performance.now() - start;
  const picture = renderer.begin(scene, full);
  const begun = performance.now();
  for (let n = 0; n < views; n++) {
    renderer.add(picture);
    renderer.finish(picture);
  }
  times['views'] = performance.now() - begun;
  const image = views === 0 ? quick : await renderer.image(picture);
  const light = plain ? renderer.light(picture) : null;
  renderer.end(picture);
  releaseScene(scene);
  return { image, light, times, width, height };
}

/** Draws a demo picture into the page and says how long it took. */
async function show(options: DemoOptions) {
  const { image, times, width, height } = await demo(options);
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('bitmaprenderer')?.transferFromImageBitmap(image);
  document.body.append(canvas);
  return { times, memory: renderer.memory };
}

/** How the camera of the points looks, degrees. */
export interface Look {
  readonly yawDeg: number;
  readonly pitchDeg: number;
}

export interface Dot {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** Bright points before a dark ground: the light on the sensor, row by row from the top. */
function points(
  dots: readonly Dot[],
  radiusPx: number,
  lens: LensState,
  {
    views,
    size,
    look = { yawDeg: 0, pitchDeg: 0 },
    ...rest
  }: Partial<LensExposure> & { readonly views: number; readonly size: number; readonly look?: Look }
) {
  const view: Viewpoint = {
    position: { x: 0, y: 0, z: 0 },
    yaw: (look.yawDeg * Math.PI) / 180,
    pitch: (look.pitchDeg * Math.PI) / 180,
    distance: lens.focusMm,
    surface: 'flat'
  };
  const scene = new Scene();
  const balls = new InstancedMesh(
    new SphereGeometry(1, 16, 12),
    new MeshBasicMaterial({ color: new Color(1, 1, 1) }),
    dots.length
  );
  dots.forEach((dot, index) => {
    // As large in the picture wherever it stands.
    const size0 = (radiusPx / size) * (lens.pictureWidthMm / imageDistance(lens.focalLengthMm, lens.focusMm)) * dot.z;
    balls.setMatrixAt(index, new Matrix4().compose(toThree(dot), new Quaternion(), new Vector3(size0, size0, size0)));
  });
  balls.frustumCulled = false;
  scene.add(balls);
  scene.updateMatrixWorld(true);
  const height = Math.round((size * lens.pictureHeightMm) / lens.pictureWidthMm);
  const picture = renderer.begin(scene, {
    lens,
    pupil: { blades: 9, roundness: 1, rim: 0 },
    stopsDown: 0,
    barrelShift: 0,
    exposure: 1,
    plain: true,
    view,
    cutout: wholePicture,
    width: size,
    height,
    ...rest
  });
  for (let n = 0; n < views; n++) renderer.add(picture);
  const raw = renderer.light(picture);
  renderer.end(picture);
  const light: number[] = [];
  for (let y = height - 1; y >= 0; y--) for (let x = 0; x < size; x++) light.push(raw[(y * size + x) * 4] ?? 0);
  return { light, width: size, height };
}

/** Light of a crop at 100% about somebody's eye, at a stop. */
async function eye(name: string, personId: string, role: 'nearEye' | 'farEye', stop: string, size: number) {
  const setup = demoSetup(name);
  const { plan, body, index } = planned(setup, stop);
  const lens = kit.lenses.find((item) => item.id === setup.camera.lensId);
  if (!lens) throw new Error('No lens');
  const subject = plan.subjects.findIndex((item) => item.id === personId);
  const place = plan.subjects[subject]?.points.findIndex((point) => point.role === role) ?? -1;
  const point = plan.subjects[subject]?.points[place];
  const at = point && projection({ setup, plan: { ...plan, selected: index }, body })(point.position);
  if (!at) throw new Error('Not in the picture');
  const cutout = cutoutAt(at, { width: size, height: size }, picturePixels({ setup, body }));
  const { light } = await demo({
    name,
    width: size,
    views: 64,
    stop,
    cutout,
    plain: true,
    square: true,
    eyesOf: personId
  });
  const ratio = plan.stops[index]?.sharpness[subject]?.[place]?.ratio ?? NaN;
  const grey = Array.from({ length: size * size }, (_, n) => light?.[4 * n + 1] ?? 0);
  return { grey, ratio };
}

/** Draws a setup so many times, a little different each time; the renderer's holdings before and after. */
async function many(name: string, times: number) {
  const start = demoSetup(name);
  const { shot, view } = planned(start);
  const at = (n: number) => ({
    ...start,
    people: start.people.map((person) => ({ ...person, headYawDeg: person.headYawDeg + (n % 20) }))
  });
  const draw = async (n: number) => {
    const request = { setup: at(n), view, lens: shot.lens, widthPx: 160 };
    await loadMeshes(meshesFor(request), fetchBytes);
    const scene = buildScene(request);
    const full: LensExposure = { ...shot, view, cutout: wholePicture, width: 160, height: 106 };
    (await renderer.quick(scene, full)).close();
    const picture = renderer.begin(scene, full);
    renderer.add(picture);
    renderer.end(picture);
    releaseScene(scene);
  };
  for (let n = 0; n < 5; n++) await draw(n);
  const before = renderer.memory;
  for (let n = 0; n < times; n++) await draw(n);
  return { before, after: renderer.memory };
}

const proof = { show, points, demo, eye, many, memory: () => renderer.memory };
export type Proof = typeof proof;
Object.assign(window, { proof });
