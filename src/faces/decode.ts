/** A picture decoded once, parts of which are then drawn at any size. */
import type { Box, Size } from './boxes';
import type { DrawPart } from './detector';

export interface Decoded extends Size {
  readonly draw: DrawPart;
  /** A part as JPEG. */
  readonly jpeg: (part: Box, size: Size, quality?: number) => Promise<Blob>;
  readonly close: () => void;
}

/** @throws when the browser cannot decode it */
export async function decode(file: Blob, type: string, orientation: number): Promise<Decoded> {
  const source = await decoded(file, type, orientation);
  const size =
    source instanceof ImageBitmap
      ? { width: source.width, height: source.height }
      : { width: source.displayWidth, height: source.displayHeight };
  const canvasOf = (part: Box, { width, height }: Size): OffscreenCanvasRenderingContext2D => {
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d', { willReadFrequently: true });
    if (!context) throw new Error('This browser draws no picture.');
    context.imageSmoothingQuality = 'high';
    context.drawImage(source, part.x, part.y, part.width, part.height, 0, 0, width, height);
    return context;
  };
  return {
    ...size,
    draw: (part, wanted) => canvasOf(part, wanted).getImageData(0, 0, wanted.width, wanted.height),
    jpeg: (part, wanted, quality = 0.85) =>
      canvasOf(part, wanted).canvas.convertToBlob({ type: 'image/jpeg', quality }),
    close: () => source.close()
  };
}

async function decoded(file: Blob, type: string, orientation: number): Promise<ImageBitmap | VideoFrame> {
  // Faster by half, but it leaves turned pictures as they lie.
  if (orientation === 1 && 'ImageDecoder' in globalThis && (await ImageDecoder.isTypeSupported(type))) {
    const decoder = new ImageDecoder({ data: await file.arrayBuffer(), type });
    try {
      const { image } = await decoder.decode();
      return image;
    } finally {
      decoder.close();
    }
  }
  return createImageBitmap(file, { imageOrientation: 'from-image' });
}
