/** Light of pixels: what blur adds up in. */
import { linearOf } from '../simulation/sensor';

const table = Float32Array.from({ length: 256 }, (_, value) => linearOf(value / 255));

/** Relative luminance of RGBA bytes, 0 to 1 (Rec. 709 weights, IEC 61966-2-1). */
export function luminanceOf(bytes: Uint8ClampedArray | Uint8Array): Float32Array<ArrayBuffer> {
  const light = new Float32Array(bytes.length / 4);
  for (let pixel = 0; pixel < light.length; pixel++) {
    const at = pixel * 4;
    const [r, g, b] = [table[bytes[at] ?? 0] ?? 0, table[bytes[at + 1] ?? 0] ?? 0, table[bytes[at + 2] ?? 0] ?? 0];
    light[pixel] = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  }
  return light;
}
