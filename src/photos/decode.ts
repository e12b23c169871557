/** A picture decoded once, parts of which are then drawn at any size. */
import type { PixelBox, Size } from '../faces/boxes';
import type { DrawPart } from '../faces/detector';

export interface Decoded extends Size {
  readonly draw: DrawPart;
  /** A part as JPEG. */
  readonly jpeg: (part: PixelBox, size: Size, quality?: number) => Promise<Blob>;
  readonly close: () => void;
}

type Drawable = ImageBitmap | VideoFrame | OffscreenCanvas;

/** A picture at a size: whole, or smaller by halves. */
interface Level extends Size {
  readonly source: Drawable;
}

/** Larger pictures are drawn from as they came: their pixels would take more memory than a page has, pixels. */
const mostUnpacked = 70_000_000;
/** The smallest of the sizes kept has this longer side at least, pixels. */
const smallestLong = 700;

const contextOf = (width: number, height: number): OffscreenCanvasRenderingContext2D => {
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser can’t draw images.');
  context.imageSmoothingQuality = 'high';
  return context;
};

function scaled({ source }: Level, width: number, height: number): Level {
  const context = contextOf(width, height);
  // By halves the plain way is the mean of four pixels, and five times as fast.
  context.imageSmoothingQuality = 'low';
  context.drawImage(source, 0, 0, width, height);
  return { source: context.canvas, width, height };
}

/**
 * The picture, and smaller by halves. As it comes from the decoder each part that is drawn costs as much as the whole; unpacked once, next
 * to nothing (docs/architecture.md).
 */
function levelsOf(source: ImageBitmap | VideoFrame, { width, height }: Size): Level[] {
  const first: Level = { source, width, height };
  if (width * height > mostUnpacked) return [first];
  const levels = [scaled(first, width, height)];
  source.close();
  for (let last = levels[0]; last && Math.max(last.width, last.height) >= 2 * smallestLong;) {
    last = scaled(last, Math.round(last.width / 2), Math.round(last.height / 2));
    levels.push(last);
  }
  return levels;
}

/** @throws when the browser cannot decode it */
export const decode = async (file: Blob, type: string, orientation: number): Promise<Decoded> =>
  fromSource(await decoded(file, type, orientation));

/** Of pixels that were decoded elsewhere. */
export const decodePixels = async ({
  data,
  width,
  height
}: { data: Uint8ClampedArray<ArrayBuffer> } & Size): Promise<Decoded> =>
  fromSource(await createImageBitmap(new ImageData(data, width, height)));

function fromSource(source: ImageBitmap | VideoFrame): Decoded {
  const size =
    source instanceof ImageBitmap
      ? { width: source.width, height: source.height }
      : { width: source.displayWidth, height: source.displayHeight };
  const levels = levelsOf(source, size);
  const canvasOf = (part: PixelBox, { width, height }: Size): OffscreenCanvasRenderingContext2D => {
    const context = contextOf(width, height);
    // The smallest that still has as many pixels as are wanted.
    const level =
      levels.findLast(
        (one) => one.width * part.width >= width * size.width && one.height * part.height >= height * size.height
      ) ?? levels[0];
    if (!level) throw new Error('No image.');
    const [across, down] = [level.width / size.width, level.height / size.height];
    context.drawImage(
      level.source,
      part.x * across,
      part.y * down,
      part.width * across,
      part.height * down,
      0,
      0,
      width,
      height
    );
    return context;
  };
  return {
    ...size,
    draw: (part, wanted) => canvasOf(part, wanted).getImageData(0, 0, wanted.width, wanted.height),
    jpeg: (part, wanted, quality = 0.85) =>
      canvasOf(part, wanted).canvas.convertToBlob({ type: 'image/jpeg', quality }),
    close: () => {
      for (const { source: kept } of levels) {
        // A canvas holds its pixels until it is collected, which may be late.
        if (kept instanceof OffscreenCanvas) kept.width = kept.height = 0;
        else kept.close();
      }
    }
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
