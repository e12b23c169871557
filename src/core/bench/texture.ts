/**
 * How sharp a place of the texture is, against the texture itself: what a window of the picture has of each wave over what is printed there. The
 * ratio is the square of what lens, defocus and pixels let through, whatever is printed.
 */
import { eachSpatialFrequency } from '../measure/spatialFrequencies';
import { lightAt, type Gray, type ImagePoint } from './gray';
import { placed, projected, type CameraIntrinsics, type Pose } from './pose';
import { texture } from './sheets';

/** Samples along a side of a window. */
const size = 64;
/** Frequencies looked at, cycles per pixel of the picture, evenly. */
const band = { from: 0.03, to: 0.27, bins: 12 } as const;
export const textureFrequencies: readonly number[] = Array.from(
  { length: band.bins },
  (_, bin) => band.from + ((bin + 0.5) * (band.to - band.from)) / band.bins
);

/** A window that weighs by Hann's has this standard deviation, over its width: √(1/12 − 1/(2π²)). */
const hannSd = Math.sqrt(1 / 12 - 1 / (2 * Math.PI * Math.PI));
/** From one window to the next, across and down the sheet, over their side (chosen). */
const stride = { across: 0.7, down: 0.5 } as const;

export interface Window {
  /** Depth of its middle, mm from the pupil, and over the window as a standard deviation. */
  readonly depthMm: number;
  readonly depthSdMm: number;
  /** What it has of what is printed, by frequency, as power; NaN where nothing is printed that tells. */
  readonly through: readonly number[];
}

/** What is printed, as pixels. */
export interface Printed {
  readonly raster: Gray;
  readonly perMm: number;
}

/** Windows over the texture, part of each over the next, as large as makes one sample a pixel. */
export function windowsOf(picture: Gray, pose: Pose, printed: Printed, lens: CameraIntrinsics, vPx: number): Window[] {
  const [, , middle] = placed(pose, { x: texture.x + texture.width / 2, y: texture.y + texture.height / 2 });
  const stepMm = middle / vPx;
  const side = size * stepMm;
  if (side > texture.width) return [];
  const columns = Math.max(1, Math.floor((texture.width - side) / (side * stride.across)) + 1);
  const rows = Math.max(1, Math.floor((texture.height - side) / (side * stride.down)) + 1);
  const windows: Window[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const x =
        texture.x + (columns === 1 ? (texture.width - side) / 2 : (column * (texture.width - side)) / (columns - 1));
      const y = texture.y + (rows === 1 ? (texture.height - side) / 2 : (row * (texture.height - side)) / (rows - 1));
      const found = windowAt(picture, pose, printed, lens, vPx, { x, y }, stepMm);
      if (found) windows.push(found);
    }
  return windows;
}

function windowAt(
  picture: Gray,
  pose: Pose,
  { raster, perMm }: Printed,
  lens: CameraIntrinsics,
  vPx: number,
  corner: ImagePoint,
  stepMm: number
): Window | null {
  const [seen, meant] = [new Float64Array(size * size), new Float64Array(size * size)];
  for (let v = 0; v < size; v++)
    for (let u = 0; u < size; u++) {
      const mm = { x: corner.x + (u + 0.5) * stepMm, y: corner.y + (v + 0.5) * stepMm };
      const px = projected(pose, mm, lens, vPx);
      if (px.x < 0 || px.y < 0 || px.x > picture.width - 1 || px.y > picture.height - 1) return null;
      seen[v * size + u] = lightAt(picture, px.x, px.y);
      meant[v * size + u] = lightAt(raster, mm.x * perMm - 0.5, mm.y * perMm - 0.5);
    }
  const at = { x: corner.x + (size / 2) * stepMm, y: corner.y + (size / 2) * stepMm };
  // How the paper's millimetres lie in the picture there: waves of the paper as waves of the picture.
  const [o, right, down] = [at, { x: at.x + 1, y: at.y }, { x: at.x, y: at.y + 1 }].map((mm) =>
    projected(pose, mm, lens, vPx)
  );
  if (!o || !right || !down) return null;
  const [a, b, c, d] = [right.x - o.x, down.x - o.x, right.y - o.y, down.y - o.y];
  const det = a * d - b * c;
  const side = size * stepMm;
  const binned = (samples: Float64Array): Float64Array => {
    const sums = new Float64Array(band.bins);
    eachSpatialFrequency(samples, size, (kx, ky, power) => {
      const [fu, fv] = [kx / side, (ky <= size / 2 ? ky : ky - size) / side];
      const nu = Math.hypot((d * fu - c * fv) / det, (-b * fu + a * fv) / det);
      const bin = Math.floor(((nu - band.from) / (band.to - band.from)) * band.bins);
      if (bin >= 0 && bin < band.bins) sums[bin] = (sums[bin] ?? 0) + power;
    });
    return sums;
  };
  const [sums, wholes] = [binned(seen), binned(meant)];
  const depths = [corner, { x: corner.x, y: corner.y + side }, { x: corner.x + side, y: corner.y }].map(
    (mm) => placed(pose, mm)[2]
  );
  const [, , depthMm] = placed(pose, at);
  const span = Math.hypot((depths[1] ?? 0) - (depths[0] ?? 0), (depths[2] ?? 0) - (depths[0] ?? 0));
  const through = Array.from(sums, (sum, bin) => {
    const whole = wholes[bin] ?? 0;
    return whole > 0 ? sum / whole : NaN;
  });
  return { depthMm, depthSdMm: hannSd * span, through };
}
