/** The plain through-the-lens outline: shapes in frame units (0 to 1 each way), from furthest to nearest. */
import type { Plan } from '$core/call/plan';
import { add, type Vector } from '$core/maths/vector';
import { blurDiscDiameter } from '$core/optics/blur';
import { adultHead, eyeHeight, headScale, interpupillaryOf } from '$core/people/anatomy';
import { eyesMidpoint, headPoint, turnFromLens, type Viewpoint } from '$core/setup/scene';
import { frameSize } from '$core/setup/framing';
import { projector, type Projected } from '$core/setup/projection';
import type { Body } from '$core/kit/schema';
import type { Background, Person, Setup, Thing } from '$core/setup/schema';

interface Layer {
  readonly key: string;
  readonly name: string;
  readonly depth: number;
  /** Diameter of the blur disc, frame widths. */
  readonly blur: number;
}

interface PersonFigure extends Layer {
  readonly kind: 'person';
  readonly id: string;
  readonly body: string;
  readonly head: {
    readonly x: number;
    readonly y: number;
    readonly rx: number;
    readonly ry: number;
  };
  readonly eyes: readonly {
    readonly x: number;
    readonly y: number;
    readonly r: number;
    readonly target: boolean;
    readonly ratio: number;
  }[];
  /** Null where the face is turned away. */
  readonly face: { readonly x: number; readonly y: number; readonly rx: number; readonly ry: number } | null;
  /** Nose, mouth and brows as paths; empty where the face is turned away. */
  readonly nose: string;
  readonly mouth: string;
  readonly brows: string;
  readonly shade: number;
}

interface ThingFigure extends Layer {
  readonly kind: 'thing';
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly target: boolean;
}

interface BackgroundFigure extends Layer {
  readonly kind: 'background';
  readonly id: string;
  /** Size of the detail, frame widths. */
  readonly detail: number;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly order: number;
}

export type Figure = PersonFigure | ThingFigure | BackgroundFigure;

/** Everything in the picture at the stop in use. `aspect` is width over height of the frame. */
export function figures(setup: Setup, plan: Plan, body: Body, view: Viewpoint): { shapes: Figure[]; aspect: number } {
  const frame = frameSize(body, setup.camera.orientation);
  const aspect = frame.width / frame.height;
  const entry = plan.stops[plan.selected];
  if (!entry) return { shapes: [], aspect };
  const focus = entry.drawnFocusMm;
  const P = plan.pupilMagnification;
  const project = projector(view, setup.camera, body, focus, P);
  const blurAt = (depth: number) =>
    blurDiscDiameter(plan.focalLengthMm, entry.stop.fNumber, focus, Math.max(depth, plan.focalLengthMm), P) /
    frame.width;

  const shapes: Figure[] = [];
  const furthest = Math.max(...plan.backgrounds.map((state) => state.depthMm));
  plan.backgrounds.forEach((state, order) => {
    const background = setup.backgrounds.find((item) => item.id === state.id);
    if (background && state.depthMm > plan.focalLengthMm * 2) {
      const fills = state.depthMm >= furthest;
      shapes.push(backgroundFigure(background, state.depthMm, order, blurAt(state.depthMm), project, view, fills));
    }
  });
  plan.subjects.forEach((subject, index) => {
    const isTarget = (feature: string) => entry.target.subjectId === subject.id && entry.target.feature === feature;
    const person = setup.people.find((item) => item.id === subject.id);
    const thing = setup.things.find((item) => item.id === subject.id);
    const depth = (subject.nearest + subject.furthest) / 2;
    const layer = {
      key: `${subject.kind}-${subject.id}`,
      id: subject.id,
      name: subject.name,
      depth,
      blur: blurAt(depth)
    };
    if (thing) {
      const box = thingBox(thing, project);
      if (box) shapes.push({ ...layer, kind: 'thing', ...box, target: isTarget('thingNear') || isTarget('thingFar') });
    }
    if (!person) return;
    const figure = personFigure(person, view, project, aspect);
    if (!figure) return;
    const eyes = subject.points.flatMap((point, pointIndex) => {
      if (point.role !== 'nearEye' && point.role !== 'farEye') return [];
      const at = project(point.position);
      const ratio = entry.sharpness[index]?.[pointIndex]?.ratio ?? 0;
      return at ? [{ x: at.x, y: at.y, r: 13 * at.scale, target: isTarget(point.feature), ratio }] : [];
    });
    shapes.push({ ...layer, kind: 'person', ...figure, eyes, shade: index });
  });
  return { shapes: shapes.sort((a, b) => b.depth - a.depth), aspect };
}

type Project = (point: Vector) => Projected | undefined;

function personFigure(person: Person, view: Viewpoint, project: Project, aspect: number) {
  const size = headScale(interpupillaryOf[person.being]);
  const middle = (adultHead.crownY + adultHead.chinY) / 2;
  const on = (x: number, y: number, z: number) => project(headPoint(person, { x, y, z }));
  const centre = on(0, middle, adultHead.backZ / 2);
  const face = on(0, -24, -55);
  if (!centre || !face) return undefined;
  const turn = turnFromLens(view, person);
  const wide = (half: number, deep: number) => Math.hypot(half * Math.cos(turn), deep * Math.sin(turn)) * size;
  const tall = (half: number) => half * size * aspect;
  const faces = Math.abs(turn) < (100 * Math.PI) / 180;
  const through = (...points: (Projected | undefined)[]) =>
    faces && points.every(Boolean) ? `M${points.map((at) => `${at?.x} ${at?.y}`).join(' L')}` : '';
  return {
    body: bodyPath(person, project),
    head: {
      x: centre.x,
      y: centre.y,
      rx: wide(adultHead.halfWidth, 94) * centre.scale,
      ry: tall((adultHead.crownY - adultHead.chinY) / 2) * centre.scale
    },
    face: faces ? { x: face.x, y: face.y, rx: wide(66, 70) * face.scale, ry: tall(94) * face.scale } : null,
    nose: through(on(0, -6, 4), on(0, -38, 28), on(-11, -46, 14)),
    mouth: through(on(-23, -74, 6), on(0, -73, 15), on(23, -74, 6)),
    brows: `${through(on(18, 20, 4), on(33, 24, 0), on(47, 17, -10))}${through(on(-18, 20, 4), on(-33, 24, 0), on(-47, 17, -10))}`
  };
}

/** Neck, shoulders and trunk as one shape at the person's depth. Shares of stature from memory. */
function bodyPath(person: Person, project: Project): string {
  const eyes = eyesMidpoint(person);
  const stature = person.statureMm;
  const base = { x: eyes.x, y: eyes.y, z: eyes.z + 90 };
  const seated = person.posture === 'seated';
  const drop = seated ? eyeHeight(stature, 'seated') - 100 : eyeHeight(stature, 'standing', person.being);
  const outline: [number, number][] = [
    [0.034, -0.05],
    [0.036, -0.1],
    [0.1, -0.125],
    [0.13, -0.16],
    [0.138, -0.26],
    [0.125, -0.4],
    [seated ? 0.15 : 0.105, -0.48],
    [seated ? 0.15 : 0.082, -0.7 * (seated ? drop / stature : 1)],
    [seated ? 0.14 : 0.062, -drop / stature + 0.04],
    // Twice, so that the rounding leaves the feet square.
    [seated ? 0.14 : 0.072, -drop / stature],
    [seated ? 0.14 : 0.072, -drop / stature]
  ];
  const points = [...outline, ...outline.map(([x, y]): [number, number] => [-x, y]).reverse()].flatMap(([x, y]) => {
    const at = project(add(base, { x: x * stature, y: y * stature, z: 0 }));
    return at ? [at] : [];
  });
  if (points.length < outline.length) return '';
  // Corners rounded by running the curve through the midpoints.
  const mid = (i: number) => {
    const a = points[i % points.length] as Projected;
    const b = points[(i + 1) % points.length] as Projected;
    return `${(a.x + b.x) / 2} ${(a.y + b.y) / 2}`;
  };
  const closed = [...points.slice(1), points[0] as Projected];
  const curve = closed.map((point, i) => `Q${point.x} ${point.y} ${mid(i + 1)}`).join('');
  return `M${mid(0)}${curve}Z`;
}

function thingBox(thing: Thing, project: Project) {
  const at = project({ x: thing.lateralMm, y: thing.heightMm, z: thing.depthMm });
  const top = project({ x: thing.lateralMm, y: thing.heightMm + thing.tallMm / 2, z: thing.depthMm });
  if (!at || !top) return undefined;
  const half = Math.max(0.004, (thing.widthMm / 2) * at.scale);
  const halfTall = Math.max(0.006, at.y - top.y);
  return { x: at.x - half, y: at.y - halfTall, width: 2 * half, height: 2 * halfTall };
}

/** The furthest fills the frame; nearer ones stand before it; foregrounds lie along the lower edge. */
function backgroundFigure(
  background: Background,
  depth: number,
  order: number,
  blur: number,
  project: Project,
  view: Viewpoint,
  fills: boolean
): BackgroundFigure {
  const at = project({ x: background.lateralMm, y: view.position.y, z: background.depthMm });
  const layer = { key: `background-${background.id}`, id: background.id, name: background.name, depth, blur, order };
  const detail = background.detailMm * (at?.scale ?? 0);
  const x = at?.x ?? 0.5;
  if (background.depthMm < 0)
    return { ...layer, kind: 'background', detail, x: x - 0.22, y: 0.84, width: 0.44, height: 0.2 };
  if (fills) return { ...layer, kind: 'background', detail, x: -0.05, y: -0.05, width: 1.1, height: 1.1 };
  const width = 0.24;
  return { ...layer, kind: 'background', detail, x: x - width / 2, y: -0.02, width, height: 1.04 };
}
