/** What the sensor makes of the light: noise. In linear light, channel by channel. */

export interface LinearImage {
  readonly width: number;
  readonly height: number;
  /** Light from 0 to 1 (white), red, green and blue after each other for each pixel. */
  readonly light: Float32Array<ArrayBuffer>;
}

/** sRGB (IEC 61966-2-1) to light and back; 0 to 1. */
export const linearOf = (value: number): number =>
  value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
export const encoded = (light: number): number =>
  light <= 0.0031308 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055;

/** The picture of RGBA bytes as light. */
export function lightOf(bytes: Uint8ClampedArray, width: number, height: number): LinearImage {
  const table = Float32Array.from({ length: 256 }, (_, value) => linearOf(value / 255));
  const light = new Float32Array(width * height * 3);
  for (let pixel = 0; pixel < width * height; pixel++)
    for (let channel = 0; channel < 3; channel++)
      light[pixel * 3 + channel] = table[bytes[pixel * 4 + channel] ?? 0] ?? 0;
  return { width, height, light };
}

/** As RGBA bytes. */
export function bytesOf({ width, height, light }: LinearImage): Uint8ClampedArray<ArrayBuffer> {
  const bytes = new Uint8ClampedArray(width * height * 4);
  for (let pixel = 0; pixel < width * height; pixel++) {
    for (let channel = 0; channel < 3; channel++)
      bytes[pixel * 4 + channel] = 255 * encoded(Math.min(1, Math.max(0, light[pixel * 3 + channel] ?? 0)));
    bytes[pixel * 4 + 3] = 255;
  }
  return bytes;
}

/** Light as bytes, in so many steps: the curve is a power, and dear. */
const encodedBytes = Uint8ClampedArray.from({ length: 8192 }, (_, step) => 255 * encoded(step / 8191));

/** A picture of one channel as RGBA bytes, to half a step of a byte. */
export function bytesOfGray(light: Float32Array): Uint8ClampedArray<ArrayBuffer> {
  const bytes = new Uint8ClampedArray(light.length * 4).fill(255);
  for (let pixel = 0; pixel < light.length; pixel++) {
    const step = Math.round(8191 * Math.min(1, Math.max(0, light[pixel] ?? 0)));
    const byte = encodedBytes[step] ?? 0;
    bytes[4 * pixel] = byte;
    bytes[4 * pixel + 1] = byte;
    bytes[4 * pixel + 2] = byte;
  }
  return bytes;
}

/** A sensor's noise. From memory: about 1,500 electrons per µm² fill it at base ISO, and reading adds three. */
export interface Noise {
  /** Electrons that make white at the ISO in use. */
  readonly fullElectrons: number;
  readonly readElectrons: number;
}

const electronsPerUm2 = 1500;
const usualReadElectrons = 3;

/** @param pixelMm the pixel's pitch; @param iso and base ISO: twice the ISO is half the light */
export const noiseAt = (pixelMm: number, iso: number, baseIso: number): Noise => ({
  fullElectrons: (electronsPerUm2 * (pixelMm * 1000) ** 2 * baseIso) / Math.max(iso, baseIso),
  readElectrons: usualReadElectrons
});

/** Light as it is counted: each electron by chance (normal for Poisson: there are many), and the reading's own. */
export function counted(
  picture: LinearImage,
  { fullElectrons, readElectrons }: Noise,
  normal: () => number
): LinearImage {
  const light = picture.light.map((value) => {
    const electrons = Math.max(0, value) * fullElectrons;
    return (electrons + Math.sqrt(electrons + readElectrons * readElectrons) * normal()) / fullElectrons;
  });
  return { ...picture, light };
}
