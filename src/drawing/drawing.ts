/** The Floor as a drawing: the same plan to scale, for a file or a page, with nothing on it to take hold of. */
import { sharpFromTo } from '../core/call/inPrint';
import type { Plan } from '../core/call/plan';
import type { Body } from '../core/kit/schema';
import { eyeHeight } from '../core/people/anatomy';
import { ellipse, rectangle, type DrawingBox, type Drawing, type Mark } from '../core/paper/primitives';
import { viewpoint } from '../core/setup/scene';
import type { Background, Person, Setup, Thing } from '../core/setup/schema';
import { formatLength, formatLengthExactly, type LengthUnit } from '../core/units/length';
import {
  axisTicks,
  floorScale,
  framePath,
  planePath,
  sideScale,
  toPx,
  zonePath,
  type FloorScale,
  type FloorSide
} from './geometry';

/** What is shown of a setup. */
export interface FloorShown {
  readonly setup: Setup;
  readonly plan: Plan;
  readonly body: Body;
  readonly unit: LengthUnit;
}

/** More than these would stand over each other. */
const mostNamed = 6;
/** A background beyond the Floor is shown so far from its edge, px. */
const edge = 14;
const [top, bottom] = [26, 22] as const;
const nameSize = 12;

/** Sizes in px. @returns the Floor at the stop that is chosen */
export function floorDrawing(
  { setup, plan, body, unit }: FloorShown,
  width: number,
  height: number,
  side: FloorSide = 'above'
): Drawing {
  const scale = (side === 'above' ? floorScale : sideScale)(setup, plan.distanceMm, width, height);
  const placed = { scale, view: viewpoint(setup, body, plan.pupilMagnification, plan.fieldPerM) };
  const entry = plan.stops[plan.selected];
  const plot: DrawingBox = { x: 0, y: top, width, height: height - top - bottom };
  const named = setup.people.length <= mostNamed;
  const target = entry?.target.subjectId;
  const marks: Mark[] = [
    { kind: 'path', d: framePath(placed, setup, body, plan), fill: 'ink', opacity: 0.05, within: plot },
    { kind: 'path', d: framePath(placed, setup, body, plan), stroke: 'ink', opacity: 0.3, width: 0.75, within: plot },
    ...axis(scale, plan.distanceMm, unit),
    ...(side === 'side' ? [ground(scale)] : [])
  ];
  if (entry) {
    const { nearMm, farMm } = sharpFromTo(plan, entry);
    const zone = zonePath(placed, nearMm, farMm ?? Infinity);
    marks.push(
      { kind: 'path', d: zone, fill: 'cool', opacity: 0.2, within: plot },
      { kind: 'path', d: planePath(placed, entry.planeMm), stroke: 'cool', width: 1.5, dash: [5, 4], within: plot },
      {
        kind: 'text',
        x: 4,
        y: 16,
        size: nameSize,
        anchor: 'start',
        tone: 'cool',
        text: `sharp ${formatLengthExactly(nearMm, unit)} – ${farMm === null ? '∞' : formatLengthExactly(farMm, unit)}`
      }
    );
  }
  marks.push(
    ...walls(scale, setup),
    ...setup.backgrounds.flatMap((item, index) => backgroundMarks(scale, item, index, plan.distanceMm, unit)),
    ...setup.things.flatMap((item) => thingMarks(scale, item, target === item.id)),
    ...setup.people.flatMap((item) => {
      const shown = { named, target: target === item.id };
      return side === 'above' ? personMarks(scale, item, shown) : standingMarks(scale, item, shown);
    }),
    ...cameraMarks(scale, setup, plan.distanceMm)
  );
  return { width, height, title: `${setup.name}, from ${side === 'above' ? 'above' : 'the side'}`, marks };
}

const ground = (scale: FloorScale): Mark => ({
  kind: 'path',
  d: `M0 ${toPx(scale, 0, 0).y.toFixed(2)}H${scale.width}`,
  stroke: 'soft',
  width: 1.5
});

function axis(scale: FloorScale, distanceMm: number, unit: LengthUnit): Mark[] {
  const foot = scale.height - bottom;
  return axisTicks(scale, distanceMm, unit).flatMap(({ x, label }): Mark[] => [
    { kind: 'path', d: `M${x.toFixed(2)} ${top}V${foot}`, stroke: 'line', width: 0.75, opacity: 0.6 },
    { kind: 'text', x, y: scale.height - 8, text: label, size: 11, anchor: 'middle', tone: 'soft' }
  ]);
}

function walls(scale: FloorScale, { place, people, camera }: Setup): Mark[] {
  const foot = scale.height - bottom;
  const across = (depthMm: number) => `M${toPx(scale, depthMm, 0).x.toFixed(2)} ${top}V${foot}`;
  const along = (lateralMm: number) => `M0 ${toPx(scale, 0, lateralMm).y.toFixed(2)}H${scale.width}`;
  const furthest = Math.max(...people.map((person) => person.depthMm));
  const { backUpMm, behindMm, sideMm } = place;
  const lines = [
    ...(backUpMm === null ? [] : [across(-backUpMm)]),
    ...(behindMm === null || people.length === 0 ? [] : [across(furthest + behindMm)]),
    ...(sideMm === null || scale.side === 'side'
      ? []
      : [along(camera.lateralMm - sideMm), along(camera.lateralMm + sideMm)])
  ];
  const within = { x: 0, y: top, width: scale.width, height: foot - top };
  return lines.map((d): Mark => ({ kind: 'path', d, stroke: 'ink', width: 3, within }));
}

/** Height at which backgrounds are drawn from the side, mm. */
const shownHeightMm = 1300;

function backgroundMarks(
  scale: FloorScale,
  { name, depthMm, lateralMm, wish }: Background,
  index: number,
  distanceMm: number,
  unit: LengthUnit
): Mark[] {
  const wanted = toPx(scale, depthMm, scale.side === 'above' ? lateralMm : shownHeightMm);
  const off = wanted.x > scale.width - edge;
  const x = Math.min(scale.width - edge, wanted.x);
  const half = Math.min(60, scale.height * 0.22);
  const dash = wish === 'hide' || wish === 'soft' ? [2, 3] : wish === 'hint' ? [8, 3] : undefined;
  const last = x > scale.width - 70;
  return [
    {
      kind: 'path',
      d: `M${x.toFixed(2)} ${(wanted.y - half).toFixed(2)}V${(wanted.y + half).toFixed(2)}`,
      stroke: 'soft',
      width: 5,
      dash
    },
    {
      kind: 'text',
      x: last ? scale.width - 6 : x,
      y: 40 + (index % 2) * 12,
      size: nameSize,
      anchor: last ? 'end' : 'middle',
      tone: 'ink',
      text: off ? `${name} ${formatLength(depthMm + distanceMm, unit)} →` : name
    }
  ];
}

function thingMarks(scale: FloorScale, thing: Thing, target: boolean): Mark[] {
  const above = scale.side === 'above';
  const at = toPx(scale, thing.depthMm, above ? thing.lateralMm : thing.heightMm);
  const across = Math.max(8, (above ? thing.widthMm : thing.tallMm) * scale.pxPerMm);
  const deep = Math.max(8, thing.deepMm * scale.pxPerMm);
  return [
    {
      kind: 'path',
      d: rectangle({ x: at.x - deep / 2, y: at.y - across / 2, width: deep, height: across }),
      fill: 'paper',
      stroke: 'ink',
      width: 1.5
    },
    { kind: 'text', ...at, y: at.y + across / 2 + 13, text: thing.name, size: nameSize, anchor: 'middle', tone: 'ink' },
    ...(target ? [ring(at, Math.max(9, deep))] : [])
  ];
}

const ring = (at: { readonly x: number; readonly y: number }, radius: number): Mark => ({
  kind: 'path',
  d: ellipse(at.x, at.y, radius, radius),
  stroke: 'pencil',
  width: 2
});

/** Head half-width below which the figure is drawn larger than life, px. */
const leastHead = 7;

interface Shown {
  readonly named: boolean;
  readonly target: boolean;
}

/** Shoulders, head and nose, each turned as it is; mm of a person of usual size, drawn at some px to the mm. */
function personMarks(scale: FloorScale, person: Person, { named, target }: Shown): Mark[] {
  const at = toPx(scale, person.depthMm, person.lateralMm);
  const size = Math.max(leastHead, 76 * scale.pxPerMm) / 76;
  /** A point of the figure, turned about another, in px. */
  const turned = (x: number, y: number, degrees: number, about = 0) => {
    const a = (degrees * Math.PI) / 180;
    const dx = x - about;
    return {
      x: at.x + size * (about + dx * Math.cos(a) - y * Math.sin(a)),
      y: at.y + size * (dx * Math.sin(a) + y * Math.cos(a))
    };
  };
  const shoulders = turned(105, 0, -person.bodyYawDeg, 80);
  const head = turned(80, 0, -person.headYawDeg);
  const nose = [
    turned(-30, 0, -person.headYawDeg),
    turned(10, -26, -person.headYawDeg),
    turned(10, 26, -person.headYawDeg)
  ];
  const corners = nose.map(({ x, y }) => `${x.toFixed(2)} ${y.toFixed(2)}`);
  return [
    {
      kind: 'path',
      d: ellipse(shoulders.x, shoulders.y, 105 * size, 215 * size, -person.bodyYawDeg),
      fill: person.importance === 'maySoft' ? 'line' : 'paper',
      stroke: 'ink',
      width: 1.4
    },
    { kind: 'path', d: `M${corners.join('L')}Z`, fill: 'ink' },
    { kind: 'path', d: ellipse(head.x, head.y, 95 * size, 76 * size, -person.headYawDeg), fill: 'ink' },
    ...(named ? [nameMark(at.x + 225 * size, at.y + (person.lateralMm >= 0 ? 12 : -8), person.name)] : []),
    ...(target ? [ring(at, 9)] : [])
  ];
}

/** The same person from the side: as tall as they stand, facing the camera. */
function standingMarks(scale: FloorScale, person: Person, { named, target }: Shown): Mark[] {
  const eyes = person.floorMm + eyeHeight(person.statureMm, person.posture, person.being);
  const at = toPx(scale, person.depthMm, eyes);
  const head = Math.max(5, 120 * scale.pxPerMm);
  const floorY = toPx(scale, 0, person.floorMm).y - at.y;
  const p = (x: number, y: number) => `${(at.x + x).toFixed(2)} ${(at.y + y).toFixed(2)}`;
  const body = [
    `M${p(head * 0.9, head)}C${p(head * 2, head * 1.6)} ${p(head * 2, floorY * 0.5)} ${p(head * 1.5, floorY)}`,
    `L${p(head * 0.3, floorY)}C${p(-head * 0.2, floorY * 0.5)} ${p(-head * 0.2, head * 1.6)} ${p(head * 0.5, head)}Z`
  ].join('');
  const nose = `M${p(-head * 0.3, 0)}L${p(head * 0.2, -head * 0.3)}L${p(head * 0.2, head * 0.3)}Z`;
  return [
    {
      kind: 'path',
      d: body,
      fill: person.importance === 'maySoft' ? 'line' : 'paper',
      stroke: 'ink',
      width: 1.4
    },
    { kind: 'path', d: nose, fill: 'ink' },
    { kind: 'path', d: ellipse(at.x + head * 0.8, at.y, head * 0.85, head), fill: 'ink' },
    ...(person.floorMm === 0
      ? []
      : [
          {
            kind: 'path',
            d: rectangle({
              x: at.x - head * 0.4,
              y: Math.min(at.y + floorY, at.y + floorY + person.floorMm * scale.pxPerMm),
              width: head * 2.7,
              height: Math.abs(person.floorMm) * scale.pxPerMm
            }),
            fill: 'line',
            stroke: 'soft',
            width: 0.75
          } as const
        ]),
    ...(named ? [nameMark(at.x - head, at.y - head * 1.4, person.name)] : []),
    ...(target ? [ring(at, 9)] : [])
  ];
}

const nameMark = (x: number, y: number, text: string): Mark => ({
  kind: 'text',
  x,
  y,
  text,
  size: nameSize,
  anchor: 'start',
  tone: 'ink'
});

function cameraMarks(scale: FloorScale, { camera }: Setup, distanceMm: number): Mark[] {
  const above = scale.side === 'above';
  const at = toPx(scale, -distanceMm, above ? camera.lateralMm : camera.heightMm);
  const a = ((above ? camera.yawDeg : -camera.pitchDeg) * Math.PI) / 180;
  const corner = ([x, y]: readonly [number, number]) =>
    `${(at.x + x * Math.cos(a) - y * Math.sin(a)).toFixed(2)} ${(at.y + x * Math.sin(a) + y * Math.cos(a)).toFixed(2)}`;
  const outline = (points: readonly (readonly [number, number])[]) => `M${points.map(corner).join('L')}Z`;
  const box = (left: number, right: number, half: number) =>
    outline([
      [left, -half],
      [right, -half],
      [right, half],
      [left, half]
    ]);
  return [{ kind: 'path', d: `${box(-24, -9, 10)}${box(-9, 0, 5.5)}`, fill: 'ink' }];
}
