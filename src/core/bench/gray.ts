/** Pictures as light: one number a pixel, linear, 0 black to 1 white, row by row. */

export interface Gray {
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}

export interface ImagePoint {
  readonly x: number;
  readonly y: number;
}

export const gray = (width: number, height: number): Gray => ({
  width,
  height,
  light: new Float32Array(width * height)
});

/** Between the four pixels about a place; pixel centres lie at whole numbers. The edge goes on beyond the picture. */
export function lightAt({ width, height, light }: Gray, x: number, y: number): number {
  const cx = Math.min(Math.max(x, 0), width - 1.001);
  const cy = Math.min(Math.max(y, 0), height - 1.001);
  const [left, top] = [Math.floor(cx), Math.floor(cy)];
  const [fx, fy] = [cx - left, cy - top];
  const at = top * width + left;
  const [a = 0, b = 0, c = 0, d = 0] = [light[at], light[at + 1], light[at + width], light[at + width + 1]];
  return (a * (1 - fx) + b * fx) * (1 - fy) + (c * (1 - fx) + d * fx) * fy;
}

/** Smaller by a whole number, each pixel the mean of those it covers. */
export function smaller({ width, height, light }: Gray, times: number): Gray {
  if (times <= 1) return { width, height, light };
  const small = gray(Math.floor(width / times), Math.floor(height / times));
  for (let y = 0; y < small.height; y++)
    for (let x = 0; x < small.width; x++) {
      let sum = 0;
      for (let dy = 0; dy < times; dy++) {
        const row = (y * times + dy) * width + x * times;
        for (let dx = 0; dx < times; dx++) sum += light[row + dx] ?? 0;
      }
      small.light[y * small.width + x] = sum / (times * times);
    }
  return small;
}
