/** Shapes pictures are ordered in, and what is left of a picture cropped to one. */

/** As it is held, mm. */
export interface FrameSize {
  readonly width: number;
  readonly height: number;
}

/** Long side over short. */
export const printShapes = { '5:4': 5 / 4, '4:3': 4 / 3, '7:5': 7 / 5, '16:9': 16 / 9, '1:1': 1 } as const;
export type PrintShape = keyof typeof printShapes;
export const shapeNames = Object.keys(printShapes) as [PrintShape, ...PrintShape[]];

/** The largest part of a picture in a shape, as it is held: in shares of its width and height. */
export function croppedTo(
  shape: PrintShape,
  { width, height }: FrameSize
): { readonly width: number; readonly height: number } {
  const ratio = width > height ? printShapes[shape] : 1 / printShapes[shape];
  const wide = Math.min(width, height * ratio);
  return { width: wide / width, height: wide / ratio / height };
}

/**
 * Diagonal of what the tightest of the ordered shapes leaves over that of the picture, at most 1. A crop is enlarged more for
 * the same print, so the circle of confusion shrinks by as much.
 */
export function tightestCrop(shapes: readonly PrintShape[], picture: FrameSize): number {
  const whole = Math.hypot(picture.width, picture.height);
  return shapes.reduce((least, shape) => {
    const { width, height } = croppedTo(shape, picture);
    return Math.min(least, Math.hypot(width * picture.width, height * picture.height) / whole);
  }, 1);
}
