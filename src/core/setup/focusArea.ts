/** The part of the picture that autofocus looks at. */
import type { Body, FocusGrid } from '../kit/schema';
import { frameSize, pictureSize } from './framing';
import type { Camera, FocusArea } from './schema';
import type { FrameArea } from './lineOfSight';

/** Edge of a focus point over the long edge of the frame, by the size it is set to (from memory; bodies differ by two). */
export const pointShare: Readonly<Record<Camera['pointSize'], number>> = {
  pinpoint: 0.008,
  small: 0.02,
  medium: 0.045,
  large: 0.09
};

/** Edge of what a tap on a screen takes, likewise (from memory). */
const tapShare = 0.08;

/** Steps of the coarse grid that a zone reaches to either side of its middle; neighbours are one step away. */
const zoneSteps = 2;

interface Held {
  readonly body: Body;
  readonly camera: Camera;
}

/** Half a square of so much of the long edge, in shares of the picture. */
function halfSquare({ body, camera }: Held, share: number): { readonly x: number; readonly y: number } {
  const picture = pictureSize(body, camera);
  const mm = body.sensor.widthMm * share;
  return { x: mm / picture.width / 2, y: mm / picture.height / 2 };
}

/** One step of the coarse grid, in shares of the picture. */
function gridStep({ body, camera }: Held): { readonly x: number; readonly y: number } {
  const { columns, rows, widthShare, heightShare }: FocusGrid = body.focusGrid;
  const along = { long: widthShare / Math.max(1, columns - 1), short: heightShare / Math.max(1, rows - 1) };
  const frame = frameSize(body, camera.orientation);
  const picture = pictureSize(body, camera);
  const [x, y] = camera.orientation === 'landscape' ? [along.long, along.short] : [along.short, along.long];
  return { x: (x * frame.width) / picture.width, y: (y * frame.height) / picture.height };
}

/** The square a focus point covers about a place. */
export function pointBox(
  held: Held,
  at: { readonly x: number; readonly y: number },
  size = held.camera.pointSize
): FrameArea {
  return about(at, halfSquare(held, pointShare[size]));
}

const about = (
  at: { readonly x: number; readonly y: number },
  half: { readonly x: number; readonly y: number }
): FrameArea => ({
  left: at.x - half.x,
  right: at.x + half.x,
  top: at.y - half.y,
  bottom: at.y + half.y
});

/** All that a body's points reach. */
export function gridBox({ body, camera }: Held): FrameArea {
  const { widthShare, heightShare } = body.focusGrid;
  const frame = frameSize(body, camera.orientation);
  const picture = pictureSize(body, camera);
  const [x, y] = camera.orientation === 'landscape' ? [widthShare, heightShare] : [heightShare, widthShare];
  return about(
    { x: 0.5, y: 0.5 },
    { x: (x * frame.width) / picture.width / 2, y: (y * frame.height) / picture.height / 2 }
  );
}

/** Where a body can look: a phone is tapped, or chooses by itself; one whose finder is a mirror sees no eyes. */
export function areasOf({ kind }: Pick<Body, 'kind'>): readonly FocusArea[] {
  if (kind === 'phone') return ['wholeFrame', 'eyeDetection', 'tap'];
  const all = ['point', 'neighbours', 'zone', 'wholeFrame', 'tracking'] as const;
  return kind === 'slr' ? all : [...all, 'eyeDetection'];
}

/** The part of the picture an area covers when it is put on a place. */
export function areaBox(held: Held, area: FocusArea, at: { readonly x: number; readonly y: number }): FrameArea {
  const point = halfSquare(held, pointShare[held.camera.pointSize]);
  const step = gridStep(held);
  switch (area) {
    case 'point':
      return about(at, point);
    case 'neighbours':
      return about(at, { x: step.x + point.x, y: step.y + point.y });
    case 'zone':
      return about(at, { x: zoneSteps * step.x + point.x, y: zoneSteps * step.y + point.y });
    case 'tap':
      return about(at, halfSquare(held, tapShare));
    case 'wholeFrame':
    case 'tracking':
    case 'eyeDetection':
      return gridBox(held);
  }
}
