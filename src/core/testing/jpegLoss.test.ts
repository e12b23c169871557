import jpeg from 'jpeg-js';
import { describe, expect, it } from 'vitest';
import { afterJpeg } from './jpegLoss';
import { seededRandom } from './random';

describe('what a JPEG file loses', () => {
  it.each([30, 75, 82, 92])('is what jpeg-js loses that writes and reads it, quality %i', (quality) => {
    const random = seededRandom(quality);
    const [width, height] = [68, 52];
    const bytes = Uint8ClampedArray.from({ length: width * height }, (_, at) => {
      const [x, y] = [at % width, Math.floor(at / width)];
      return 110 + 60 * Math.sin(x / 3) + 50 * Math.cos((x + 2 * y) / 7) + 30 * (random() - 0.5);
    });
    const rgba = Uint8Array.from({ length: 4 * bytes.length }, (_, at) => bytes[at >> 2] ?? 0);
    const { data } = jpeg.decode(jpeg.encode({ data: rgba, width, height }, quality).data, { useTArray: true });
    const own = afterJpeg(bytes, width, quality);
    const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
    const off = [...own].map((value, at) => Math.abs(value - (data[at * 4] ?? 0)));
    const lost = [...own].map((value, at) => Math.abs(value - (bytes[at] ?? 0)));
    // Its transforms are whole numbers: a level here and there, and seldom a whole step of one wave.
    expect(mean(off)).toBeLessThan(0.6);
    expect(mean(off)).toBeLessThan(0.4 * mean(lost));
    expect(Math.max(...off)).toBeLessThan(Math.max(...lost));
  });
});
