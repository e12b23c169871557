/** What a baseline JPEG file does to grey pixels (ITU-T T.81): only what is lost, without writing the file, which took most of the time of a patch. Held against jpeg-js beside it. */

/** Table K.1 of T.81, for luminance, row by row. */
const quantisation = [
  16, 11, 10, 16, 24, 40, 51, 61, 12, 12, 14, 19, 26, 58, 60, 55, 14, 13, 16, 24, 40, 57, 69, 56, 14, 17, 22, 29, 51,
  87, 80, 62, 18, 22, 37, 56, 68, 109, 103, 77, 24, 35, 55, 64, 81, 104, 113, 92, 49, 64, 78, 87, 103, 121, 120, 101,
  72, 92, 95, 98, 112, 100, 103, 99
] as const;

/** As files of cameras and programs scale it, 1 to 100 (common practice, no source). */
const scaled = (quality: number): readonly number[] => {
  const percent = quality < 50 ? 5000 / quality : 200 - 2 * quality;
  return quantisation.map((step) => Math.min(255, Math.max(1, Math.floor((step * percent + 50) / 100))));
};

/** Rows of the transform of eight: each wave at each place. */
const waves = Float64Array.from({ length: 64 }, (_, at) => {
  const [wave, place] = [at >> 3, at & 7];
  return (wave === 0 ? Math.SQRT1_2 : 1) * 0.5 * Math.cos(((2 * place + 1) * wave * Math.PI) / 16);
});

const half = new Float64Array(64);
/** `waves` times a block times `waves` turned over; the other way back. */
function transform(block: Float64Array, back: boolean): void {
  const at = (row: number, column: number) => waves[back ? column * 8 + row : row * 8 + column] ?? 0;
  for (let row = 0; row < 8; row++)
    for (let column = 0; column < 8; column++) {
      let sum = 0;
      for (let k = 0; k < 8; k++) sum += at(row, k) * (block[k * 8 + column] ?? 0);
      half[row * 8 + column] = sum;
    }
  for (let row = 0; row < 8; row++)
    for (let column = 0; column < 8; column++) {
      let sum = 0;
      for (let k = 0; k < 8; k++) sum += (half[row * 8 + k] ?? 0) * at(column, k);
      block[row * 8 + column] = sum;
    }
}

/** @param bytes grey, 0 to 255, `width` across, whole rows @param quality 1 to 100 */
export function afterJpeg(bytes: Uint8ClampedArray, width: number, quality: number): Uint8ClampedArray {
  const height = bytes.length / width;
  const steps = scaled(quality);
  const out = new Uint8ClampedArray(bytes.length);
  const block = new Float64Array(64);
  for (let top = 0; top < height; top += 8)
    for (let left = 0; left < width; left += 8) {
      for (let at = 0; at < 64; at++) {
        const [y, x] = [Math.min(height - 1, top + (at >> 3)), Math.min(width - 1, left + (at & 7))];
        block[at] = (bytes[y * width + x] ?? 0) - 128;
      }
      transform(block, false);
      for (let at = 0; at < 64; at++) block[at] = Math.round((block[at] ?? 0) / (steps[at] ?? 1)) * (steps[at] ?? 1);
      transform(block, true);
      for (let at = 0; at < 64; at++) {
        const [y, x] = [top + (at >> 3), left + (at & 7)];
        if (y < height && x < width) out[y * width + x] = (block[at] ?? 0) + 128;
      }
    }
  return out;
}
