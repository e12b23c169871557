/** Pictures of the simulated camera as files, as a camera writes them. */
import { encode, Image } from 'image-js';
import { withMetadata } from '../src/core/simulation/metadata';
import { encoded } from '../src/core/simulation/sensor';
import type { Gray } from '../src/core/bench/gray';

export interface Taken {
  readonly name: string;
  readonly lens: string;
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly pixelMm: number;
  readonly number: number;
}

/** As a camera writes it that knows nothing of its lens. */
export function bareJpeg({ width, height, light }: Gray) {
  const data = Uint8Array.from(light, (value) => Math.round(255 * encoded(Math.min(1, Math.max(0, value)))));
  return encode(new Image(width, height, { data, colorModel: 'GREY' }), {
    format: 'jpeg',
    encoderOptions: { quality: 92 }
  });
}

/** As a camera would write it. */
export function fileOf(picture: Gray, { name, lens, focalLengthMm, fNumber, pixelMm, number }: Taken) {
  const jpeg = bareJpeg(picture);
  const buffer = Buffer.from(
    withMetadata(jpeg, {
      bodyName: 'Main body',
      lensName: lens,
      focalLengthMm,
      fNumber,
      shutterS: 1 / 250,
      iso: 100,
      at: Date.UTC(2026, 10, 26, 10) + 5000 * number,
      zoneMinutes: 0,
      distanceMm: null,
      orientation: 1 as const,
      number,
      pixelMm
    })
  );
  return { name, mimeType: 'image/jpeg', buffer };
}
